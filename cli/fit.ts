import { writeFileSync } from "node:fs";
import { makeCase, type MadeCase } from "@core/cases/case";
import { PROFILES } from "@core/cases/watchers";
import { score } from "@core/flash/explain/score";
import { memoriesOf, type Dialect } from "@core/flash/dialect/dialect";
import { trackOf, type Evidence, type Track } from "@core/flash/seen/evidence";
import { flatten, type Flat } from "@core/flash/explain/flat";
import { OBSERVERS, type Observer } from "@core/flash/seen/observer";
import { showOf } from "@core/flash/dialect/show";
import { evidenceOfCase, readDialects } from "./read";

type Fitted = "onsetSd" | "endSd" | "miss" | "extra" | "double" | "merge" | "misnamed";

/** Smallest values: nobody never errs, and a decoder that thought so would be too sure. */
const FLOOR: Record<Fitted, number> = {
  onsetSd: 8,
  endSd: 8,
  miss: 2e-4,
  extra: 3e-8,
  double: 1e-4,
  merge: 1e-3,
  misnamed: 3e-4,
};
const STEPS = [0.5, 0.8, 0.9, 1.1, 1.25, 2];
const ROUNDS = 4;

interface Known {
  track: Track;
  flat: Flat;
  tempo: number;
}

/**
 * Fits the constants of each kind of observer to made-up cases of that kind, whose truth is known: coordinate ascent on the
 * likelihood of what was seen. Prints them as JSON; with `--write FILE` stores them. The open corpora play no part.
 */
export function fit(given: Map<string, string>): number {
  const file = given.get("dialects");
  if (!file) {
    console.error("fit needs --dialects D.json");
    return 2;
  }
  const dialects = [...readDialects(file).values()].filter((d) => d.advance === "self");
  const n = Number(given.get("n") ?? 8);
  const seed = Number(given.get("seed") ?? 70) * 100_000;
  const result: Record<string, Observer[]> = {};
  for (const mode of ["edges", "holds", "taps"] as const)
    result[mode] = PROFILES.map((profile, kind) => {
      const known = dialects.flatMap((d) =>
        Array.from({ length: n }, (_, k) => knownOf(d, makeCase(d, mode, profile, seed + k))).filter((c) => c !== null),
      );
      const start = OBSERVERS[mode][kind];
      const fitted = ascend(known, start, mode);
      console.error(
        `${mode} ${profile}: ${known.length} cases, log likelihood ${total(known, start).toFixed(0)} -> ${total(known, fitted).toFixed(0)}`,
      );
      return fitted;
    });
  const text = `${JSON.stringify(result, null, 2)}\n`;
  const out = given.get("write");
  if (out) writeFileSync(out, text);
  else console.log(text);
  return 0;
}

function knownOf(dialect: Dialect, c: MadeCase): Known | null {
  const [first] = memoriesOf(dialect);
  const track = trackOf(evidenceOfCase(c) as Evidence, dialect);
  if (!track.onset.length) return null;
  const show = showOf(dialect, c.truth.memories ?? { [first]: c.truth.codes }, c.truth.cylinders ?? undefined);
  return { track, flat: flatten(show, track.mode), tempo: c.speed };
}

const total = (known: readonly Known[], o: Observer): number =>
  known.reduce((sum, k) => sum + Math.max(-1e4, score(k.track, k.flat, k.tempo, o).logLik), 0);

function ascend(known: readonly Known[], start: Observer, mode: Evidence["mode"]): Observer {
  const names: Fitted[] = ["onsetSd", "miss", "extra", "double"];
  if (mode === "taps") names.push("misnamed");
  else names.push("endSd", "merge");
  let best = start;
  let log = total(known, best);
  for (let round = 0; round < ROUNDS; round++) {
    const before = log;
    for (const name of names)
      for (const step of STEPS) {
        const value = Number(Math.max(FLOOR[name], best[name] * step).toPrecision(3));
        const candidate = { ...best, [name]: value };
        const l = total(known, candidate);
        if (l > log) [best, log] = [candidate, l];
      }
    if (log - before < 1) break;
  }
  return best;
}
