import { leftOut } from "./long-watch";
import { brightnessOf, DARK, LIT } from "./discriminant";
import { searchLamps, type Found } from "./find-lamp";
import type { Patch } from "./patch";
import { History } from "./history";
import { learn, type WatchedLamp } from "./lamp";
import { measure, siteOf } from "./measure";
import {
  emptyCells,
  emptySums,
  gather,
  gatherCell,
  rasterOf,
  type Cells,
  type Picture,
  type Raster,
  type Sums,
} from "./picture";
import { emptyProfile, follow, follower, profileOf, type Follower, type Profile, type Shift } from "./shake";

/** Pictures that are held to look back on: half a minute at 60 a second, a minute at 30, and those that come while one is searched. */
const HELD = 1860;
/** Once a lamp is watched, whole pictures are only taken so far apart, ms: enough to find another lamp in. */
const WHOLE_MS = 110;
/** So many pictures in a row that agree with nothing: the camera looks elsewhere. */
const ELSEWHERE = 20;
/** Mean movement is taken over about so many pictures. */
const MEAN = 60;
/** A camera that moves less than this, raster pixels a picture, stands: whether it still does is looked at every few pictures. */
const STANDS = 0.02;
const STANDS_EVERY = 3;

/** A lamp has changed its state, as far as can be told at once. */
export interface Change {
  id: number;
  lit: 0 | 1;
  t: number;
}

/**
 * Looks at pictures one after the other: follows the camera's shaking, holds the last minute of cells, and measures every lamp
 * that is watched. One picture costs the same whatever its size and however long the film.
 */
export class Eye {
  readonly raster: Raster;
  readonly lamps: WatchedLamp[] = [];
  /** Mean movement from picture to picture, raster pixels. */
  trembling = 0;
  /** Time of the last picture, and of the first one that is held, ms. */
  last = 0;
  private history: History;
  // Room that is used again for every picture: it must leave nothing to clear away.
  private cells: Cells;
  private sums: Sums;
  private profile: Profile;
  private shake: Follower | null = null;
  private lastWhole = -Infinity;
  private seen = 0;

  /** @param forgets leaves out the middle of a watch that has no end; a film is read whole */
  constructor(
    readonly width: number,
    readonly height: number,
    private forgets = false,
  ) {
    this.raster = rasterOf(width, height);
    this.history = new History(this.raster, HELD);
    this.cells = emptyCells(this.raster);
    this.sums = emptySums(this.raster);
    this.profile = emptyProfile(this.raster);
  }

  /** Takes the next picture; tells what lamps changed with it. */
  see(picture: Picture): Change[] {
    const { raster, cells } = this;
    const { dx, dy } = this.follow(picture);
    this.last = picture.t;
    // While the camera looks elsewhere nothing is known of any lamp; what merely passes is told by the lamp itself.
    if (this.lost) return [];
    const whole = !this.lamps.length || picture.t - this.lastWhole >= WHOLE_MS;
    if (whole) {
      gather(picture, raster, dx, dy, cells);
      this.history.push(picture.t, cells);
      this.lastWhole = picture.t;
    }
    const changes: Change[] = [];
    for (const lamp of this.lamps) {
      if (!whole) {
        for (const c of lamp.site.patch) gatherCell(picture, raster, dx, dy, c, cells);
        for (const c of lamp.site.around) gatherCell(picture, raster, dx, dy, c, cells);
      }
      const f = measure(cells, lamp.site);
      lamp.t.push(picture.t);
      lamp.features.push(f);
      const out = this.forgets ? leftOut(lamp.t) : null;
      if (out) {
        lamp.t.splice(out.from, out.to - out.from);
        lamp.features.splice(out.from, out.to - out.from);
      }
      if (!lamp.discriminant) continue;
      const slack = (lamp.state ? -0.15 : 0.15) * (LIT - DARK);
      const lit = brightnessOf(lamp.discriminant, f) > (DARK + LIT) / 2 + slack ? 1 : 0;
      if (lit === lamp.state) continue;
      lamp.state = lit;
      changes.push({ id: lamp.id, lit, t: picture.t });
    }
    return changes;
  }

  /** Where the picture has moved to. */
  private follow(picture: Picture): Shift {
    const { raster, sums, shake } = this;
    const stands = this.seen++ > MEAN && this.trembling < STANDS && shake?.lost === 0;
    if (shake && stands && this.seen % STANDS_EVERY) return shake.last;
    // The follower keeps its first profile; all others are looked at once.
    const profile = profileOf(picture, raster, sums, shake ? this.profile : emptyProfile(raster));
    this.shake = shake ? follow(shake, profile) : follower(profile);
    const { last } = this.shake;
    if (shake) this.trembling += (Math.hypot(last.dx - shake.last.dx, last.dy - shake.last.dy) - this.trembling) / MEAN;
    return last;
  }

  /** Pictures that are held to look back on. */
  get held(): number {
    return this.history.to - this.history.from;
  }

  /** Does the camera look elsewhere, or is it covered? */
  get lost(): boolean {
    return (this.shake?.lost ?? 0) > ELSEWHERE;
  }

  /** Searches what is held for lamps, in steps. */
  search(): Generator<void, Found[]> {
    return searchLamps(this.history);
  }

  /** Watches a lamp from here on, and in the pictures still held. */
  watch(patch: Patch, first?: Pick<Found, "t" | "lit">): WatchedLamp {
    const id = this.lamps.reduce((a, l) => Math.max(a, l.id), 0) + 1;
    const site = siteOf(
      patch,
      this.raster,
      this.lamps.map((l) => l.patch),
    );
    const found = first !== undefined;
    const lamp: WatchedLamp = { id, patch, site, found, t: [], features: [], discriminant: null, state: 0 };
    for (let k = this.history.from; k < this.history.to; k++) {
      lamp.t.push(this.history.time(k));
      lamp.features.push(measure(this.history.cells(k), site));
    }
    learn(lamp, first);
    this.lamps.push(lamp);
    return lamp;
  }

  forget(id: number): void {
    const at = this.lamps.findIndex((l) => l.id === id);
    if (at >= 0) this.lamps.splice(at, 1);
  }
}
