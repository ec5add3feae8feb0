import { FAULT_WORLDS, makeProof, type FaultWorld } from "@core/cases/proof";
import { seeded } from "@core/flash/dialect/encode";
import { goneOf } from "@core/job/gone";
import { judge } from "@core/job/judge";
import { packById } from "../packs";

/** Goal: expected calibration error, where any rate of coming back is as likely as any other. */
const GOAL = 0.03;
const BINS = 10;

interface Tally {
  told: number;
  said: number;
  was: number;
  error: number;
  by: Record<string, number>;
}

/** Stated probabilities that a code is gone, against what is so, in jobs that never were. */
function tally(world: FaultWorld, n: number, seed: number): Tally {
  const pack = packById("norrvik")!;
  const random = seeded(seed);
  const bins = Array.from({ length: BINS }, () => ({ said: 0, was: 0 }));
  const all: Tally = { told: 0, said: 0, was: 0, error: 0, by: {} };
  for (let k = 0; k < n; k++) {
    const made = makeProof(pack, world, random);
    const judged = judge(made.c);
    const own = judged.systems.find((s) => s.access.system === "engine")!;
    const row = own.proof.rows.find((r) => r.code === made.code)!;
    const gone = goneOf(made.c, judged.systems.map((s) => s.proof), "engine", row); // prettier-ignore
    // Of one that is back nothing is told.
    if (!gone !== made.back) throw new Error(`job ${k}: ${made.back ? "back, and told of" : "away, and not told of"}`);
    if (!gone) continue;
    const bin = bins[Math.min(BINS - 1, Math.floor(BINS * gone.p))];
    bin.said += gone.p;
    bin.was += Number(made.gone);
    all.told++;
    all.said += gone.p;
    all.was += Number(made.gone);
    all.by[gone.by] = (all.by[gone.by] ?? 0) + 1;
  }
  all.error = bins.reduce((e, b) => e + Math.abs(b.said - b.was), 0) / all.told;
  return all;
}

/** How probable it is said to be that a code is gone, against how often it is. */
export function benchProof(given: Map<string, string>): number {
  const n = Number(given.get("n") || 20_000);
  const seed = Number(given.get("seed") || 5);
  const short: string[] = [];
  console.log("faults                told   says gone   are gone   calibration error   from drives, readings");
  for (const [name, world] of Object.entries(FAULT_WORLDS)) {
    const t = tally(world, n, seed);
    const share = (x: number) => `${((100 * x) / t.told).toFixed(1)} %`.padStart(11);
    console.log(
      `${name.padEnd(18)}${String(t.told).padStart(8)}${share(t.said)}${share(t.was)}${t.error.toFixed(3).padStart(20)}   ${t.by.drives ?? 0}, ${t.by.reads ?? 0}`,
    );
    if (world === FAULT_WORLDS["any rate"] && t.error > GOAL)
      short.push(`calibration error ${t.error.toFixed(3)}, goal ${GOAL}`);
  }
  for (const line of short) console.log(`short of its goal: ${line}`);
  return given.has("check") && short.length ? 1 : 0;
}
