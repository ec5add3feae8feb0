import { LIMITS } from "@core/record/types";
import { holds, instance, object, rulesReady, text, time, word, type Of } from "@core/schema/rule";
import { box } from "./box";
import { inTurn } from "./in-turn";

/** Films that a person kept of a watch, each with its reading; beside the records, since they are large and no part of a backup. */
export const films = box("klinko-films", "films");

const keptRule = object({
  id: word(LIMITS.name),
  reading: word(LIMITS.name),
  vehicle: text(LIMITS.name),
  /** When it was kept. */
  at: time,
  film: instance(Blob),
});
export type KeptFilm = Of<typeof keptRule>;

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
export async function eachFilm(visit: (film: KeptFilm) => void): Promise<void> {
  await rulesReady();
  await films.each((raw) => {
    const held = holds(keptRule, raw);
    if ("value" in held) visit(held.value);
  });
}

async function every(): Promise<KeptFilm[]> {
  const out: KeptFilm[] = [];
  await eachFilm((film) => void out.push(film));
  return out;
}

/** Name under which a film is saved as a file. */
export const filmName = (film: Blob): string => `lamp.${film.type.includes("mp4") ? "mp4" : "webm"}`;
export const megabytes = (film: Blob): string => `${(film.size / 1e6).toFixed(1)} MB`;
