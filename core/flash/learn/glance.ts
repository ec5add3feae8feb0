import type { Dialect } from "../dialect/dialect";
import { trackOf, type Evidence, type Track } from "../seen/evidence";
import { OBSERVERS, type Observer } from "../seen/observer";
import { grammarOf } from "../walk/grammar";
import { walksOf } from "../walk/walks";
import { logPriorOf } from "./prior";

/** A watch, and the kind of person who watched, as far as a look at it needs. */
export interface Look {
  track: Track;
  o: Observer;
  /** What the way explains of it, whatever the list. */
  log: number;
}

/** A way of talking, and what it explains of the first marks whatever the list. */
export interface Glanced {
  dialect: Dialect;
  /** Log probability of the marks of all watches, with the prior of the way. */
  log: number;
  /** For each watch, how well each mark and all before it are explained. */
  prefix: Float64Array[];
}

/** A look at a way goes over so many marks. */
export const GLANCED = 120;

/** The watches as marks of this way of talking, each with the kind of person that explains most. */
export function looksOf(dialect: Dialect, watches: readonly Evidence[]): Look[] {
  return watches.flatMap((watch) => {
    const track = trackOf(watch, dialect);
    if (track.onset.length < 2) return [];
    const logs = OBSERVERS[track.mode].map((o) => ({
      o,
      log: walksOf(grammarOf(dialect), track, 1, o, GLANCED, false).logLik,
    }));
    return [{ track, ...logs.reduce((a, b) => (b.log > a.log ? b : a)) }];
  });
}

/**
 * What a way explains whatever the list: one look, far cheaper than the search for its best list.
 * @param against another way: what falls far behind it is given up, and explains nothing
 */
export function glance(dialect: Dialect, looks: readonly Look[], against?: Glanced): Glanced {
  let log = logPriorOf(dialect);
  const prefix: Float64Array[] = [];
  for (const [i, { track, o }] of looks.entries()) {
    const walks = walksOf(grammarOf(dialect), track, 1, o, GLANCED, false, against?.prefix[i]);
    log += walks.logLik;
    prefix.push(walks.prefix);
    if (log === -Infinity) break;
  }
  return { dialect, log, prefix };
}
