/** Pictures and films that a file of records may hold, and how each begins. */
const KINDS: readonly { type: RegExp; begins: (b: Uint8Array) => boolean }[] = [
  { type: /^image\/jpeg$/, begins: (b) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff },
  { type: /^image\/png$/, begins: (b) => String.fromCharCode(...b.subarray(1, 4)) === "PNG" },
  { type: /^image\/webp$/, begins: (b) => String.fromCharCode(...b.subarray(8, 12)) === "WEBP" },
  {
    type: /^video\/(webm|x-matroska)/,
    begins: (b) => b[0] === 0x1a && b[1] === 0x45 && b[2] === 0xdf && b[3] === 0xa3,
  },
  { type: /^video\/mp4/, begins: (b) => String.fromCharCode(...b.subarray(4, 8)) === "ftyp" },
];

/** A picture or film as text. */
export async function dataUrlOf(blob: Blob): Promise<string> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  const pieces: string[] = [];
  // Pieces of a multiple of three, so that none is filled up but the last; short enough to be spread.
  for (let i = 0; i < bytes.length; i += 24_576)
    pieces.push(btoa(String.fromCharCode(...bytes.subarray(i, i + 24_576))));
  return `data:${(blob.type || "application/octet-stream").replaceAll(" ", "")};base64,${pieces.join("")}`;
}

/** The picture or film of a text; null where it is not what it says it is. */
export function blobOf(dataUrl: string, kind: "image" | "video"): Blob | null {
  const at = dataUrl.indexOf(";base64,");
  const type = dataUrl.slice("data:".length, at);
  const own = KINDS.find((k) => k.type.test(type));
  if (at < 0 || !own || !type.startsWith(`${kind}/`)) return null;
  let text: string;
  try {
    text = atob(dataUrl.slice(at + ";base64,".length));
  } catch {
    return null;
  }
  const bytes = Uint8Array.from(text, (c) => c.charCodeAt(0));
  return own.begins(bytes) ? new Blob([bytes], { type }) : null;
}
