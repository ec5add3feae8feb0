/** Times parted into kinds, shortest first: the middle time of each, and to which each time belongs. */
export interface Kinds {
  ms: number[];
  of: Uint8Array;
  /** Log probability of the times under these kinds, up to a constant, less what their number gains by itself. */
  log: number;
}

/** A time's own scatter: a part that is the same for all (the observer's), ms, and one that grows with it (the unit's). */
export interface Scatter {
  ms: number;
  share: number;
}

/** One more kind has to pay for its place and its bounds, nats. */
const KIND_COSTS = 3;
/** Nobody's slip is further from its kind than so many deviations: beyond, it costs no more. */
const FAR = 4;
/** From so many times on strays can be told: off the middle of a kind of so many times as many, by such a share at most. */
const ENOUGH = 30;
const STRAYS = [
  { times: 5, off: Math.log(1.2) },
  { times: 12, off: Math.log(1.35) },
] as const;

/**
 * Parts times into 1 to `most` kinds, each number of kinds in the best way there is (Fisher 1958: of sorted numbers the best groups
 * are stretches), on a scale on which the scatter is the same everywhere. Best first.
 * @returns empty where there are no times
 */
export function kindsOf(times: readonly number[], scatter: Scatter, most: number): Kinds[] {
  const order = times.map((_, i) => i).sort((a, b) => times[a] - times[b]);
  const y = order.map((i) => even(times[i], scatter));
  const n = y.length;
  if (!n) return [];
  const [sum, squares] = [new Float64Array(n + 1), new Float64Array(n + 1)];
  for (const [i, v] of y.entries()) {
    sum[i + 1] = sum[i] + v;
    squares[i + 1] = squares[i] + v * v;
  }
  // Log probability lost by a group: its times' distances from its middle, and that each time had to be of this kind.
  const loss = (from: number, to: number): number => {
    const s = sum[to] - sum[from];
    const spread = Math.max(0, squares[to] - squares[from] - (s * s) / (to - from));
    return 0.5 * Math.min(spread, FAR * FAR * (to - from)) - (to - from) * Math.log((to - from) / n);
  };
  // cost[k][j]: of the first j times in k + 1 kinds; cut[k][j]: where the last of them begins.
  const cost = [Float64Array.from({ length: n + 1 }, (_, j) => (j ? loss(0, j) : Infinity))];
  const cut = [new Int32Array(n + 1)];
  for (let k = 1; k < Math.min(most, n); k++) {
    cost.push(new Float64Array(n + 1).fill(Infinity));
    cut.push(new Int32Array(n + 1));
    for (let j = k + 1; j <= n; j++)
      for (let i = k; i < j; i++) {
        const c = cost[k - 1][i] + loss(i, j);
        if (c < cost[k][j]) [cost[k][j], cut[k][j]] = [c, i];
      }
  }
  const all = cost.map((row, k): Kinds => {
    const bounds = [n];
    for (let level = k, j = n; level > 0; level--) bounds.unshift((j = cut[level][j]));
    bounds.unshift(0);
    const of = new Uint8Array(n);
    const ms: number[] = [];
    for (let kind = 0; kind <= k; kind++) {
      for (let i = bounds[kind]; i < bounds[kind + 1]; i++) of[order[i]] = kind;
      ms.push(times[order[(bounds[kind] + bounds[kind + 1] - 1) >> 1]]);
    }
    return { ms, of, log: -row[n] - (k + 1) * (KIND_COSTS + 0.5 * Math.log(n)) };
  });
  return all.map((kinds) => withoutStrays(kinds, n)).sort((a, b) => b.log - a.log);
}

/** A few times that lie beside a kind of many are strays of it: no kind of their own, though they gain more by it than it costs. */
function withoutStrays({ ms, of, log }: Kinds, n: number): Kinds {
  if (n < ENOUGH) return { ms, of, log };
  const many = manyOf({ ms, of });
  const home = ms.map((own, kind) => {
    const beside = ms.findIndex((m, k) =>
      STRAYS.some(({ times, off }) => many[k] > times * many[kind] && Math.abs(Math.log(m / own)) < off),
    );
    return beside < 0 ? kind : beside;
  });
  const kept = [...new Set(home)].sort((a, b) => a - b);
  return { ms: kept.map((kind) => ms[kind]), of: of.map((kind) => kept.indexOf(home[kind])), log };
}

/** How many times are of each kind. */
export function manyOf({ ms, of }: Pick<Kinds, "ms" | "of">): number[] {
  return ms.map((_, kind) => of.reduce((sum, own) => sum + Number(own === kind), 0));
}

/** A time on a scale on which its scatter is 1 everywhere (variance stabilised; Bartlett 1947). */
function even(ms: number, scatter: Scatter): number {
  return Math.asinh((scatter.share * ms) / scatter.ms) / scatter.share;
}
