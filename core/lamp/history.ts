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

  /** Pictures are numbered as they came: this is the oldest that is held, and one after the newest. */
  get from(): number {
    return Math.max(0, this.count - this.capacity);
  }
  get to(): number {
    return this.count;
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

  /** Time of a picture that is held, ms. */
  time(picture: number): number {
    return this.t[picture % this.capacity];
  }

  /** The planes of a picture that is held, as views. */
  cells(picture: number): { y: Uint8Array; u: Uint8Array; v: Uint8Array } {
    const n = this.raster.across * this.raster.down;
    const at = (picture % this.capacity) * n;
    return { y: this.y.subarray(at, at + n), u: this.u.subarray(at, at + n), v: this.v.subarray(at, at + n) };
  }
}
