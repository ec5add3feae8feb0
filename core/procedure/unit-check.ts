import type { System } from "../pack/pack";
import { lampVerdict, type LampSeen, type LampVerdict } from "./lamp-check";

export type OutputSeen = "works" | "dead";

/** What was seen of one unit with the key on, engine off, no wire in. */
export interface UnitSeen {
  lamp: LampSeen | null;
  /** Other things that it drives, by their id; what was not checked is absent. */
  outputs: Readonly<Record<string, OutputSeen>>;
  /** Measured at its plug, where somebody did. */
  power?: "good" | "bad";
  ground?: "good" | "bad";
}

export type Suspect =
  | "none"
  | "lamp-only"
  | "bulb-or-lamp-circuit"
  | "feed"
  | "ground"
  | "power-or-ground"
  | "unit"
  | "test-line"
  | "wrong-lamp"
  | "lamp-or-unit"
  | "shared-feed";

export interface UnitVerdict extends LampVerdict {
  suspect: Suspect;
}

type About = Pick<System, "id" | "name" | "unit" | "feed" | "ground" | "drives">;

/** Does anything of the unit answer? null where nothing was checked. */
export function alive(seen: UnitSeen | undefined): boolean | null {
  if (!seen) return null;
  const all = Object.values(seen.outputs);
  if (seen.lamp === "steady" || seen.lamp === "flashing" || all.includes("works")) return true;
  if (seen.lamp === null && !all.length) return null;
  return false;
}

/**
 * Verdict on one unit from its lamp, from what else it drives, and from the units that share its feed or its ground: several
 * things dead at once point to what they have in common, not to each of them.
 */
export function unitVerdict(
  about: About,
  seen: UnitSeen,
  others: readonly { about: About; seen: UnitSeen | undefined }[],
): UnitVerdict | null {
  if (seen.lamp === null) return null;
  const drives = about.drives ?? [];
  const named = (is: OutputSeen) => drives.filter((o) => seen.outputs[o.id] === is).map((o) => o.name);
  const [works, dead] = [named("works"), named("dead")];
  const open = drives.filter((o) => !(o.id in seen.outputs)).map((o) => o.name);
  if (seen.lamp === "steady") {
    const verdict = { ...lampVerdict("steady"), suspect: "none" as const };
    if (!dead.length)
      return works.length
        ? {
            ...verdict,
            reason: `${works.join(", ")}: that works too, so the ${about.unit} is alive. It can be asked for its codes.`,
          }
        : verdict;
    return {
      ...verdict,
      headline: `The lamp is steady, but not all that the ${about.unit} drives works.`,
      reason: `${dead.join(", ")}: nothing seen or heard of that. The codes can be read all the same; note it down, it may be the fault.`,
      look: outputLook(about, dead),
    };
  }
  if (seen.lamp === "flashing") return { ...lampVerdict("flashing"), suspect: "test-line" };
  if (seen.lamp === "goes-out") return { ...lampVerdict("goes-out"), suspect: "wrong-lamp" };
  if (works.length) {
    const base = lampVerdict("dark", "all");
    const alive = `${works.join(", ")}: the ${about.unit} drives that, so it is alive.`;
    if (dead.length)
      return {
        ...base,
        suspect: "shared-feed",
        headline: `The lamp is dark, and ${dead.length === 1 ? "one more thing is" : "more things are"} dead.`,
        reason: `${alive} Dead besides the lamp: ${dead.join(", ")}. What these share comes before each of them.`,
        look: [...outputLook(about, dead), ...base.look],
      };
    if (open.length)
      return {
        ...base,
        suspect: "bulb-or-lamp-circuit",
        headline: "The lamp is dark, the unit is alive.",
        reason: `${alive} Most likely it is the bulb, its fuse or its wire; look at the rest too: ${open.join(", ")}.`,
      };
    return {
      ...base,
      suspect: "lamp-only",
      reason: `${alive} Bulb, fuse or the lamp's circuit is at fault.`,
    };
  }
  if (!dead.length) return { ...lampVerdict("dark"), suspect: "lamp-or-unit" };
  const base = open.length
    ? {
        ...lampVerdict("dark", "none"),
        headline: "The lamp is dark, and so is what was looked at.",
        reason: `Not looked at yet: ${open.join(", ")}. Dead too, it points to the unit's power or ground, or the unit itself.`,
      }
    : lampVerdict("dark", "none");
  return deadVerdict(base, about, seen, others);
}

