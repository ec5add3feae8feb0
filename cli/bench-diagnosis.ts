import { byKlinko, byNames, byPlugs, byPrior, drawCase, graphOfVehicle, play, type Off } from "@core/cases/diagnosis";
import { worthOf } from "@core/diagnosis/choose";
import { posterior } from "@core/diagnosis/infer";
import { grouped, weigh } from "@core/diagnosis/weigh";
import { seeded } from "@core/flash/dialect/encode";
import { PACKS } from "../packs";

/** Goals: share of the time that following the codes' names takes; share of cases with the culprit among three; calibration. */
const GOALS = { mean: 0.5, p90: 1.2, three: 95, exact: 0.03, off: 0.08, suspectsMs: 50, checksMs: 100 };

/** Each case is played twice: as the pack says, and with weights, missing and extra codes that are off. */
const OFFS: readonly (readonly [string, Off])[] = [
  ["as in the pack", { priors: 1, missing: 0, extra: 1 }],
  ["off by up to 3", { priors: 3, missing: 0.1, extra: 3 }],
];

const BINS = 10;

interface Row {
  n: number;
  minutes: number[];
  names: number[];
  plugs: number[];
  prior: number[];
  /** Cases in which what is wrong was never shown. */
  never: number;
  three: number;
  /** The same of somebody who knows how likely each thing really is and how often each sign comes without cause: nobody can do better. */
  best: number;
  /** Stated probability and how often it was so, in bins. */
  said: number[];
  was: number[];
  count: number[];
}

const newRow = (): Row => ({
  n: 0,
  minutes: [],
  names: [],
  plugs: [],
  prior: [],
  never: 0,
  three: 0,
  best: 0,
  said: Array<number>(BINS).fill(0),
  was: Array<number>(BINS).fill(0),
  count: Array<number>(BINS).fill(0),
});

/** How long it takes to find what is wrong, in simulated faults drawn from each pack's graph. */
export function benchDiagnosis(given: Map<string, string>): number {
  const n = Number(given.get("n") || 1000);
  const seed = Number(given.get("seed") || 5);
  const only = given.get("pack");
  const short: string[] = [];
  console.log(
    "faults           cases   Klinko   names   plugs   prior   ratio    p90  among 3   best  never    ECE   (minutes, mean)",
  );
  for (const [title, off] of OFFS) {
    const all = newRow();
    for (const pack of PACKS) {
      if (only && pack.id !== only) continue;
      const row = newRow();
      const random = seeded(seed);
      const vehicles = pack.variants.flatMap((v) =>
        v.engines.map((e) => ({ variant: v.id, year: v.years[0], engine: e.id, market: v.markets[0] })),
      );
      const graphs = vehicles.map((v) => graphOfVehicle(pack, v)).filter((g) => g.codes.length);
      for (let k = 0; k < n; k++) {
        const c = drawCase(graphs[k % graphs.length], off, random);
        const wrong = new Set(c.wrong.map((i) => c.graph.suspects[i].id));
        const { suspects } = weigh(c.graph, c.found);
        for (const s of suspects) {
          const bin = Math.min(BINS - 1, Math.floor(s.p * BINS));
          row.said[bin] += s.p;
          row.was[bin] += Number(wrong.has(s.id));
          row.count[bin]++;
        }
        // Of an old story there is nothing to find.
        if (!wrong.size) continue;
        row.n++;
        const among = (list: typeof suspects) =>
          Number(
            grouped(list)
              .slice(0, 3)
              .some((g) => g.suspects.some((x) => wrong.has(x.id))),
          );
        row.three += among(suspects);
        row.best += among(weigh(c.truth, c.found).suspects);
        // The same checks come out the same way for all three, as far as they do the same ones.
        const again = () => seeded(seed + 7919 * k);
        const by = play(c, byKlinko, again());
        row.minutes.push(by.minutes);
        row.never += Number(!by.found);
        row.plugs.push(play(c, byPlugs, again()).minutes);
        row.names.push(play(c, byNames, again()).minutes);
        row.prior.push(play(c, byPrior, again()).minutes);
      }
      print(pack.id, row);
      judge(pack.id, title, row, short);
      add(all, row);
    }
    print(`all, ${title}`, all);
    judge("all", title, all, short);
  }
  const [suspects, checks] = times(seed);
  console.log(
    `\n40 suspects, 12 findings present: suspects ${suspects.toFixed(1)} ms, next of 60 checks ${checks.toFixed(1)} ms (slowest of 50)`,
  );
  if (suspects > GOALS.suspectsMs) short.push(`suspects in ${suspects.toFixed(0)} ms, goal ${GOALS.suspectsMs}`);
  if (checks > GOALS.checksMs) short.push(`next check in ${checks.toFixed(0)} ms, goal ${GOALS.checksMs}`);
  for (const line of short) console.log(`short of its goal: ${line}`);
  return given.has("check") && short.length ? 1 : 0;
}

