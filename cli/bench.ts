import { existsSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { decode } from "@core/flash/decode";
import { DECODED_MODES, evidenceOfCase, readDialects, readText, type Case } from "./read";

interface TruthCase extends Case {
  profile: string;
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

/** Figures for every case file of a folder: `cases-*.jsonl` beside a `dialects.json`. */
export function bench(given: Map<string, string>): number {
  const dir = given.get("dir") || "../shared/bench";
  if (!existsSync(join(dir, "dialects.json"))) {
    console.error(`There is no dialects.json in ${dir}. Name a folder with --dir.`);
    return 2;
  }
  const dialects = readDialects(join(dir, "dialects.json"));
  const modes = given.get("modes")?.split(",") ?? DECODED_MODES;
  const only = given.get("dialects")?.split(",");
  const rows = new Map<string, Row>();
  for (const file of readdirSync(dir)
    .filter((f) => /^cases-.*\.jsonl$/.test(f))
    .sort())
    for (const line of readText(join(dir, file)).split("\n")) {
      if (!line) continue;
      const c = JSON.parse(line) as TruthCase;
      if (!modes.includes(c.mode) || (only && !only.includes(c.dialect))) continue;
      const evidence = evidenceOfCase(c);
      const begin = performance.now();
      const answer = decode(
        dialects.get(c.dialect)!,
        evidence,
        given.has("table") && c.table ? { table: c.table } : {},
      );
      const ms = performance.now() - begin;
      for (const key of [`${c.mode} ${c.profile}`, `${c.mode} ${c.profile} ${c.dialect}`]) {
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
        const exact = isExact(c.truth, answer);
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
  if (given.has("json")) console.log(JSON.stringify(Object.fromEntries(sorted)));
  else {
    console.log(
      `${"percent of cases".padEnd(36)}     n  exact  wrong>=.9  wrong>=.99  withheld  false complete   mean ms  slowest`,
    );
    for (const [key, r] of sorted) {
      const percent = (x: number) => ((100 * x) / r.n).toFixed(1).padStart(6);
      console.log(
        `${key.padEnd(36)} ${String(r.n).padStart(5)} ${percent(r.exact)}     ${percent(r.wrong90)}      ${percent(r.wrong99)}    ${percent(r.withheld)}          ${percent(r.falselyComplete)}   ${(r.ms / r.n).toFixed(0).padStart(7)}  ${r.slowest.toFixed(0).padStart(7)}`,
      );
    }
  }
  return 0;
}

/** The rule of the corpora: state right, all that was shown in full, nothing that was not stored, in order. */
function isExact(truth: TruthCase["truth"], answer: { state: string; codes: string[] }): boolean {
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
