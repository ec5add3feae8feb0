import { LIMITS } from "@core/record/types";
import { holds, instance, object, rulesReady, text, time, word, type Of } from "@core/schema/rule";
import { box } from "./box";
import { inTurn } from "./in-turn";
import { nowIso } from "./clock";
import { newId } from "./records";

/** Photos of vehicles and of lines in notebooks, each by its id; beside the records, which only name them. */
export const photos = box("klinko-photos", "photos");

const keptRule = object({
  id: word(LIMITS.name),
  vehicle: text(LIMITS.name),
  /** The job in whose notebook it stands; empty where it is of the vehicle. */
  job: text(LIMITS.name),
  at: time,
  photo: instance(Blob),
});
export type KeptPhoto = Of<typeof keptRule>;

/** Sharp enough to read a part's number, px along the longer side. */
const LONGEST = 1600;
const QUALITY = 0.82;
/** What a camera makes is far smaller. */
const MAX_BYTES = 60_000_000;

/** Why a file is no photo that can be kept, in words. */
class PhotoProblem extends Error {
  override name = "PhotoProblem";
}

/** A photo made smaller, the way up that it was taken. */
async function smaller(file: Blob): Promise<Blob> {
  if (file.size > MAX_BYTES) throw new PhotoProblem("This file is too large for a photo. Take another one.");
  const picture = await createImageBitmap(file).catch(() => {
    throw new PhotoProblem("This file can't be read as a photo. Take a JPEG, PNG or WebP picture.");
  });
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(picture.width * scale)),
    Math.max(1, Math.round(picture.height * scale)),
  );
  canvas.getContext("2d")!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.convertToBlob({ type: "image/jpeg", quality: QUALITY });
}

/** Keeps a photo, made smaller. @returns its id, for the record that shows it */
export async function keepPhoto(file: Blob, of: Pick<KeptPhoto, "vehicle" | "job">): Promise<string> {
  const photo = await smaller(file);
  const id = newId();
  await photos.set(id, { id, ...of, at: nowIso(), photo } satisfies KeptPhoto);
  return id;
}

/** A photo, or null where it is not on this device. */
export async function readPhoto(id: string): Promise<KeptPhoto | null> {
  const raw = await photos.get(id);
  await rulesReady();
  const held = holds(keptRule, raw);
  return "value" in held ? held.value : null;
}

export const dropPhoto = (id: string): Promise<void> => photos.remove(id);

/** Throws away the photos of a job, or of a vehicle with all its jobs. */
export const dropPhotos = (of: Partial<Pick<KeptPhoto, "job" | "vehicle">>): Promise<void> =>
  inTurn("photos", async () => {
    const gone: string[] = [];
    await eachPhoto((k) => {
      if ((of.job && k.job === of.job) || (of.vehicle && k.vehicle === of.vehicle)) gone.push(k.id);
    });
    for (const id of gone) await photos.remove(id);
  });

/** Goes through all photos; one that is damaged is left out, and stays where it is. */
export async function eachPhoto(visit: (photo: KeptPhoto) => void): Promise<void> {
  await rulesReady();
  await photos.each((raw) => {
    const held = holds(keptRule, raw);
    if ("value" in held) visit(held.value);
  });
}
