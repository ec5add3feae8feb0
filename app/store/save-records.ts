import { backupWriter, type Section } from "@core/record/backup";
import type { Job, Reading, Vehicle } from "@core/record/types";
import { boxes, KINDS, ready } from "./boxes";
import { nowIso } from "./clock";
import { codeNotes } from "./code-notes";
import { dataUrlOf } from "./data-url";
import { eachFilm, type KeptFilm } from "./films";
import { loadOwnPacks, rawPacks } from "./own-packs";
import { eachPhoto, readPhoto, type KeptPhoto } from "./photos";

/** What is to be in a file of records beside the records. */
export interface SaveWith {
  photos: boolean;
  films: boolean;
}

/** Text is handed over in pieces of about so many characters, so that no single string holds all of a large file. */
const PIECE = 4_000_000;

/** All that was written so far, as one file. */
function collect() {
  const parts: Blob[] = [];
  let text: string[] = [];
  let length = 0;
  const cut = () => {
    parts.push(new Blob(text));
    [text, length] = [[], 0];
  };
  return {
    out: (piece: string) => {
      text.push(piece);
      length += piece.length;
      if (length > PIECE) cut();
    },
    file: () => {
      cut();
      return new Blob(parts, { type: "application/json" });
    },
  };
}

/**
 * All records as one file, as they are stored, locked ones too.
 * @param told how many of how many things are written
 */
export async function exportEverything(
  { photos, films }: SaveWith = { photos: true, films: false },
  told: (done: number, of: number) => void = () => undefined,
): Promise<Blob> {
  await ready();
  await loadOwnPacks();
  const kept: { photos: string[]; films: KeptFilm[] } = { photos: [], films: [] };
  // Pictures are large: only their names are held until each is written.
  if (photos) await eachPhoto((p) => void kept.photos.push(p.id));
  if (films) await eachFilm((f) => void kept.films.push(f));
  const counts = await Promise.all(KINDS.map(async (kind) => (await boxes[kind].keys()).length));
  const all = counts.reduce((a, b) => a + b, kept.photos.length + kept.films.length);
  let done = 0;
  const { out, file } = collect();
  const writer = backupWriter(nowIso(), out);
  for (const kind of KINDS)
    await boxes[kind].each((raw, key) => {
      // In a file a record is named by its own id.
      const { id } = (raw ?? {}) as { id?: unknown };
      writer.put("records", `${kind}/${typeof id === "string" ? id : key}`, raw);
      if (++done % 200 === 0) told(done, all);
    });
  const each = (section: Section, of: Iterable<readonly [string, unknown]>) => {
    for (const [key, value] of of) writer.put(section, key, value);
  };
  each("makes", rawPacks());
  each("notes", Object.entries(await codeNotes()));
  for (const id of kept.photos) {
    const photo = await readPhoto(id);
    if (photo) writer.put("photos", id, await photoIn(photo));
    told(++done, all);
  }
  for (const { id, vehicle, reading, at, film } of kept.films) {
    writer.put("films", id, { vehicle, of: reading, at, data: await dataUrlOf(film) });
    told(++done, all);
  }
  writer.end();
  return file();
}

const photoIn = async ({ vehicle, job, at, photo }: KeptPhoto) => ({
  vehicle,
  of: job,
  at,
  data: await dataUrlOf(photo),
});

/** One job with its vehicle, readings and, where asked for, photos as a file that can be brought in elsewhere. */
export async function exportJob(
  vehicle: Vehicle,
  job: Job,
  readings: readonly Reading[],
  photos = true,
): Promise<Blob> {
  await ready();
  const { out, file } = collect();
  const writer = backupWriter(nowIso(), out);
  for (const doc of [vehicle, job, ...readings]) writer.put("records", `${doc.kind}/${doc.id}`, doc);
  const make = rawPacks().get(vehicle.pack);
  if (make) writer.put("makes", vehicle.pack, make);
  const own = Object.entries(await codeNotes()).filter(([key]) => key.startsWith(`${vehicle.pack}/`));
  for (const [key, note] of own) writer.put("notes", key, note);
  const shown = photos
    ? [...(vehicle.photo ? [vehicle.photo] : []), ...job.notebook.flatMap((n) => n.photos ?? [])]
    : [];
  for (const id of new Set(shown)) {
    const photo = await readPhoto(id);
    if (photo) writer.put("photos", id, await photoIn(photo));
  }
  writer.end();
  return file();
}
