import { join } from "node:path";
import { makeCase, type CaseMode } from "@core/cases/case";
import { randomDialect } from "@core/cases/random-dialect";
import { PROFILES } from "@core/cases/watchers";
import type { Dialect } from "@core/flash/dialect/dialect";
import { seeded } from "@core/flash/dialect/encode";
import { learn } from "@core/flash/learn/learn";
import { isExact, madeCases, storedCases, type TruthCase } from "./bench";
import { evidenceOfCase, readDialects } from "./read";

/** Goals, percent: codes exact, wrong at 0.9 or above at most, style and digits right; ms a case. */
const GOALS: Record<string, { exact: number; wrong: number; talks: number }> = {
  clean: { exact: 97, wrong: 1, talks: 98 },
  normal: { exact: 93, wrong: 1, talks: 95 },
  hard: { exact: 80, wrong: 1, talks: 90 },
};
const MOST_MS = 2000;
const LEARNED: readonly CaseMode[] = ["edges", "taps", "holds"];

/** How often a lamp of which nothing is known is read right: of cases that show at least two codes and come round once, or end. */
export function benchLearn(given: Map<string, string>): number {
  const dir = given.get("dir") || "../shared/bench/wide";
  const dialects = readDialects(join(dir, "dialects.json"));
  const modes: readonly string[] = given.get("modes")?.split(",") ?? LEARNED;
  const profiles: readonly string[] = given.get("profiles")?.split(",") ?? PROFILES;
  const cases = given.has("random")
    ? atRandom(given, dialects)
    : given.has("made")
      ? madeCases(dialects, given, modes)
      : storedCases(dir);
  const rows = new Map<
    string,
    { n: number; exact: number; wrong: number; sure: number; style: number; digits: number; ms: number }
  >();
  for (const c of cases) {
    const dialect = dialects.get(c.dialect)!;
    if (!modes.includes(c.mode) || !profiles.includes(c.profile) || dialect.advance === "button") continue;
    if (new Set(c.truth.shown).size < 2 || !c.truth.complete || c.cut) continue;
    const evidence = evidenceOfCase(c);
    if (evidence.mode === "counts" || evidence.mode === "button" || evidence.mode === "levels") continue;
    const begin = performance.now();
    const learned = learn([evidence]);
    const ms = performance.now() - begin;
    const answer = learned.decoded[0] ?? { state: "unclear", codes: [], confidence: 0 };
    const exact = isExact(c.truth, answer);
    const style = learned.dialect?.digits.style === dialect.digits.style;
    const digits = style && learned.dialect?.digits.count.join() === dialect.digits.count.join();
    for (const key of [c.profile, `${c.profile} ${c.mode}`]) {
      const row = rows.get(key) ?? { n: 0, exact: 0, wrong: 0, sure: 0, style: 0, digits: 0, ms: 0 };
      row.n++;
      row.exact += Number(exact);
      row.wrong += Number(!exact && answer.confidence >= 0.9);
      row.sure += Number(answer.confidence >= 0.9);
      row.style += Number(style);
      row.digits += Number(digits);
      row.ms += ms;
      rows.set(key, row);
    }
    if (given.has("show") && !(exact && digits))
      console.log(
        c.id,
        `${c.truth.codes.join(" ")} | ${answer.codes.join(" ")} (${answer.confidence.toFixed(2)}) ${exact ? "" : "NOT EXACT"}`,
        toldOf(dialect),
        "|",
        learned.dialect ? toldOf(learned.dialect) : "nothing",
        `none ${learned.none.toFixed(2)}`,
      );
  }
  console.log(`${"percent of cases".padEnd(20)}     n  exact  wrong>=.9  sure>=.9  style  digits  mean ms`);
  const short: string[] = [];
  for (const [key, r] of [...rows].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const of = (x: number) => ((100 * x) / r.n).toFixed(1).padStart(6);
    console.log(
      `${key.padEnd(20)} ${String(r.n).padStart(5)} ${of(r.exact)}     ${of(r.wrong)}    ${of(r.sure)} ${of(r.style)}  ${of(r.digits)}  ${(r.ms / r.n).toFixed(0).padStart(7)}`,
    );
    const goal = GOALS[key];
    if (!goal) continue;
    const percent = (x: number) => (100 * x) / r.n;
    if (percent(r.exact) < goal.exact)
      short.push(`${key}: codes exact ${percent(r.exact).toFixed(1)} %, goal ${goal.exact}`);
    if (percent(r.wrong) > goal.wrong)
      short.push(`${key}: wrong at 0.9 ${percent(r.wrong).toFixed(1)} %, goal ${goal.wrong}`);
    if (percent(r.digits) < goal.talks)
      short.push(`${key}: style and digits ${percent(r.digits).toFixed(1)} %, goal ${goal.talks}`);
    if (r.ms / r.n > MOST_MS) short.push(`${key}: ${(r.ms / r.n).toFixed(0)} ms a case, goal ${MOST_MS}`);
  }
  for (const line of short) console.log(`falls short: ${line}`);
  return given.has("check") && short.length ? 1 : 0;
}

const toldOf = ({ rest, digits, gaps, phases, loopFrom }: Dialect): string =>
  [
    rest,
    digits.style,
    digits.count.join(),
    Object.values(gaps).map(Math.round).join("/"),
    phases
      .map((p) =>
        p.kind === "code"
          ? `${p.means}${p.code}x${p.times}`
          : p.kind === "stored"
            ? `${p.memory[0]}x${p.times}`
            : p.kind === "group"
              ? `g${p.flashes}`
              : p.kind,
      )
      .join(" "),
    loopFrom === null ? "once" : "round",
  ].join(" ");

/** Cases of dialects at random, which are put beside the others. */
function* atRandom(given: Map<string, string>, dialects: Map<string, Dialect>): Generator<TruthCase> {
  const seed = Number(given.get("seed") ?? 5);
  const random = seeded(seed);
  for (let i = 0; i < Number(given.get("random") || 100); i++) {
    const dialect = { ...randomDialect(random), id: `random-${seed}-${i}` };
    if (dialect.advance === "button") continue;
    dialects.set(dialect.id, dialect);
    for (const mode of LEARNED) for (const profile of PROFILES) yield makeCase(dialect, mode, profile, seed * 1000 + i);
  }
}
