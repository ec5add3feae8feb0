import type { Picture } from "@core/lamp/picture";
import type { FilmInfo, FilmProblem } from "./film-frames";
import type { Asked, Told } from "./film.worker";

const start = (): Worker => new Worker(new URL("./film.worker.ts", import.meta.url), { type: "module" });

let spare: Worker | null = null;

/** Starts the worker that decodes before a film is there: it takes a while to load. */
export function readyToRead(): void {
  spare ??= start();
}

/**
 * Goes through the pictures of a film that a worker of its own decodes.
 * @param each is shown one picture after the other; its planes are only valid until it returns, with whether to go on
 * @returns what was wrong, or null
 */
export function readAhead(
  film: File,
  opened: (film: FilmInfo) => void,
  each: (picture: Picture) => boolean,
): Promise<FilmProblem | null> {
  const worker = spare ?? start();
  spare = null;
  const ask = (asked: Asked, transfer: Transferable[] = []) => worker.postMessage(asked, { transfer });
  return new Promise<FilmProblem | null>((done, failed) => {
    worker.onerror = (event) => failed(new Error(event.message));
    worker.onmessage = ({ data }: MessageEvent<Told>) => {
      if (data.kind === "opened") return opened(data.film);
      if (data.kind === "ended") return done(data.problem);
      if (data.kind === "unreadable") return done("cannot-decode");
      for (const picture of data.pictures) if (!each(picture)) return done(null);
      const buffers = data.pictures.map((p) => p.y.buffer);
      ask(buffers, buffers as Transferable[]);
    };
    ask(film);
  }).finally(() => worker.terminate());
}
