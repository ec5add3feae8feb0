import { proxy } from "comlink";
import type { PhotoStep } from "@core/table/photo/read";
import { live } from "./live";
import type { PhotoApi, PhotoRead } from "./photo.worker";

/** A page takes seconds; a slow phone gets its time, ms. */
const ANSWERS_MS = 180_000;

/** The reading of one picture: it can be called off at any time. */
export interface PhotoReading {
  done: Promise<PhotoRead>;
  cancel: () => void;
}

/** Reads the page on a picture, in a worker of its own that goes when it is done. Nothing of it is loaded before. */
export function readPhoto(file: File, tell: (step: PhotoStep, share: number) => void): PhotoReading {
  const worker = new Worker(new URL("./photo.worker.ts", import.meta.url), { type: "module" });
  const { api, end } = live<PhotoApi>(worker, ANSWERS_MS);
  return { done: api.readPhoto(file, proxy(tell)).finally(end), cancel: end };
}
