import { alike } from "../search/alike";
import type { Entry, Pack, Scope, System } from "./pack";

/** A code of some make that was looked for. */
export interface CodeFound {
  pack: Pack;
  system: System;
  scope: Scope | undefined;
  entry: Entry;
}

/** Weight of the place in which a word was found: the code itself, its title, its circuit, or the rest. */
const PLACES: readonly (readonly [weight: number, of: (f: CodeFound) => string])[] = [
  [4, ({ entry }) => entry.title],
  [3, ({ entry }) => entry.circuit],
  [2, ({ pack, system }) => `${pack.make} ${system.name} ${system.unit}`],
  [
    1,
    ({ entry: e }) =>
      [e.sets, e.affects, e.caution, ...e.lookFirst, ...(e.details ?? []).flatMap((d) => [d.title, d.tell])].join(" "),
  ],
];

/**
 * Looks a code up over all makes, by number, circuit or word. Every word has to be found somewhere; a number is a code, or part of a text.
 * @returns the best first, at most `most`
 */
export function searchCodes(packs: readonly Pack[], words: string, most = 60): { found: CodeFound[]; all: number } {
  const asked = alike(words)
    .split(/[^\p{L}\p{N}.&]+/u)
    .filter((word) => /[\p{L}\p{N}]/u.test(word));
  if (!asked.length) return { found: [], all: 0 };
  const ranked: { f: CodeFound; rank: number }[] = [];
  for (const pack of packs)
    for (const table of pack.tables) {
      const system = pack.systems.find((s) => s.id === table.system);
      if (!system) continue;
      for (const entry of table.entries) {
        const f: CodeFound = { pack, system, scope: entry.scope ?? table.scope, entry };
        const texts = PLACES.map(([weight, of]) => [weight, alike(of(f))] as const);
        let rank = 0;
        for (const word of asked) {
          const own = entry.code === word ? 10 : 0;
          const best = own || Math.max(0, ...texts.filter(([, t]) => t.includes(word)).map(([weight]) => weight));
          if (!best) {
            rank = -1;
            break;
          }
          rank += best;
        }
        if (rank > 0) ranked.push({ f, rank });
      }
    }
  ranked.sort(
    (a, b) =>
      b.rank - a.rank || a.f.pack.make.localeCompare(b.f.pack.make) || Number(a.f.entry.code) - Number(b.f.entry.code),
  );
  return { found: ranked.slice(0, most).map((r) => r.f), all: ranked.length };
}
