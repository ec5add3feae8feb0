import { encode, normal, seeded } from "@core/flash/dialect/encode";
import { PACKS } from "@packs/index";

/** Prints when a made-up hand taps for a pack's first dialect, as a JSON array of ms: for trying and for pictures. */
export function taps(given: Map<string, string>): number {
  const pack = PACKS.find((p) => p.id === given.get("pack"));
  const codes = given.get("codes")?.split(",") ?? [];
  const until = Number(given.get("until") ?? 60_000);
  if (!pack || !codes.length) {
    console.error(`taps needs --pack (${PACKS.map((p) => p.id).join(", ")}) and --codes 26,43`);
    return 2;
  }
  const [dialect] = pack.dialects;
  const random = seeded(Number(given.get("seed") ?? 1));
  const edges = encode(dialect, { stored: codes }, until, { speed: 1, jitter: 0.03, random });
  const lamp = edges.filter(([t, lit]) => lit === 1 && t > 0).map(([t]) => Math.round(t + 230 + 40 * normal(random)));
  // One blink is missed, as it happens.
  console.log(JSON.stringify(lamp.filter((_, i) => i !== 20)));
  return 0;
}
