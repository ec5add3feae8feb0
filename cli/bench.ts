import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { makeCase, type CaseMode } from "@core/cases/case";
import { PROFILES } from "@core/cases/watchers";
import { decode } from "@core/flash/decode";
import type { Dialect } from "@core/flash/dialect/dialect";
import { identify } from "@core/flash/identify";
import { benchScale } from "./bench-scale";
import { DECODED_MODES, evidenceOfCase, readDialects, readText, type Case } from "./read";

export interface TruthCase extends Case {
  profile: string;
  cut?: boolean;
  truth: { state: string; codes: string[]; shown: string[]; complete: boolean };
}

interface Row {
  n: number;
  exact: number;
  wrong90: number;
  wrong99: number;
  withheld: number;
  falselyComplete: number;
  ms: number;
  slowest: number;
}

/** How often answers of about the same certainty were right: certainty should mean what it says. */
interface Bin {
  from: number;
  n: number;
  exact: number;
  certainty: number;
}

const BINS = [0, 0.5, 0.7, 0.9, 0.99];

/**
 * Figures for every case file of a folder (`cases-*.jsonl` beside a `dialects.json`), or, with `--made N`, for N made-up
 * cases of each dialect, mode and profile.
 */
export function bench(given: Map<string, string>): number {
  const dir = given.get("dir") || "../shared/bench";
  if (!existsSync(join(dir, "dialects.json"))) {
    console.error(`There is no dialects.json in ${dir}. Name a folder with --dir.`);
    return 2;
  }
  const dialects = readDialects(join(dir, "dialects.json"));
  if (given.has("scale")) return benchScale([...dialects.values()].find((d) => d.advance === "self")!);
  const modes = given.get("modes")?.split(",") ?? DECODED_MODES;
  const only = given.get("dialects")?.split(",");
  const wanted = (c: TruthCase) => modes.includes(c.mode) && (!only || only.includes(c.dialect));
  const cases = given.has("made") ? madeCases(dialects, given, modes) : storedCases(dir);
  if (given.has("identify")) return benchIdentify(dialects, cases, wanted);
  const rows = new Map<string, Row>();
  const bins: Bin[] = BINS.map((from) => ({ from, n: 0, exact: 0, certainty: 0 }));
  for (const c of cases) {
    if (!wanted(c)) continue;
    const evidence = evidenceOfCase(c);
    const begin = performance.now();
    const answer = decode(dialects.get(c.dialect)!, evidence, given.has("table") && c.table ? { table: c.table } : {});
    const ms = performance.now() - begin;
    const exact = isExact(c.truth, answer);
    const bin = bins.findLast((b) => answer.confidence >= b.from)!;
    bin.n++;
    bin.exact += Number(exact);
    bin.certainty += answer.confidence;
    const kind = c.mode === "button" ? `button-${"taps" in (c.data as object[])[0] ? "taps" : "edges"}` : c.mode;
    for (const key of [`${kind} ${c.profile}`, `${kind} ${c.profile} ${c.dialect}`]) {
      const row = rows.get(key) ?? {
        n: 0,
        exact: 0,
        wrong90: 0,
        wrong99: 0,
        withheld: 0,
        falselyComplete: 0,
        ms: 0,
        slowest: 0,
      };
      row.n++;
      row.exact += Number(exact);
      row.wrong90 += Number(!exact && answer.confidence >= 0.9);
      row.wrong99 += Number(!exact && answer.confidence >= 0.99);
      row.withheld += Number(answer.confidence < 0.9);
      row.falselyComplete += Number(answer.complete && !c.truth.complete && c.truth.codes.length > 0);
      row.ms += ms;
      row.slowest = Math.max(row.slowest, ms);
      rows.set(key, row);
    }
  }
  const sorted = [...rows].sort(([a], [b]) => (a < b ? -1 : 1));
  if (given.has("json")) {
    console.log(JSON.stringify({ rows: Object.fromEntries(sorted), calibration: bins }));
    return 0;
  }
  console.log(
    `${"percent of cases".padEnd(36)}     n  exact  wrong>=.9  wrong>=.99  withheld  false complete   mean ms  slowest`,
  );
  for (const [key, r] of sorted) {
    if (given.has("short") && key.split(" ").length > 2) continue;
    const percent = (x: number) => ((100 * x) / r.n).toFixed(1).padStart(6);
    console.log(
      `${key.padEnd(36)} ${String(r.n).padStart(5)} ${percent(r.exact)}     ${percent(r.wrong90)}      ${percent(r.wrong99)}    ${percent(r.withheld)}          ${percent(r.falselyComplete)}   ${(r.ms / r.n).toFixed(0).padStart(7)}  ${r.slowest.toFixed(0).padStart(7)}`,
    );
  }
  console.log("\ncertainty      n  mean certainty  exact");
  for (const [i, b] of bins.entries())
    if (b.n)
      console.log(
        `${b.from} to ${BINS[i + 1] ?? 1}`.padEnd(12) +
          `${String(b.n).padStart(5)}  ${((100 * b.certainty) / b.n).toFixed(1).padStart(14)}  ${((100 * b.exact) / b.n).toFixed(1).padStart(5)}`,
      );
  return 0;
}

