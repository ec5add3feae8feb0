/** The hidden positions in which a show may be at a mark. */
export interface Positions {
  /** Positions still alive after a mark, in no order, and how many there are. */
  index: Int32Array;
  size: number;
  /** Their weights, which sum to 1; the factor taken out of them is kept as a log, -Infinity where there are none. */
  weight: Float64Array;
  scale: number;
  /** The unit's clock, given the position: see `Clock`. */
  late: Float64Array;
  variance: Float64Array;
}

export function positions(room: number): Positions {
  return {
    index: new Int32Array(room),
    size: 0,
    weight: new Float64Array(room),
    scale: -Infinity,
    late: new Float64Array(room),
    variance: new Float64Array(room),
  };
}

/**
 * One column of a trellis in the making: ways into the hidden positions of one mark add up (the sum of the forward algorithm,
 * Rabiner 1989, III), and the clocks of ways that meet in one position become one of the same mean and variance.
 */
export interface Column {
  /** Weight of each position, 0 where nothing came; which have one, and how many. */
  weight: Float64Array;
  touched: Int32Array;
  size: number;
  /** The largest weight so far. */
  max: number;
  /** Sums of the clocks that came: weighted first and second moment. */
  lateSum: Float64Array;
  squareSum: Float64Array;
}

export function column(room: number): Column {
  return {
    weight: new Float64Array(room),
    touched: new Int32Array(room),
    size: 0,
    max: 0,
    lateSum: new Float64Array(room),
    squareSum: new Float64Array(room),
  };
}

/** What arrives in a position: its weight, and the clock it leaves. */
interface Arrival {
  p: number;
  late: number;
  variance: number;
}

/** A way arrives in position `j`. */
export function arrive(c: Column, j: number, { p, late, variance }: Arrival): void {
  const before = c.weight[j];
  if (before === 0) c.touched[c.size++] = j;
  const after = before + p;
  c.weight[j] = after;
  if (after > c.max) c.max = after;
  c.lateSum[j] += p * late;
  c.squareSum[j] += p * (variance + late * late);
}

/**
 * Closes a column: what is not far behind its best position goes to `into`, and the column is empty again.
 * @param beam share of the best one's weight that a position has to have
 * @param reference log of the factor that had been taken out of all weights
 */
export function settle(c: Column, into: Positions, beam: number, reference: number): void {
  const least = c.max * beam;
  let size = 0;
  let sum = 0;
  for (let k = 0; k < c.size; k++) {
    const j = c.touched[k];
    const weight = c.weight[j];
    if (weight > least) {
      const late = c.lateSum[j] / weight;
      into.index[size] = j;
      into.late[size] = late;
      into.variance[size] = c.squareSum[j] / weight - late * late;
      into.weight[size++] = weight;
      sum += weight;
    }
    c.weight[j] = 0;
    c.lateSum[j] = 0;
    c.squareSum[j] = 0;
  }
  for (let k = 0; k < size; k++) into.weight[k] /= sum;
  into.size = size;
  into.scale = size ? reference + Math.log(sum) : -Infinity;
  c.size = 0;
  c.max = 0;
}
