import type { Mark } from "./types";

/** Two readings of one lamp, laid over one another. */
export interface Overlay {
  /** To be added to the times of the second, ms. */
  offset: number;
  /** Ids of marks of the first and second that are the same flash. */
  same: [first: number, second: number][];
  /** Ids of those that only one has, within the time that both watched. */
  onlyFirst: number[];
  onlySecond: number[];
}

/** Two people see one flash at times that differ by no more than this, ms. */
const SAME_MS = 280;
/** Offsets that lie so close are one. */
const BIN_MS = 60;

/**
 * Finds the offset under which most marks of two readings fall together, then pairs them in order of time. Null where not even
 * half of the shorter one's marks do: they did not watch the same show.
 */
export function overlay(first: readonly Mark[], second: readonly Mark[]): Overlay | null {
  const a = flashes(first);
  const b = flashes(second);
  if (!a.length || !b.length) return null;
  // Differences of all pairs, gathered: the true offset is where they pile up.
  const piles = new Map<number, number>();
  for (const x of a)
    for (const y of b) {
      const bin = Math.round((x.t - y.t) / BIN_MS);
      for (const k of [bin - 1, bin, bin + 1]) piles.set(k, (piles.get(k) ?? 0) + (k === bin ? 2 : 1));
    }
  const top = [...piles].sort((p, q) => q[1] - p[1]).slice(0, 12);
  let best: Overlay | null = null;
  for (const [bin] of top) {
    const tried = paired(a, b, bin * BIN_MS);
    if (!best || tried.same.length > best.same.length) best = tried;
  }
  return best && best.same.length * 2 >= Math.min(a.length, b.length) ? best : null;
}

function paired(a: readonly Mark[], b: readonly Mark[], rough: number): Overlay {
  const pairs = matches(a, b, rough);
  const late = pairs.map(([x, y]) => x.t - y.t).sort((p, q) => p - q);
  const offset = late.length ? late[late.length >> 1] : rough;
  const same = matches(a, b, offset);
  const [from, to] = [
    Math.max(a[0].t, b[0].t + offset) - SAME_MS,
    Math.min(a[a.length - 1].t, b[b.length - 1].t + offset) + SAME_MS,
  ];
  const within = (t: number) => t >= from && t <= to;
  const [inA, inB] = [new Set(same.map(([x]) => x.id)), new Set(same.map(([, y]) => y.id))];
  return {
    offset,
    same: same.map(([x, y]) => [x.id, y.id]),
    onlyFirst: a.filter((m) => !inA.has(m.id) && within(m.t)).map((m) => m.id),
    onlySecond: b.filter((m) => !inB.has(m.id) && within(m.t + offset)).map((m) => m.id),
  };
}

function matches(a: readonly Mark[], b: readonly Mark[], offset: number): [Mark, Mark][] {
  const out: [Mark, Mark][] = [];
  for (let i = 0, k = 0; i < a.length && k < b.length;) {
    const d = a[i].t - (b[k].t + offset);
    if (Math.abs(d) <= SAME_MS) out.push([a[i++], b[k++]]);
    else if (d < 0) i++;
    else k++;
  }
  return out;
}

const flashes = (marks: readonly Mark[]): Mark[] => marks.filter((m) => m.kind !== "p").sort((x, y) => x.t - y.t);
