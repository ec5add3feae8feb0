import { expose, transfer } from "comlink";
import { adviceOf, type Advice } from "@core/lamp/advice";
import { clearness, levelsOf } from "@core/lamp/lamp";
import { Lookout, type Sight } from "@core/lamp/lookout";
import { boxOf, patchOf, type Box } from "@core/lamp/patch";
import { pictureOfRgba, rasterOf, type Picture } from "@core/lamp/picture";
import type { FilmInfo, FilmProblem } from "./film-frames";
import { pictureOf, type Frame } from "./planes";
import { readAhead, readyToRead } from "./read-ahead";

/** A lamp as it is watched: where, how clear, and its brightness in every picture so far. */
export interface LampSeen {
  id: number;
  /** In shares of the picture as coded, before a rotation that its metadata asks for. */
  box: Box;
  apart: number;
  t: Float64Array;
  y: Float64Array;
}

/** What was seen up to `at`, ms from the first picture. */
export interface Seen {
  at: number;
  lamps: LampSeen[];
  /** Pictures of a lamp that was drawn and has not changed yet, so that nobody can say whether it is lit; null where there is none. */
  still: { t: Float64Array } | null;
  advice: Advice;
  pictures: number;
  /** Pictures that a camera should have given and did not. */
  skipped: number;
  /** Time that the analysis took, ms. */
  analysis: number;
}

export type LampEvent =
  | { kind: "opened"; film: FilmInfo }
  | { kind: "seen"; seen: Seen }
  /** A lamp of a camera changed just now. */
  | { kind: "change"; id: number; lit: 0 | 1; t: number };

export interface FilmEnd {
  problem: FilmProblem | null;
  seen: Seen | null;
  cancelled: boolean;
}

/** How often the whole is told, ms. */
const TELL_MS = 400;
const TELL_FILM_MS = 1500;
/** A gap of more than so many usual intervals is one in which pictures were skipped. */
const SKIPPED = 1.6;

/** One watch, of a film or a camera. */
class Watch {
  pictures = 0;
  private lookout: Lookout | null = null;
  private first: number | null = null;
  private at = 0;
  private told = 0;
  private interval = 0;
  private skipped = 0;
  private analysis = 0;

  constructor(
    private tell: (event: LampEvent) => void,
    private given: Box | null,
    private live: boolean,
  ) {}

  see(picture: Picture): void {
    this.first ??= picture.t;
    const t = picture.t - this.first;
    // Two pictures at one time are one.
    if (this.pictures && t <= this.at) return;
    const started = performance.now();
    const { width, height } = picture;
    // A film that changes its size in the middle is begun anew: no patch would fit.
    if (this.lookout?.eye.width !== width || this.lookout.eye.height !== height)
      this.lookout = new Lookout(
        width,
        height,
        this.given ? [patchOf(this.given, rasterOf(width, height))] : [],
        this.live,
      );
    this.count(t);
    this.at = t;
    this.pictures++;
    const sight = this.lookout.see({ ...picture, t });
    this.analysis += performance.now() - started;
    if (this.live) for (const change of sight.changes) this.tell({ kind: "change", ...change });
    this.after(sight);
  }

  draw(box: Box): void {
    this.given = box;
    if (this.lookout) this.after(this.lookout.draw(patchOf(box, this.lookout.eye.raster)));
  }

  end(): Seen | null {
    if (!this.lookout) return null;
    this.lookout.end();
    return this.seen();
  }

  private count(t: number): void {
    if (!this.pictures) return;
    const gap = t - this.at;
    if (this.interval && gap > SKIPPED * this.interval) this.skipped += Math.round(gap / this.interval) - 1;
    else this.interval += (gap - this.interval) * (this.interval ? 0.1 : 1);
  }

  private after(sight: Sight): void {
    const now = performance.now();
    if (now - this.told < (this.live ? TELL_MS : TELL_FILM_MS) && !sight.begun.length) return;
    this.told = now;
    const seen = this.seen();
    if (seen)
      this.tell(
        transfer(
          { kind: "seen", seen },
          seen.lamps.flatMap((l) => [l.t.buffer, l.y.buffer]),
        ),
      );
  }

  private seen(): Seen | null {
    if (!this.lookout) return null;
    const { eye } = this.lookout;
    const still = eye.lamps.find((lamp) => !lamp.discriminant);
    return {
      at: this.at,
      still: still ? { t: Float64Array.from(still.t) } : null,
      lamps: eye.lamps.flatMap((lamp) => {
        const levels = levelsOf(lamp);
        return levels
          ? [
              {
                id: lamp.id,
                box: boxOf(lamp.patch, eye.raster),
                apart: clearness(lamp).apart,
                t: Float64Array.from(levels.t),
                y: Float64Array.from(levels.y),
              },
            ]
          : [];
      }),
      advice: adviceOf(eye.lamps[0] ?? null, { lost: eye.lost, trembling: eye.trembling }),
      pictures: this.pictures,
      skipped: this.skipped,
      analysis: this.analysis,
    };
  }
}

let watch: Watch | null = null;
let generation = 0;

const api = {
  /** Reads a film from its first picture to its last; `given` is the patch that a person drew. */
  async readFilm(file: File, given: Box | null, tell: (event: LampEvent) => void): Promise<FilmEnd> {
    const mine = ++generation;
    const own = (watch = new Watch(tell, given, false));
    const cancelled = () => mine !== generation;
    const problem = await readAhead(
      file,
      (film) => tell({ kind: "opened", film }),
      (picture) => {
        own.see(picture);
        return !cancelled();
      },
    );
    return { problem, seen: own.end(), cancelled: cancelled() };
  },

  /** Reads the frames of a camera until they end or the watch is stopped. */
  async watchCamera(frames: ReadableStream<VideoFrame>, given: Box | null, tell: (event: LampEvent) => void) {
    const mine = ++generation;
    const own = (watch = new Watch(tell, given, true));
    const reader = frames.getReader();
    let buffer = new Uint8Array(0);
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      const { codedWidth, codedHeight, visibleRect, timestamp } = value;
      const { width, height } = visibleRect ?? { width: codedWidth, height: codedHeight };
      if (buffer.length < value.allocationSize()) buffer = new Uint8Array(value.allocationSize());
      const picture = await pictureOf(value as Frame, { width, height }, timestamp / 1000, buffer).catch(() => null);
      value.close();
      if (mine !== generation) break;
      if (picture) own.see(picture);
    }
    await reader.cancel().catch(() => undefined);
    return own.end();
  },

  /** Begins a watch whose pictures the page brings itself, where the browser gives no frames to a worker. */
  begin(given: Box | null, live: boolean, tell: (event: LampEvent) => void): void {
    generation++;
    watch = new Watch(tell, given, live);
  },
  bring(t: number, width: number, height: number, rgba: ArrayBuffer): void {
    watch?.see(pictureOfRgba(t, width, height, new Uint8Array(rgba)));
  },
  /** Ends the watch that goes on. */
  stop(): Seen | null {
    generation++;
    return watch?.end() ?? null;
  },

  draw(box: Box): void {
    watch?.draw(box);
  },
};

export type LampApi = typeof api;
expose(api);
// Started before a film is there, it has the decoder ready too.
setTimeout(() => !generation && readyToRead());
