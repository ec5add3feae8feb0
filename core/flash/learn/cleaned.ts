import type { Pace } from "../walk/walks";
import type { Climbed } from "./climb";
import { drawsOf } from "./fit";
import type { Marks } from "./marks";
import type { Look } from "./glance";

/** Walks that are taken for what was shown. */
const DRAWS = 2;
/** Rests that a walk names are exact. */
const EXACT = { ms: 1, share: 0.002 };
const MOST = 1000;

/** The marks as walks through a way have them: what was missed is put back, what was put in is gone, and each rest is of a kind. */
export function cleaned({ dialect, looks }: Climbed): Marks[] {
  return looks.flatMap((look) =>
    drawsOf(dialect, look, DRAWS, MOST).flatMap((paces) => cleanedBy(dialect.rest, look, paces)),
  );
}

function cleanedBy(rest: Marks["rest"], { track }: Look, paces: readonly Pace[]): Marks[] {
  const from = paces[0]?.node.kind === "steady" ? 1 : 0;
  const flashes = paces.slice(from).filter(({ node }) => node.kind !== "steady");
  if (flashes.length < 2) return [];
  const long = flashes.map(({ node }) => node.long);
  const of = (which: boolean) => flashes.find(({ node }) => node.long === which)?.node.ms ?? null;
  const rests = flashes.slice(1).map(({ step, mark }, i) => {
    const before = flashes[i];
    if (!Number.isNaN(step)) return step - before.node.ms;
    return mark < 0 || before.mark < 0 ? 1 : Math.max(1, track.onset[mark] - track.onset[before.mark] - before.node.ms);
  });
  return [
    {
      rest,
      track,
      long,
      short: of(false) ?? of(true)! / 3,
      longMs: long.includes(true) ? of(true) : null,
      steadyMs: from ? paces[0].node.ms : null,
      rests,
      scatter: EXACT,
    },
  ];
}
