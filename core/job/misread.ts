import { memoriesOf, type Dialect, type Faults } from "../flash/dialect/dialect";
import { priorOf } from "../flash/search/prior";
import { nearBy } from "../flash/dialect/near-by";
import { ordered } from "../flash/dialect/show";
import type { Watched } from "../flash/explain/viewed";
import type { Entry } from "../pack/pack";
import { entriesFor, type SystemAccess } from "../pack/scope";
import { evidenceOf } from "../record/evidence";
import { inputOf } from "../record/inputs";
import type { Reading } from "../record/types";
import { accessOf, type JobCase } from "./case";
import { knownOf } from "./known";

/** A slip that would have made a code of the table look like one that stands in none. */
export interface Slip {
  /** `flash`: one flash more or less; `pairs`: the digits belong together the other way. */
  kind: "flash" | "pairs";
  /** What would have been shown. */
  instead: Entry[];
}

/** What the decoder is asked of a code that stands in no table. */
export interface MisreadAsked {
  dialect: Dialect;
  cylinders: number;
  slips: Slip[];
  /** Readings that tell the code; each with what was seen, and with the lists that are held against it: the one that was read, and one a slip. */
  watches: { seen: Watched; lists: Faults[] }[];
  /** Log prior of the list that was read, and of those in place of it. */
  priors: number[];
}

/** A slip with its share among all slips and "it was no slip". */
export interface Misread extends Slip {
  share: number;
}

/** What could have been misread for a code that stands in no table of the system; null where nothing can be held against what was seen. */
export function misreadAsked(c: JobCase, system: string, code: string): MisreadAsked | null {
  const access = accessOf(c, system);
  const dialect = access?.dialect;
  if (!access || !dialect) return null;
  const entries = new Map(entriesFor(c.pack, c.vehicle, system).map((e) => [e.code, e]));
  const readings = tellingReadings(c, access, code).filter((r) => inputOf(r.input).lamp);
  const newest = readings.at(-1);
  if (!newest) return null;
  const flash = nearBy(dialect, code).flatMap((near): Slip[] => {
    const entry = entries.get(near);
    return entry ? [{ kind: "flash", instead: [entry] }] : [];
  });
  const slips = [...flash, ...otherPairs(dialect, newest.result!.codes, entries)];
  if (!slips.length) return null;
  const cylinders = engineOf(c)?.cylinders ?? 4;
  const watches = readings.map((r) => ({
    seen: evidenceOf(r, r.until ?? 0, dialect),
    lists: [readIn(dialect, r), ...slips.map((s) => listWith(dialect, r, code, s))],
  }));
  const prior = priorOf(dialect, [...entries.keys()]);
  const priors = watches.at(-1)!.lists.map((faults) => prior.of({ faults, cylinders: null }));
  return { dialect, cylinders, slips, watches, priors };
}

const engineOf = ({ pack, vehicle }: JobCase) =>
  pack.variants.find((v) => v.id === vehicle.variant)?.engines.find((e) => e.id === vehicle.engine);

/** Readings since the last clear that hold the code. */
const tellingReadings = (c: JobCase, access: SystemAccess, code: string): Reading[] =>
  knownOf(c, access.system)
    .codes.filter((x) => x.code === code)
    .flatMap((x) => x.in.map((t) => t.reading))
    .filter((r, i, all) => r.result && all.indexOf(r) === i);

/** What a reading says of each memory of its lamp. */
function readIn(dialect: Dialect, { result }: Reading): Faults {
  const memories = memoriesOf(dialect);
  if (memories.length < 2) return { [memories[0] ?? "stored"]: result!.codes };
  return result!.memories;
}

/** The list of a reading, had the slip been made in it. */
function listWith(dialect: Dialect, reading: Reading, code: string, { kind, instead }: Slip): Faults {
  const codes = instead.map((e) => e.code);
  const mended = (list: readonly string[] = []) =>
    ordered(dialect, [...new Set(kind === "pairs" ? codes : list.map((x) => (x === code ? codes[0] : x)))]);
  return Object.fromEntries(Object.entries(readIn(dialect, reading)).map(([m, list]) => [m, mended(list)]));
}

/**
 * Two counted digits a code, and nothing that tells where the list begins: who came in the middle pairs the second digit of one
 * code with the first of the next.
 */
function otherPairs(dialect: Dialect, codes: readonly string[], entries: ReadonlyMap<string, Entry>): Slip[] {
  const { style, count } = dialect.digits;
  if (style !== "counted" || count.some((n) => n !== 2) || memoriesOf(dialect).length > 1) return [];
  const digits = [...codes.join("")];
  const turned = [...digits.slice(1), digits[0]];
  const pairs = codes.map((_, i) => turned.slice(2 * i, 2 * i + 2).join(""));
  const instead = pairs.flatMap((p) => entries.get(p) ?? []);
  const same = pairs.every((p) => codes.includes(p));
  return instead.length === codes.length && !same ? [{ kind: "pairs", instead }] : [];
}

/** Below this share what was seen speaks against a slip: it would have to be made each time. */
export const FITS_SEEN = 0.01;

/**
 * The slips by how well they explain what was seen: posterior over them and "no slip", with the table's codes likelier than others.
 * @param scores of each watch, one for each of its lists, as `howWell` gives them; null where nothing was seen
 * @returns all of them, the likeliest first
 */
export function misreadsOf({ slips, priors }: MisreadAsked, scores: readonly (readonly number[] | null)[]): Misread[] {
  const logs = priors.map((prior, k) => scores.reduce((sum, of) => sum + (of ? of[k] : 0), prior));
  const top = Math.max(...logs);
  if (top === -Infinity) return [];
  const total = logs.reduce((sum, x) => sum + Math.exp(x - top), 0);
  return slips
    .map((slip, k) => ({ ...slip, share: Math.exp(logs[k + 1] - top) / total }))
    .sort((a, b) => b.share - a.share);
}
