import Joi from "joi";
import { box } from "./box";
import { inTurn } from "./in-turn";

/** Films that a person kept of a watch, each with its reading; beside the records, since they are large and no part of a backup. */
export const films = box("klinko-films", "films");

export interface KeptFilm {
  id: string;
  reading: string;
  vehicle: string;
  /** When it was kept. */
  at: string;
  film: Blob;
}

const shape = Joi.object<KeptFilm>({
  id: Joi.string().required(),
  reading: Joi.string().required(),
  vehicle: Joi.string().allow("").required(),
  at: Joi.string().isoDate().required(),
  film: Joi.object().instance(Blob).required(),
}).unknown();

/** Readings that were thrown away while their film was still being closed. */
const dropped = new Set<string>();

/** @returns false where the browser has no room for it */
export async function keepFilm(kept: KeptFilm): Promise<boolean> {
  return inTurn("films", async () => {
    if (dropped.has(kept.reading)) return true;
    return films.set(kept.id, kept).then(
      () => true,
      () => false,
    );
  });
}

/** Films of a reading, the oldest first. What is damaged is left out, and stays where it is. */
export async function filmsOf(reading: string): Promise<KeptFilm[]> {
  const all = await every();
  return all.filter((k) => k.reading === reading).sort((a, b) => a.at.localeCompare(b.at));
}

export const dropFilm = (id: string): Promise<void> => inTurn("films", () => films.remove(id));

/** Throws away the films of one reading, or of all readings of a vehicle. */
export async function dropFilms(of: Partial<Pick<KeptFilm, "reading" | "vehicle">>): Promise<void> {
  if (of.reading) dropped.add(of.reading);
  for (const k of await every())
    if ((of.reading && k.reading === of.reading) || (of.vehicle && k.vehicle === of.vehicle)) await dropFilm(k.id);
}

/** Goes through all films; one that is damaged is left out, and stays where it is. */
export const eachFilm = (visit: (film: KeptFilm) => void): Promise<void> =>
  films.each((raw) => {
    const checked = shape.validate(raw);
    if (!checked.error) visit(checked.value);
  });

async function every(): Promise<KeptFilm[]> {
  const out: KeptFilm[] = [];
  await eachFilm((film) => void out.push(film));
  return out;
}

/** Name under which a film is saved as a file. */
export const filmName = (film: Blob): string => `lamp.${film.type.includes("mp4") ? "mp4" : "webm"}`;
export const megabytes = (film: Blob): string => `${(film.size / 1e6).toFixed(1)} MB`;
