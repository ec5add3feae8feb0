import { playJob, type Outcome } from "@core/cases/job/play";
import type { Checked } from "@core/cases/job/check";
import type { Pack } from "@core/pack/pack";
import { PACKS } from "@packs/index";

/** Goals: no false certain statement, and the right answer reached in so many of a hundred systems that were to be read. */
const GOALS = { careful: 0.99, slipping: 0.95 } as const;

interface Tally {
  systems: number;
  right: number;
  passes: number;
  statements: number;
  certain: number;
  falseCertain: number;
  falseLikely: number;
  likely: number;
}
const zero = (): Tally => ({
  systems: 0,
  right: 0,
  passes: 0,
  statements: 0,
  certain: 0,
  falseCertain: 0,
  falseLikely: 0,
  likely: 0,
});

/** A job that breaks says which it was. */
function played(pack: Pack, kind: Outcome["kind"], seed: number): Outcome {
  try {
    return playJob(pack, kind, seed);
  } catch (cause) {
    throw new Error(`A ${kind} job of ${pack.id} broke (playJob's seed ${seed}).`, { cause });
  }
}

/** Plays made-up jobs in all packs, careful and slipping persons in turn, and says what was told falsely. */
export function benchJobs(given: Map<string, string>): number {
  const n = Number(given.get("n") || 300);
  const seed = Number(given.get("seed") || 1);
  const show = Number(given.get("show") || 8);
  const packs = given.get("packs")?.split(",");
  const kinds = given.get("kind") ? [given.get("kind") as Outcome["kind"]] : (["careful", "slipping"] as const);
  const chosen = PACKS.filter((p) => !packs || packs.includes(p.id));
  if (!Number.isInteger(n) || n < 1 || !chosen.length) {
    console.error("--n takes a whole number from 1, --packs names of packs.");
    return 2;
  }
  const tallies = new Map<string, Tally>();
  const wrong: { seed: number; o: Outcome; c: Checked }[] = [];
  const missed: { seed: number; o: Outcome; r: Outcome["reached"][number] }[] = [];
  const stuck: { seed: number; o: Outcome }[] = [];
  const started = performance.now();
  for (let i = 0; i < n; i++) {
    const kind = kinds[i % kinds.length];
    const pack = chosen[Math.floor(i / kinds.length) % chosen.length];
    const o = played(pack, kind, seed * 1_000_003 + i);
    if (o.stuck) stuck.push({ seed: i, o });
    const rows = [kind, ...o.slips.map((s) => `slip ${s}`)];
    for (const r of o.reached) {
      for (const row of [...rows, `${kind} way ${pack.id}/${r.way} ${r.input}`]) {
        const t = tallies.get(row) ?? zero();
        t.systems++;
        t.right += Number(r.right);
        t.passes += Math.max(0, r.passes - 1);
        tallies.set(row, t);
      }
      if (!r.right) missed.push({ seed: i, o, r });
    }
    for (const c of o.checked) {
      for (const row of [...rows, `says ${c.kind}`]) {
        const t = tallies.get(row) ?? zero();
        t.statements++;
        t.certain += Number(c.sure === "certain");
        t.likely += Number(c.sure === "likely");
        t.falseCertain += Number(!c.right && c.sure === "certain");
        t.falseLikely += Number(!c.right && c.sure === "likely");
        tallies.set(row, t);
      }
      if (!c.right && (c.sure === "certain" || (c.sure === "likely" && given.has("likely"))))
        wrong.push({ seed: i, o, c });
    }
  }
  const total = (row: string) => tallies.get(row) ?? zero();
  if (given.has("json"))
    console.log(JSON.stringify({ n, seed, tallies: Object.fromEntries(tallies), stuck: stuck.length }));
  else {
    console.log(`${n} jobs, seed ${seed}, ${Math.round((performance.now() - started) / n)} ms a job`);
    const of = (a: number, b: number) => (b ? ((100 * a) / b).toFixed(1) : "-");
    for (const [row, t] of [...tallies].sort((a, b) => a[0].localeCompare(b[0])))
      console.log(
        `${row.padEnd(52)} ${String(t.systems).padStart(6)} systems, right ${of(t.right, t.systems).padStart(5)} %, extra passes ${t.systems ? (t.passes / t.systems).toFixed(2) : "-"} | ${String(t.statements).padStart(6)} said, certain ${t.certain} (false ${t.falseCertain}), likely ${t.likely} (false ${t.falseLikely})`,
      );
    wrong.sort((a, b) => Number(b.c.sure === "certain") - Number(a.c.sure === "certain"));
    for (const { seed: at, o, c } of wrong.slice(0, show))
      console.log(
        `${c.sure === "certain" ? "FALSE" : "LIKELY, FALSE"} job ${at} ${o.pack} ${o.kind} [${o.slips.join(" ")}] ${c.when}: ${c.system} ${c.kind} by ${c.input}: ${c.text}`,
      );
    for (const { seed: at, o, r } of missed.slice(0, show))
      console.log(
        `MISSED job ${at} ${o.pack} ${o.kind} [${o.slips.join(" ")}] ${r.system} ${r.input} ${r.passes}: ${r.said}`,
      );
    for (const { seed: at, o } of stuck.slice(0, show))
      console.log(`STUCK job ${at} ${o.pack} ${o.kind} [${o.slips.join(" ")}] ${o.stuck}`);
  }
  if (!given.has("check")) return 0;
  const falseCertain = wrong.filter((w) => w.c.sure === "certain").length;
  const short = [
    ...(falseCertain ? [`${falseCertain} false statements of certainty; goal none`] : []),
    ...(stuck.length ? [`${stuck.length} jobs could not go on; goal none`] : []),
    ...kinds.flatMap((k) => {
      const { right, systems } = total(k);
      return systems && right / systems < GOALS[k]
        ? [`${k}: right answer in ${((100 * right) / systems).toFixed(1)} %; goal ${100 * GOALS[k]} %`]
        : [];
    }),
  ];
  for (const s of short) console.log(`falls short: ${s}`);
  return short.length ? 1 : 0;
}