/** Lamp and outputs are dead: what was measured at the plug, then what the others share with it. */
function deadVerdict(
  base: LampVerdict,
  about: About,
  seen: UnitSeen,
  others: readonly { about: About; seen: UnitSeen | undefined }[],
): UnitVerdict {
  if (seen.power === "bad")
    return {
      ...base,
      suspect: "feed",
      headline: "The unit has no power.",
      reason: `Measured at its plug: no battery voltage. Look along ${about.feed ?? "its feed"}.`,
      look: feedLook(about),
    };
  if (seen.ground === "bad")
    return {
      ...base,
      suspect: "ground",
      headline: "The unit has no good ground.",
      reason: `Measured at its plug: more than 0.1 V to battery negative. Look at ${about.ground ?? "its ground point"}.`,
      look: groundLook(about),
    };
  if (seen.power === "good" && seen.ground === "good")
    return {
      ...base,
      suspect: "unit",
      headline: "The unit itself is suspect.",
      reason: "Lamp and outputs are dead, power and ground at its plug are good.",
      look: [
        "Plug off and on once, key off: look for green or bent pins.",
        "Compare with a second vehicle of the same kind below: what works there and not here?",
        "Swap in a known good unit: same number on the label, key off before the plug comes off. A used unit can be bad itself.",
      ],
    };
  const shares = (key: "feed" | "ground", is: boolean) =>
    others.filter((o) => about[key] && o.about[key] === about[key] && alive(o.seen) === is).map((o) => o.about.unit);
  const names = (list: string[]) => list.join(" and the ");
  const feedDead = shares("feed", false);
  const groundDead = shares("ground", false);
  const feedGood = shares("feed", true);
  const groundGood = shares("ground", true);
  if (feedDead.length && !feedGood.length)
    return {
      ...base,
      suspect: "feed",
      headline: "Several units are dead: look at what feeds them.",
      reason: `The ${names(feedDead)} hangs on ${about.feed} as well and is dead too.`,
      look: feedLook(about),
    };
  if (groundDead.length && !groundGood.length)
    return {
      ...base,
      suspect: "ground",
      headline: "Several units are dead: look at their ground.",
      reason: `The ${names(groundDead)} has its ground at ${about.ground} as well and is dead too.`,
      look: groundLook(about),
    };
  const good = [
    feedGood.length ? `${about.feed} is good: the ${names(feedGood)} lives on it.` : "",
    groundGood.length ? `${about.ground} is good: the ${names(groundGood)} uses it.` : "",
  ].filter(Boolean);
  return {
    ...base,
    suspect: "power-or-ground",
    reason: [base.reason, ...good].join(" "),
    look: [
      ...(feedGood.length ? ["Measure the feed at the unit's own plug, key on: 12 V or more."] : feedLook(about)),
      ...(groundGood.length ? ["Measure the ground at the unit's own plug: below 0.1 V."] : groundLook(about)),
      "Tell below what you measured: only with both good is the unit itself suspect.",
    ],
  };
}

/** Where to look for things that are dead although their unit lives. */
function outputLook(about: About, dead: readonly string[]): string[] {
  const own = (about.drives ?? []).filter((o) => dead.includes(o.name));
  const feeds = [...new Set(own.flatMap((o) => o.feed ?? []))];
  return [
    feeds.length
      ? `Their feed first: ${feeds.join(", ")}.`
      : `The feed that they share first: their relay and its fuse.`,
    "Then each one's own plug and wire.",
  ];
}

const feedLook = (a: About) => [
  `Fuse first: ${a.feed ?? "the unit's fuse"}. Pull it, look, measure both sides with the key on.`,
  "Then the feed at the unit's plug, key on: 12 V or more.",
];
const groundLook = (a: About) => [
  `Ground: ${a.ground ?? "the unit's ground point"}. Clean, tight, no paint under it.`,
  "At the unit's plug, key on: below 0.1 V to battery negative.",
];

/** What differs between this vehicle and a good one of the same kind: what works there and not here is wrong here. */
export function compareVehicles(
  here: UnitSeen,
  there: UnitSeen,
  about: About,
): { wrongHere: string[]; sameOnBoth: string[] } {
  const outputs = about.drives ?? [];
  const lampWrong = here.lamp !== null && there.lamp === "steady" && here.lamp !== "steady";
  const wrong = outputs.filter((o) => here.outputs[o.id] === "dead" && there.outputs[o.id] === "works");
  const same = outputs.filter((o) => here.outputs[o.id] === "dead" && there.outputs[o.id] === "dead");
  return {
    wrongHere: [...(lampWrong ? ["The lamp"] : []), ...wrong.map((o) => o.name)],
    sameOnBoth: same.map((o) => o.name),
  };
}
