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
  const ranking = orderByFit(lamps, fits);
  // Of this vehicle it is known that it flashes evenly where nothing is stored.
  const empty = dialect.empty?.kind === "even" && fits.some((f) => f.fit > SPEAKS);
  return ranking.speech === "even" && empty ? { ...ranking, speech: "words" } : ranking;
}

/** Lamps in the order in which they are taken for what is asked for. */
export interface Ranking {
  order: number[];
  /** Whether any of them speaks: something, only so evenly that many a thing does, or nothing that is known. */
  speech: "words" | "even" | "none";
  /** Those that may speak, and only blink evenly. */
  doubtful: number[];
}

/** How surely a lamp speaks, 0 to 1, and whether what it says is nothing but even flashes. */
export interface Fit {
  fit: number;
  even: boolean;
}

/** Fewer flashes than this follow any rhythm. */
const FEWEST = 4;
/** From here on a lamp speaks. */
const SPEAKS = 0.5;
/** How surely that speaks which blinks, and has said nothing. */
const HARDLY = 0.1;

/** How surely a lamp speaks a dialect: a little where it follows the rhythm and has not said a whole code, 0 where it does not. */
export function fitOf(decoded: Decoded): Fit {
  const said = decoded.assignment.filter((a) => a !== null);
  if (decoded.misfit === "even") return { fit: HARDLY, even: true };
  if (decoded.misfit || said.length < FEWEST) return { fit: 0, even: false };
  return {
    fit: decoded.state === "none" || decoded.codes.length ? decoded.confidence : HARDLY,
    // Codes of a single flash: so a needle swings.
    even: said.every((a) => a.unit.kind === "even" || (a.digit === 0 && a.flash === 0)),
  };
}

/** A lamp that does not speak is only taken where none does; one that is even is not believed beside one that says more. */
export function orderByFit(lamps: readonly LampSeen[], fits: readonly Fit[]): Ranking {
  const all = lamps.map((lamp, i) => ({ lamp, ...fits[i] }));
  const good = all.filter((x) => x.fit > SPEAKS && !x.even).sort((a, b) => a.lamp.box.y - b.lamp.box.y);
  const rest = all.filter((x) => !good.includes(x)).sort((a, b) => b.fit - a.fit);
  const speaking = all.filter((x) => x.fit > 0);
  return {
    order: (good.length ? good : rest.slice(0, 1)).map((x) => x.lamp.id),
    speech: !speaking.length ? "none" : speaking.every((x) => x.even) ? "even" : "words",
    doubtful: rest.filter((x) => x.fit > SPEAKS).map((x) => x.lamp.id),
  };
}

/** The patches that are offered as lamps. */
export const offered = (seen: Seen | null, quiet: readonly number[]): readonly LampSeen[] =>
  seen?.lamps.filter((l) => !quiet.includes(l.id)) ?? [];
