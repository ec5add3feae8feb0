import { pictureOfRgba, type Picture } from "@core/lamp/picture";

/** What gives its planes as WebCodecs does: a frame of a camera, or of a film. */
export interface Frame {
  format: string | null;
  allocationSize: () => number;
  copyTo: (to: Uint8Array<ArrayBuffer>) => Promise<{ offset: number; stride: number }[]>;
}

/**
 * The picture of a frame.
 * @param visible its size without what a codec pads it with
 * @param buffer at least as large as the frame's allocation; the picture's planes lie in it
 * @returns null for a pixel format that cannot be read here
 */
export async function pictureOf(
  frame: Frame,
  { width, height }: { width: number; height: number },
  t: number,
  buffer: Uint8Array<ArrayBuffer>,
): Promise<Picture | null> {
  const { format } = frame;
  if (!format) return null;
  const planes = await frame.copyTo(buffer);
  const from = (k: number) => buffer.subarray(planes[k].offset);
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
