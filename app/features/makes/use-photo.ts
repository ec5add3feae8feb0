import { useEffect, useRef, useState } from "react";
import type { PhotoStep } from "@core/table/photo/read";
import { dropPage, keepPage, readPage } from "~/store/pages";
import { readPhoto, type PhotoReading } from "~/workers/photo";
import type { PhotoRead } from "~/workers/photo.worker";
import { NO_PICTURE } from "./page-file";

export type Photo =
  | { phase: "reading"; name: string; step: PhotoStep; share: number }
  | { phase: "done"; name: string; read: PhotoRead; page: ImageBitmap };

/**
 * The picture of a page that is being read, or was: one at a time. One that was read is there again after the page was closed.
 * @param make whose codes stand on it
 */
export function usePhoto(make: string, onProblem: (says: string | null) => void) {
  const [photo, setPhoto] = useState<Photo | null>(null);
  const running = useRef<PhotoReading | null>(null);
  /** Whoever opens or leaves a picture is not overtaken by one that comes late from the store. */
  const touched = useRef(false);
  const stop = () => {
    touched.current = true;
    running.current?.cancel();
    running.current = null;
    setPhoto(null);
    void dropPage(make);
  };
  useEffect(() => {
    let gone = false;
    touched.current = false;
    void (async () => {
      const kept = await readPage(make).catch(() => null);
      const page = kept && (await createImageBitmap(kept.read.page).catch(() => null));
      if (!page) return;
      if (gone || touched.current) return page.close();
      setPhoto({ phase: "done", ...kept, page });
    })();
    return () => {
      gone = true;
      running.current?.cancel();
    };
  }, [make]);
  // A picture of a page takes megabytes, and goes when it is no longer looked at.
  const page = photo?.phase === "done" ? photo.page : null;
  useEffect(() => () => page?.close(), [page]);
  const open = async (file: File) => {
    touched.current = true;
    running.current?.cancel();
    onProblem(null);
    const { name } = file;
    setPhoto({ phase: "reading", name, step: "prepare", share: 0 });
    const reading = readPhoto(file, (step, share) => {
      if (running.current === reading) setPhoto({ phase: "reading", name, step, share });
    });
    running.current = reading;
    try {
      const read = await reading.done;
      const page = await createImageBitmap(read.page);
      if (running.current !== reading) return page.close();
      running.current = null;
      setPhoto({ phase: "done", name, read, page });
      await keepPage(make, { name, read });
    } catch {
      // Called off, or another one was begun meanwhile.
      if (running.current !== reading) return;
      running.current = null;
      setPhoto(null);
      onProblem(NO_PICTURE);
    }
  };
  return { photo, open, stop };
}
