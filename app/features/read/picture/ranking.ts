import type { Decoded } from "@core/flash/decode";
import { flashWorker } from "~/workers/flash";
import type { LampSeen, Seen } from "~/workers/lamp.worker";
import type { Home } from "../home";

/** Lamps in the order in which they speak the dialect that is asked for, the upper one first where two do. */
export async function bySpeech(lamps: readonly LampSeen[], until: number, { dialect, table }: Home): Promise<Ranking> {
  const fits = await Promise.all(
    lamps.map(async ({ t, y }) => {
      const levels = { t: [...t], y: [...y] };
      const { decoded } = await flashWorker("judge").readFilm(dialect, { mode: "levels", levels, until }, table);
      return fitOf(decoded);
    }),
  );
  return orderByFit(lamps, fits);
}

/** Lamps in the order in which they are taken for what is asked for, and whether any of them speaks at all. */
export interface Ranking {
  order: number[];
  speaks: boolean;
  /** Those that may speak, and blink so evenly that many a thing does. */
  doubtful: number[];
}

/** Fewer flashes than this follow any rhythm. */
const FEWEST = 4;
/** From here on a lamp speaks. */
const SPEAKS = 0.5;
/** What is even blinks like a code of a single flash: it is hardly believed beside a lamp that says more. */
const EVEN = 0.4;

/** How surely a lamp speaks a dialect: a little where it follows the rhythm and has not said a whole code, 0 where it does not. */
export function fitOf(decoded: Decoded): number {
  if (decoded.misfit) return 0;
  const said = decoded.assignment.filter((a) => a !== null);
  if (said.length < FEWEST) return 0;
  const fit = decoded.state === "none" || decoded.codes.length ? decoded.confidence : 0.1;
  const even = said.every((a) => a.unit.kind === "even" || (a.digit === 0 && a.flash === 0));
  return even ? Math.min(EVEN, fit) : fit;
}

/** A lamp that does not speak is only taken where none does. */
export function orderByFit(lamps: readonly LampSeen[], fits: readonly number[]): Ranking {
  const all = lamps.map((lamp, i) => ({ lamp, fit: fits[i] }));
  const good = all.filter((x) => x.fit > SPEAKS).sort((a, b) => a.lamp.box.y - b.lamp.box.y);
  const rest = all.filter((x) => x.fit <= SPEAKS).sort((a, b) => b.fit - a.fit);
  const order = (good.length ? good : rest.slice(0, 1)).map((x) => x.lamp.id);
  const doubtful = rest.filter((x) => x.fit >= EVEN).map((x) => x.lamp.id);
  return { order, speaks: fits.some((f) => f > 0), doubtful };
}

/** The patches that are offered as lamps. */
export const offered = (seen: Seen | null, quiet: readonly number[]): readonly LampSeen[] =>
  seen?.lamps.filter((l) => !quiet.includes(l.id)) ?? [];
