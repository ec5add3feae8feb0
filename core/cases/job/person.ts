import { personOf, type Person } from "../watchers";

/** What people do wrong at a vehicle, besides seeing a flash too few. */
const SLIPS = [
  "before-key-on",
  "late-watch",
  "stops-early",
  "taps-lamp-test",
  "wrong-wire",
  "wrong-lamp",
  "short-press",
  "slow-key",
  "wrong-answer",
  "reload",
  "clears-other",
  "wrong-fuse",
  "no-drive",
  "two-clears",
  "other-input",
  "miscalls-lead-in",
  "typo",
  "mends-wrongly",
  "does-not-look",
] as const;
export type Slip = (typeof SLIPS)[number];

/** How careful somebody is: `slips` holds how likely each slip is, each time it can be made. */
export interface Doer {
  kind: "careful" | "slipping";
  eyes: Person;
  slips: Readonly<Record<Slip, number>>;
  /** So many times they read a system again when they are told to. */
  patience: number;
}

const each = (p: number) => Object.fromEntries(SLIPS.map((s) => [s, p])) as Record<Slip, number>;

export function doerOf(kind: Doer["kind"], random: () => number): Doer {
  if (kind === "careful")
    return { kind, eyes: personOf(random() < 0.5 ? "clean" : "normal", random), slips: each(0), patience: 4 };
  return {
    kind,
    eyes: personOf(random() < 0.6 ? "normal" : "hard", random),
    slips: {
      ...each(0.07),
      "before-key-on": 0.15,
      "late-watch": 0.15,
      "stops-early": 0.15,
      "short-press": 0.15,
      "no-drive": 0.25,
      "mends-wrongly": 0.3,
      "does-not-look": 0.3,
    },
    patience: 5,
  };
}