const mean = (x: readonly number[]) => x.reduce((a, b) => a + b, 0) / x.length;
const p90 = (x: readonly number[]) => [...x].sort((a, b) => a - b)[Math.floor(0.9 * x.length)];

/** Expected calibration error: how far what is said lies from what is so, weighted by how often it is said. */
const ece = (r: Row) => {
  const total = r.count.reduce((a, b) => a + b, 0);
  return r.count.reduce((e, c, i) => e + (c ? Math.abs(r.said[i] - r.was[i]) / total : 0), 0);
};

function print(name: string, r: Row) {
  const f = (x: number, w = 7) => x.toFixed(1).padStart(w);
  const ratio = mean(r.minutes) / mean(r.names);
  const tail = p90(r.minutes) / p90(r.names);
  console.log(
    `${name.padEnd(16)} ${String(r.n).padStart(5)} ${f(mean(r.minutes), 8)} ${f(mean(r.names))} ${f(mean(r.plugs))} ${f(mean(r.prior))} ${ratio.toFixed(2).padStart(7)} ${tail.toFixed(2).padStart(6)} ${f((100 * r.three) / r.n, 8)} ${f((100 * r.best) / r.n, 6)} ${f((100 * r.never) / r.n, 6)} ${ece(r).toFixed(3).padStart(6)}`,
  );
}

function judge(name: string, title: string, r: Row, short: string[]) {
  const ratio = mean(r.minutes) / mean(r.names);
  if (name === "all" && ratio > GOALS.mean)
    short.push(`${title}: ${ratio.toFixed(2)} of the time by names, goal ${GOALS.mean}`);
  const tail = p90(r.minutes) / p90(r.names);
  if (tail > GOALS.p90) short.push(`${name}, ${title}: ${tail.toFixed(2)} at the 90th percentile, goal ${GOALS.p90}`);
  const three = (100 * r.three) / r.n;
  if (name === "all" && three < GOALS.three)
    short.push(`${title}: among the first three in ${three.toFixed(1)} %, goal ${GOALS.three}`);
  const goal = title === OFFS[0][0] ? GOALS.exact : GOALS.off;
  if (name === "all" && ece(r) > goal) short.push(`${title}: calibration error ${ece(r).toFixed(3)}, goal ${goal}`);
}

function add(all: Row, r: Row) {
  all.n += r.n;
  all.three += r.three;
  all.best += r.best;
  all.minutes.push(...r.minutes);
  all.names.push(...r.names);
  all.plugs.push(...r.plugs);
  all.prior.push(...r.prior);
  all.never += r.never;
  for (let i = 0; i < BINS; i++) {
    all.said[i] += r.said[i];
    all.was[i] += r.was[i];
    all.count[i] += r.count[i];
  }
}

/** Longest times, ms, of weighing 40 suspects by 12 findings that are present, and of the next among 60 checks. */
function times(seed: number): [number, number] {
  const random = seeded(seed);
  const pick = () => Math.floor(random() * 40);
  const finding = () => ({
    leak: 0.002,
    links: Array.from({ length: 6 }, () => [pick(), 0.1 + 0.8 * random()] as const),
  });
  let [suspects, checks] = [0, 0];
  for (let k = 0; k < 55; k++) {
    const net = {
      causes: Array.from({ length: 40 }, () => ({ prior: 0.0005 + 0.003 * random() })),
      findings: Array.from({ length: 40 }, finding),
    };
    const seen = {
      present: net.findings.map((_, i) => i).slice(0, 12),
      absent: net.findings.map((_, i) => i).slice(12),
    };
    const sixty = Array.from({ length: 60 }, () => ({ leak: 0.002, links: finding().links.slice(0, 3) }));
    const begin = performance.now();
    const after = posterior(net, seen);
    const between = performance.now();
    worthOf(net, seen, after, sixty);
    // The first ones warm up.
    if (k < 5) continue;
    suspects = Math.max(suspects, between - begin);
    checks = Math.max(checks, performance.now() - between);
  }
  return [suspects, checks];
}
