import { pictureOfRgba, type Picture } from "@core/lamp/picture";

/** What gives its planes as WebCodecs does: a frame of a camera, or of a film. */
interface Frame {
  format: string | null;
  codedWidth: number;
  codedHeight: number;
  allocationSize: () => number;
  copyTo: (to: Uint8Array<ArrayBuffer>) => Promise<{ offset: number; stride: number }[]>;
}

/** Turns frames into pictures, in a buffer that is used again for the next one. */
export class Planes {
  private buffer = new Uint8Array(0);

  /** @returns null for a pixel format that cannot be read here */
  async of(frame: Frame, visible: { width: number; height: number }, t: number): Promise<Picture | null> {
    const { format } = frame;
    if (!format) return null;
    const size = frame.allocationSize();
    if (this.buffer.length < size) this.buffer = new Uint8Array(size);
    const planes = await frame.copyTo(this.buffer);
    const { width, height } = visible;
    const from = (k: number) => this.buffer.subarray(planes[k].offset);
    const luma = { t, width, height, y: from(0), yStride: planes[0].stride };
    if (format === "I420" || format === "I420A")
      return { ...luma, u: from(1), v: from(2), cStride: planes[1].stride, cStep: 1 };
    if (format === "NV12") {
      const uv = from(1);
      return { ...luma, u: uv, v: uv.subarray(1), cStride: planes[1].stride, cStep: 2 };
    }
    if (format.startsWith("RGB") || format.startsWith("BGR"))
      return planes[0].stride === 4 * width
        ? pictureOfRgba(t, width, height, from(0), format.startsWith("RGB") ? "rgba" : "bgra")
        : null;
    return null;
  }
}
