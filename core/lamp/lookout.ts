import { Eye, type Change } from "./eye";
import type { Found } from "./find-lamp";
import type { Patch } from "./patch";
import { learn, tellsApart, type WatchedLamp } from "./lamp";
import type { Picture } from "./picture";

/**
 * The picture is searched for lamps so often until one is certain, ms. Nobody waits for a film's lamp: there it is twice as late each
 * time, and never so late that a search would not see what the one before did not.
 */
const SEARCH_MS = 2500;
const SEARCH_FILM_MS = [10_000, 25_000] as const;
/** And when one is certain, ms: each time twice as late. */
const SEARCH_ON_MS = 15_000;
/** At the end nothing is looked for that was looked for so short ago, ms. */
const LATELY_MS = 20_000;
/** How lit is told from dark is learned again so often, ms: by quarters more each time, so that the cost stays in proportion, once it can be told. */
const LEARN_MS = 4000;
const LEARN_GROWTH = 1.25;
/** A lamp that was drawn and tells no two states apart may begin to blink at any moment, and be asked about soon after, ms. */
const LEARN_UNTOLD_MS = 1000;
/** What looks this much like a lamp is watched without being asked for; with so many changes it is certain that it is one. */
const LIKELY = 2;
const CHANGES = 4;
const CERTAIN_CHANGES = 8;
/** A second lamp must look more like one, and change its colour at least by this share of what the first one does. */
const LIKELY_TOO = 2.5;
const COLOUR_TOO = 0.35;
const MOST = 3;
/** Cells between two lamps at least; what blinks closer is the glow of the first. */
const APART = 2;

export interface Sight {
  changes: Change[];
  /** Lamps that are watched from this picture on. */
  begun: WatchedLamp[];
}

/**
 * Decides what to watch: searches the pictures for lamps, watches what looks like one, gives it up for a better one until it is
 * certain, and learns over again how to tell lit from dark as more is seen.
 */
export class Lookout {
  readonly eye: Eye;
  private certain = false;
  private nextSearch: number;
  private searched = 0;
  /** A search that goes on, a step with each picture: one that was done at once would let pictures of a camera go by. */
  private searching: Generator<void, Found[]> | null = null;
  private nextLearning = new Map<number, number>();
  private started: number | null = null;

  /**
   * @param given patches that a person drew or confirmed: nothing else is looked for
   * @param live somebody waits for the lamp to be found
   */
  constructor(
    width: number,
    height: number,
    private given: readonly Patch[] = [],
    private live = false,
  ) {
    this.eye = new Eye(width, height, live);
    this.nextSearch = live ? SEARCH_MS : SEARCH_FILM_MS[0];
  }

  see(picture: Picture): Sight {
    const { eye } = this;
    const sight: Sight = { changes: [], begun: [] };
    if (this.started === null) {
      this.started = picture.t;
      for (const patch of this.given) sight.begun.push(eye.watch(patch));
    }
    sight.changes = eye.see(picture);
    const since = picture.t - this.started;
    this.searchOn(sight);
    if (!this.given.length && !this.searching && since >= this.nextSearch) {
      this.searched = eye.last;
      this.searching = eye.search();
      const usual = this.live ? SEARCH_MS : Math.min(SEARCH_FILM_MS[1], since);
      this.nextSearch = since + (this.certain ? Math.max(SEARCH_ON_MS, since) : usual);
    }
    for (const lamp of eye.lamps) {
      const next = this.nextLearning.get(lamp.id) ?? since + LEARN_MS;
      if (since >= next) learn(lamp);
      if (since >= next || !this.nextLearning.has(lamp.id))
        this.nextLearning.set(
          lamp.id,
          lamp.found || tellsApart(lamp.discriminant)
            ? Math.max(since + LEARN_MS, since * LEARN_GROWTH)
            : since + LEARN_UNTOLD_MS,
        );
    }
    return sight;
  }

  /** A last search and learning, when a film has ended. */
  end(): Sight {
    const sight: Sight = { changes: [], begun: [] };
    const fresh = this.eye.last - this.searched > LATELY_MS || !this.certain;
    if (!this.given.length && this.started !== null && fresh) this.searching ??= this.eye.search();
    while (this.searching) this.searchOn(sight);
    for (const lamp of this.eye.lamps) learn(lamp);
    return sight;
  }

  /** Watches a patch that a person drew, in place of all that was found; nothing else is looked for from then on. */
  draw(patch: Patch): Sight {
    const { eye } = this;
    const before = eye.lamps.map((l) => l.id);
    const begun = [eye.watch(patch)];
    for (const id of before) eye.forget(id);
    this.given = [patch];
    this.searching = null;
    return { changes: [], begun };
  }

  private searchOn(sight: Sight): void {
    const step = this.searching?.next();
    if (!step?.done) return;
    this.searching = null;
    this.judge(step.value, sight);
  }

  private judge(found: readonly Found[], sight: Sight): void {
    const { eye } = this;
    const [best] = found;
    if (!this.certain && best && best.score >= LIKELY && best.changes >= CHANGES) {
      // Until one is certain the likeliest is watched, whichever it was before.
      const known = eye.lamps.find((l) => near(l.patch, best));
      for (const lamp of [...eye.lamps]) if (lamp !== known) eye.forget(lamp.id);
      if (!known) sight.begun.push(eye.watch(best, best));
      this.certain = best.changes >= CERTAIN_CHANGES;
    }
    const first = found.find((f) => eye.lamps[0] && near(eye.lamps[0].patch, f));
    if (!this.certain) return;
    for (const f of found) {
      if (eye.lamps.length >= MOST) break;
      const coloured = !first || strength(f) >= COLOUR_TOO * strength(first);
      if (f.score >= LIKELY_TOO && f.changes >= CHANGES && coloured && !eye.lamps.some((l) => near(l.patch, f)))
        sight.begun.push(eye.watch(f, f));
    }
  }
}

const strength = ({ colour }: Found): number => Math.hypot(colour.u, colour.v);

function near(a: Patch, b: Patch): boolean {
  return a.left - APART < b.right && b.left - APART < a.right && a.top - APART < b.bottom && b.top - APART < a.bottom;
}