/** How often the right dialect stands first, and how surely: where codes or a sign of none were shown, and where not. */
function benchIdentify(
  dialects: Map<string, Dialect>,
  cases: Iterable<TruthCase>,
  wanted: (c: TruthCase) => boolean,
): number {
  const rows = new Map<string, { n: number; right: number; sure: number; surelyWrong: number }>();
  for (const c of cases) {
    if (!wanted(c) || c.mode === "counts" || c.mode === "button") continue;
    const evidence = evidenceOfCase(c);
    if (evidence.mode === "counts" || evidence.mode === "button") continue;
    const [first] = identify([...dialects.values()], evidence).ranked;
    const told = c.truth.state === "codes" || c.truth.state === "none";
    const key = `${c.mode} ${c.profile} ${told ? "something shown" : "nothing shown in full"}`;
    const row = rows.get(key) ?? { n: 0, right: 0, sure: 0, surelyWrong: 0 };
    const right = first.dialect === c.dialect;
    row.n++;
    row.right += Number(right);
    row.sure += Number(first.probability >= 0.9);
    row.surelyWrong += Number(first.probability >= 0.9 && !right);
    rows.set(key, row);
  }
  console.log(`${"identify, percent of cases".padEnd(44)}     n  right   sure  surely wrong`);
  for (const [key, r] of [...rows].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const percent = (x: number) => ((100 * x) / r.n).toFixed(1).padStart(6);
    console.log(
      `${key.padEnd(44)} ${String(r.n).padStart(5)} ${percent(r.right)} ${percent(r.sure)}        ${percent(r.surelyWrong)}`,
    );
  }
  return 0;
}

export function* storedCases(dir: string): Generator<TruthCase> {
  const files = readdirSync(dir).filter((f) => /^cases-.*\.jsonl$/.test(f));
  for (const file of files.sort())
    for (const line of readText(join(dir, file)).split("\n")) if (line) yield JSON.parse(line) as TruthCase;
}

export function* madeCases(
  dialects: Map<string, Dialect>,
  given: Map<string, string>,
  modes: readonly string[],
): Generator<TruthCase> {
  const n = Number(given.get("made") || 12);
  const first = Number(given.get("seed") ?? 5) * 100_000;
  for (const dialect of dialects.values())
    for (const mode of modes) {
      const pressed = dialect.advance === "button";
      if (mode !== "counts" && pressed !== (mode === "button")) continue;
      for (const profile of PROFILES)
        for (let k = 0; k < n; k++) yield makeCase(dialect, mode as CaseMode, profile, first + k);
    }
}

/** The rule of the corpora: state right, all that was shown in full, nothing that was not stored, in order. */
export function isExact(truth: TruthCase["truth"], answer: { state: string; codes: string[] }): boolean {
  const nothingShown = truth.shown.length === 0;
  const both = [truth.state, answer.state];
  const state = answer.state === truth.state || (nothingShown && both.every((s) => s === "codes" || s === "unclear"));
  const places = answer.codes.map((code) => truth.codes.indexOf(code));
  return (
    state &&
    places.every((p, i) => p >= 0 && (i === 0 || p > places[i - 1])) &&
    truth.shown.every((code) => answer.codes.includes(code))
  );
}
