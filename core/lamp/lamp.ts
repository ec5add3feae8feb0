import { brightnessOf, DARK, discriminantOf, LIT, strangeness, type Discriminant } from "./discriminant";
import type { Patch } from "./patch";
import type { Levels } from "./levels";
import { surroundings, type Features, type Site } from "./measure";

/** A lamp that is watched: where, and what was measured in each picture in which it could be seen. */
export interface WatchedLamp {
  id: number;
  patch: Patch;
  site: Site;
  /** It was found by its blinking; a lamp that a person drew may not have blinked yet. */
  found: boolean;
  t: number[];
  features: Features[];
  /** How lit is told from dark; null while there is not enough to know. */
  discriminant: Discriminant | null;
  /** State of the last picture, for marks that are shown at once, and when it began. */
  state: 0 | 1;
}

/** Rough states by which a discriminant is begun. */
const ROUNDS = 4;
/** Beyond this, squared deviations, something stands between camera and lamp. */
const STRANGE = 120;
/** So many pictures in a row may be left out as strange, as a share of all; else it is the measure that is wrong. */
const MOST_STRANGE = 0.2;
/** Lit and dark lie so many standard deviations apart at least; less, and they are two halves of noise (2.6 for a Gaussian cut in the middle). */
export const TWO_STATES = 5;
/** Pictures used at most to learn how lit is told from dark, spread over the whole watch. */
const LEARN = 3000;

/**
 * Learns how lit is told from dark: from first states, then over again from its own. What tells no two states apart has parted the noise of
 * a drawn lamp that did not change: to that the first blinks would be strange, so it is begun anew from all that was seen.
 * @param first times and states to begin with, as the finder saw them; without, the two outer quarters of luma against the surroundings
 */
export function learn(lamp: WatchedLamp, first?: { t: readonly number[]; lit: ArrayLike<number> }): void {
  const { features, t } = lamp;
  const every = Math.max(1, Math.ceil(features.length / LEARN));
  const some = features.map((_, i) => i).filter((i) => i % every === 0);
  const seen = some.map((i) => features[i]);
  let begun = lamp.discriminant;
  if (first) {
    const states = statesAt(
      first.t,
      first.lit,
      some.map((i) => t[i]),
    );
    const known = some.filter((_, k) => states[k] >= 0);
    begun = discriminantOf(
      known.map((i) => features[i]),
      states.filter((s) => s >= 0),
    );
  }
  let own = overAgain(begun, seen);
  if (own ? !lamp.found && !tellsApart(own) : !first) {
    const anew = overAgain(crude(seen), seen);
    if (anew && !(own && own.apart > anew.apart)) own = anew;
  }
  lamp.discriminant = own;
}

/** Are lit and dark two states, and not two halves of the noise of one? */
export const tellsApart = (d: Discriminant | null): boolean => d !== null && d.apart >= TWO_STATES;

/** A discriminant learned over again from the states that it tells itself, without what stood between. */
function overAgain(begun: Discriminant | null, seen: readonly Features[]): Discriminant | null {
  let d = begun;
  for (let round = 0; d && round < ROUNDS; round++) {
    const now = d;
    const kept = seen.filter((f) => strangeness(now, f) < STRANGE);
    const use = kept.length > (1 - MOST_STRANGE) * seen.length ? kept : seen;
    const next = discriminantOf(
      use,
      use.map((f) => (brightnessOf(now, f) > (DARK + LIT) / 2 ? 1 : 0)),
    );
    if (!next) break;
    d = next;
  }
  return d;
}

/** Where nothing blinks that could be learned from: luma of the patch against what is around it. */
function crude(features: readonly Features[]): Discriminant | null {
  const against = features.map((f) => f[0] - f[3]);
  const sorted = [...against].sort((a, b) => a - b);
  const [low, high] = [sorted[Math.floor(sorted.length * 0.02)], sorted[Math.floor(sorted.length * 0.98)]];
  return discriminantOf(
    features,
    against.map((x) => (x > (low + high) / 2 ? 1 : 0)),
  );
}

/** State at each of some times from states at others; -1 where the neighbours do not agree or are far. */
function statesAt(t: readonly number[], lit: ArrayLike<number>, at: readonly number[]): number[] {
  let k = 0;
  return at.map((x) => {
    while (k < t.length - 1 && t[k + 1] <= x) k++;
    if (t[k] > x + 60 || (k === t.length - 1 && x > t[k] + 60)) return -1;
    return k + 1 < t.length && lit[k + 1] !== lit[k] ? -1 : lit[k];
  });
}

export interface LampLevels extends Levels {
  /** Share of pictures in which something stood between. */
  hidden: number;
}

/** The brightness of the lamp in each picture in which it could be seen. */
export function levelsOf({ t, features, discriminant }: WatchedLamp): LampLevels | null {
  if (!discriminant) return null;
  const strange = features.map((f) => strangeness(discriminant, f) > STRANGE);
  const hidden = strange.filter(Boolean).length / Math.max(1, features.length);
  const keep = features.map((_, i) => i).filter((i) => hidden > MOST_STRANGE || !strange[i]);
  return {
    t: keep.map((i) => Math.round(t[i] * 10) / 10),
    y: keep.map((i) => Math.round(brightnessOf(discriminant, features[i]) * 10) / 10),
    hidden,
  };
}

/** How clearly a lamp shows: deviations between lit and dark, and mean brightness around it, 0 to 255. */
export function clearness({ features, discriminant }: WatchedLamp): { apart: number; around: number } {
  const last = features.slice(-90);
  const around = last.reduce((sum, f) => sum + surroundings(f), 0) / Math.max(1, last.length);
  return { apart: discriminant?.apart ?? 0, around };
}
