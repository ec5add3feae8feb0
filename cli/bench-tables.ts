import { LAYOUTS, tablePage, type MadePage } from "@core/cases/table-page";
import { seeded } from "@core/flash/dialect/encode";
import { readTable, type ReadRow } from "@core/table/read-table";

/** Goals, percent. */
const CODES = 99;
const TEXTS = 98;

interface Score {
  codes: number;
  right: number;
  texts: number;
  /** Codes that the page does not hold, and how many of these nothing marks. */
  wrong: number;
  unmarked: number;
  doubted: number;
  ms: number;
}

/** How well tables are read from made-up pages of text, by layout. */
export function benchTables(given: Map<string, string>): number {
  const n = Number(given.get("n") || 40);
  const seed = Number(given.get("seed") || 1);
  if (given.has("rows")) {
    // Tables to be drawn as pictures: one text a code, or two.
    const made = Array.from({ length: Number(given.get("rows")) || 1 }, (_, i) =>
      tablePage(i % 3 ? "tab-side" : "tab", seeded(seed * 5000 + i)),
    );
    console.log(JSON.stringify(made.map(({ rows, digits }) => ({ rows, digits }))));
    return 0;
  }
  const total = blank();
  console.log("layout                codes  right %  texts %  wrong, unmarked  doubted %  ms a page");
  for (const layout of LAYOUTS) {
    const sum = blank();
    for (let i = 0; i < n; i++) {
      const made = tablePage(layout, seeded(seed * 1000 + i));
      const begin = performance.now();
      const { rows } = readTable(made.page, given.has("hints") ? { digits: made.digits } : {});
      const score = scoreOf(made, rows, performance.now() - begin);
      add(sum, score);
      if (given.has("show") && (score.right < score.codes || score.texts < score.codes || score.unmarked))
        show(made, rows, i);
    }
    add(total, sum);
    console.log(line(layout, sum, n));
  }
  console.log(line("all", total, n * LAYOUTS.length));
  const short = [
    (100 * total.right) / total.codes < CODES && `codes right below ${CODES} %`,
    (100 * total.texts) / total.codes < TEXTS && `texts right below ${TEXTS} %`,
    total.unmarked > 0 && `${total.unmarked} wrong codes that nothing marks`,
  ].filter(Boolean);
  if (!given.has("check") || !short.length) return 0;
  console.log(`Not at the goal: ${short.join("; ")}`);
  return 1;
}

const blank = (): Score => ({ codes: 0, right: 0, texts: 0, wrong: 0, unmarked: 0, doubted: 0, ms: 0 });

function add(sum: Score, one: Score): void {
  for (const key of Object.keys(sum) as (keyof Score)[]) sum[key] += one[key];
}

const plain = (text: string): string =>
  text
    .replace(/[^\p{L}\d]+/gu, " ")
    .trim()
    .toLowerCase();

function scoreOf(made: MadePage, rows: readonly ReadRow[], ms: number): Score {
  const sum = { ...blank(), codes: made.rows.length, ms };
  const left = new Set(rows);
  for (const want of made.rows) {
    const row = [...left].find((r) => r.code === want.code && plain(r.title).startsWith(plain(want.title).slice(0, 8)));
    const any = row ?? [...left].find((r) => r.code === want.code);
    if (!any) continue;
    left.delete(any);
    sum.right++;
    if (any.doubts.length) sum.doubted++;
    const { note = "", ...told } = any.texts;
    const rest = [...Object.values(told), note.replace(/\.? ?only with the large engine$/, "")]
      .filter(Boolean)
      .join(" ");
    const wanted = plain(`${want.title} ${want.rest}`).split(" ").sort().join(" ");
    if (
      plain(any.title).startsWith(plain(want.title)) &&
      plain(`${any.title} ${rest}`).split(" ").sort().join(" ") === wanted
    )
      sum.texts++;
  }
  for (const row of left) {
    sum.wrong++;
    if (!row.doubts.length) sum.unmarked++;
  }
  return sum;
}

function line(name: string, s: Score, pages: number): string {
  const percent = (x: number) => ((100 * x) / Math.max(1, s.codes)).toFixed(1).padStart(7);
  return `${name.padEnd(20)} ${String(s.codes).padStart(6)} ${percent(s.right)}  ${percent(s.texts)}  ${`${s.wrong}, ${s.unmarked}`.padStart(15)}  ${percent(s.doubted)}  ${(s.ms / pages).toFixed(1).padStart(8)}`;
}

function show(made: MadePage, rows: readonly ReadRow[], i: number): void {
  console.log(`\n--- ${made.layout} ${i}\n${made.page.split("\n").slice(0, 14).join("\n")}`);
  for (const r of rows.slice(0, 12))
    console.log(`  ${r.code} | ${r.title} | ${JSON.stringify(r.texts)} ${r.doubts.join(" ")}`);
}
