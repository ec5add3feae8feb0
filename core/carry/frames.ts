/**
 * A file as a row of pictures that one screen shows and another device's camera reads, in any order and however often each comes. A
 * picture is bytes: two of a mark, two that name the transfer, the number of this part and of all (big-endian, two bytes each), then the part.
 */
const MARK = [0x4b, 0x31] as const;
const HEAD = 8;

/** Bytes of a part. With the head a code of about 80 cells along a side: a phone reads it off a laptop at arm's length. */
export const PART_BYTES = 560;
/** Nobody holds a phone still for longer: some five minutes. */
export const MOST_PARTS = 1200;

/** Names a transfer, so that parts of two are not mixed: 16 bits of the FNV-1a hash of the file. */
function nameOf(bytes: Uint8Array): number {
  let hash = 0x811c9dc5;
  for (const b of bytes) hash = Math.imul(hash ^ b, 0x01000193) >>> 0;
  return (hash >>> 16) ^ (hash & 0xffff);
}

/**
 * The pictures of a file, in order.
 * @returns null where it is too large to be carried so
 */
export function framesOf(bytes: Uint8Array): Uint8Array[] | null {
  const of = Math.max(1, Math.ceil(bytes.length / PART_BYTES));
  if (of > MOST_PARTS) return null;
  const name = nameOf(bytes);
  return Array.from({ length: of }, (_, i) => {
    const part = bytes.subarray(i * PART_BYTES, (i + 1) * PART_BYTES);
    const frame = new Uint8Array(HEAD + part.length);
    frame.set([...MARK, name >> 8, name & 255, i >> 8, i & 255, of >> 8, of & 255]);
    frame.set(part, HEAD);
    return frame;
  });
}

/** What has been read of a file so far. */
export interface Carried {
  name: number;
  /** The parts by their numbers; null where one has not been read yet. */
  parts: readonly (Uint8Array | null)[];
}

/**
 * What has been read, with one picture more. Pictures of anything else change nothing; those of another transfer begin it anew.
 * @param so what was read before; null at the beginning
 */
export function withFrame(so: Carried | null, frame: Uint8Array): Carried | null {
  if (frame.length < HEAD || frame[0] !== MARK[0] || frame[1] !== MARK[1]) return so;
  const [name, i, of] = [2, 4, 6].map((at) => frame[at] * 256 + frame[at + 1]);
  const part = frame.slice(HEAD);
  const fits =
    of > 0 && of <= MOST_PARTS && i < of && (i === of - 1 ? part.length <= PART_BYTES : part.length === PART_BYTES);
  if (!fits) return so;
  const own = so?.name === name && so.parts.length === of ? so : { name, parts: new Array<null>(of).fill(null) };
  if (own.parts[i]) return own;
  return { name, parts: own.parts.with(i, part) };
}

/** The file, once all of it was read and it is what was shown; null before, and where parts of two were mixed. */
export function wholeOf({ name, parts }: Carried): Uint8Array | null {
  if (parts.some((p) => p === null)) return null;
  const bytes = new Uint8Array(parts.reduce((n, p) => n + p!.length, 0));
  let at = 0;
  for (const p of parts) {
    bytes.set(p!, at);
    at += p!.length;
  }
  return nameOf(bytes) === name ? bytes : null;
}
