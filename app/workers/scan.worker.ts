import { expose } from "comlink";
import jsQR from "jsqr";
import { withFrame, wholeOf, type Carried } from "@core/carry/frames";
import { unpacked } from "~/store/packed";

let so: Carried | null = null;

export interface Scanned {
  /** Which parts have been read, in order. */
  seen: boolean[];
  /** All of it, once it was read. */
  file: Blob | null;
  /** All was read, and it is no file that can be unpacked. */
  broken: boolean;
}

const api = {
  /** One picture of the camera. */
  look: async (picture: ImageBitmap): Promise<Scanned> => {
    const canvas = new OffscreenCanvas(picture.width, picture.height);
    const drawing = canvas.getContext("2d", { willReadFrequently: true })!;
    drawing.drawImage(picture, 0, 0);
    picture.close();
    const { data, width, height } = drawing.getImageData(0, 0, canvas.width, canvas.height);
    const code = jsQR(data, width, height, { inversionAttempts: "dontInvert" });
    if (code) so = withFrame(so, Uint8Array.from(code.binaryData));
    const bytes = so && wholeOf(so);
    const file = bytes && (await unpacked(bytes));
    return { seen: so?.parts.map((p) => p !== null) ?? [], file, broken: Boolean(bytes && !file) };
  },
};

export type ScanApi = typeof api;
expose(api);
