import dataUrl from "@tesseract.js-data/eng/4.0.0_best_int/eng.traineddata.gz?url";
import { expose } from "comlink";
import { createWorker, OEM, PSM, type Worker as Reader } from "tesseract.js";
import coreUrl from "tesseract.js-core/tesseract-core-simd-lstm.wasm.js?url";
import workerUrl from "tesseract.js/dist/worker.min.js?url";
import { grayOf, rgbaOf, type Gray } from "@core/table/photo/gray";
import type { Word } from "@core/table/photo/layout";
import { readPhoto, type PageReader, type PhotoPage, type PhotoStep } from "@core/table/photo/read";

/** Wider pictures are made smaller as they are opened: more than this is not needed, and fills the memory. */
const WIDEST = 3600;

/** What was read off a picture, with the page as it was read to show each row's own part of it. */
export type PhotoRead = Omit<PhotoPage, "page"> & { page: Blob };

const api = {
  /** Opens a picture and reads the page on it. @throws where it is no picture */
  readPhoto: async (file: Blob, tell: (step: PhotoStep, share: number) => void): Promise<PhotoRead> => {
    const picture = await opened(file);
    const reader = await started();
    try {
      const { page, ...read } = await readPhoto(picture, readerOf(reader), tell);
      return { ...read, page: await pngOf(page) };
    } finally {
      await reader.terminate();
    }
  },
};

export type PhotoApi = typeof api;
expose(api);

async function opened(file: Blob): Promise<Gray> {
  const whole = await createImageBitmap(file);
  const times = Math.min(1, WIDEST / Math.max(whole.width, whole.height));
  const [w, h] = [Math.max(1, Math.round(whole.width * times)), Math.max(1, Math.round(whole.height * times))];
  const canvas = new OffscreenCanvas(w, h);
  const to = canvas.getContext("2d", { willReadFrequently: true })!;
  // What is see-through is paper.
  to.fillStyle = "#fff";
  to.fillRect(0, 0, w, h);
  to.imageSmoothingQuality = "high";
  to.drawImage(whole, 0, 0, w, h);
  whole.close();
  return grayOf(w, h, to.getImageData(0, 0, w, h).data);
}

async function started(): Promise<Reader> {
  // From this server alone: the reader would look elsewhere for what it is not given.
  const at = (url: string) => new URL(url, self.location.origin).href;
  return createWorker("eng", OEM.LSTM_ONLY, {
    // It adds a file's name, which the built file does not have: behind a # no server sees it.
    langPath: `${at(dataUrl)}#`,
    workerPath: at(workerUrl),
    corePath: at(coreUrl),
    workerBlobURL: false,
    cacheMethod: "none",
    gzip: true,
  });
}

/** A picture of grays as a file that the reader opens (portable graymap). */
function fileOf({ width, height, y }: Gray): Blob {
  return new Blob([`P5\n${width} ${height}\n255\n`, Uint8Array.from(y)]);
}

async function pngOf(page: Gray): Promise<Blob> {
  const canvas = new OffscreenCanvas(page.width, page.height);
  canvas.getContext("2d")!.putImageData(new ImageData(rgbaOf(page), page.width, page.height), 0, 0);
  return canvas.convertToBlob({ type: "image/png" });
}

function readerOf(reader: Reader): PageReader {
  let mode: "page" | "digits" | null = null;
  const as = async (wanted: "page" | "digits") => {
    if (mode === wanted) return;
    mode = wanted;
    await reader.setParameters({
      tessedit_pageseg_mode: wanted === "page" ? PSM.SINGLE_BLOCK : PSM.SINGLE_LINE,
      tessedit_char_whitelist: wanted === "page" ? "" : "0123456789/-,",
      preserve_interword_spaces: "1",
    });
  };
  return {
    words: async (page) => {
      await as("page");
      const { data } = await reader.recognize(fileOf(page), {}, { text: false, blocks: true });
      const lines = (data.blocks ?? []).flatMap((b) => b.paragraphs.flatMap((p) => p.lines));
      return lines.flatMap((l) =>
        l.words.map(({ text, bbox, confidence }): Word => ({ text, ...bbox, sure: confidence / 100 })),
      );
    },
    digits: async (cell) => {
      await as("digits");
      const { data } = await reader.recognize(fileOf(cell));
      return { text: data.text.trim(), sure: data.confidence / 100 };
    },
  };
}
