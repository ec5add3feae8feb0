import type { Cells, Raster } from "./picture";

/**
 * The cells of the last pictures, a byte a value, in a ring of fixed size: memory does not grow with the length of a film.
 */
export class History {
  readonly t: Float64Array;
  private y: Uint8Array;
  private u: Uint8Array;
  private v: Uint8Array;
  private count = 0;

  constructor(
    readonly raster: Raster,
    readonly capacity: number,
  ) {
    const n = raster.across * raster.down * capacity;
    this.t = new Float64Array(capacity);
    this.y = new Uint8Array(n);
    this.u = new Uint8Array(n);
    this.v = new Uint8Array(n);
  }

  get size(): number {
    return Math.min(this.count, this.capacity);
  }

  push(t: number, cells: Cells): void {
    const slot = this.count++ % this.capacity;
    const at = slot * this.raster.across * this.raster.down;
    this.t[slot] = t;
    // Half a level up: typed arrays cut off what is behind the point.
    for (let i = 0; i < cells.y.length; i++) {
      this.y[at + i] = cells.y[i] + 0.5;
      this.u[at + i] = cells.u[i] + 0.5;
      this.v[at + i] = cells.v[i] + 0.5;
    }
  }

  /** Time of the k-th of the pictures that are held, the oldest first. */
  time(k: number): number {
    return this.t[this.slot(k)];
  }

  /** The planes of the k-th picture that is held, as views. */
  cells(k: number): { y: Uint8Array; u: Uint8Array; v: Uint8Array } {
    const n = this.raster.across * this.raster.down;
    const at = this.slot(k) * n;
    return { y: this.y.subarray(at, at + n), u: this.u.subarray(at, at + n), v: this.v.subarray(at, at + n) };
  }

  private slot(k: number): number {
    return this.count <= this.capacity ? k : (this.count + k) % this.capacity;
  }
}
