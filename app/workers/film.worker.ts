import type { Picture } from "@core/lamp/picture";
import { readFrames, type FilmInfo, type FilmProblem } from "./film-frames";
import { pictureOf } from "./planes";

/**
 * Decodes a film for whoever looks at its pictures, and stays a little ahead: a decoder that shares its thread with what is done to
 * the pictures stands still meanwhile. Pictures go in batches; their buffers come back to be filled again.
 */
export type Told =
  | { kind: "opened"; film: FilmInfo }
  | { kind: "pictures"; pictures: Picture[] }
  /** A picture whose pixels cannot be read here. */
  | { kind: "unreadable" }
  | { kind: "ended"; problem: FilmProblem | null };

/** What is sent to it: the film, then buffers that are free again. */
export type Asked = File | ArrayBufferLike[];

/** Pictures in a batch, and bytes at most: large ones go one by one. */
const BATCH = 8;
const BATCH_BYTES = 6e6;
/** Batches that are decoded and not looked at yet. */
const AHEAD = 2;

const free: ArrayBufferLike[] = [];
let made = 0;
let wake: (() => void) | null = null;

const tell = (told: Told, transfer: Transferable[] = []) => postMessage(told, { transfer });

/** A buffer of a size, as soon as one is free. */
async function room(bytes: number): Promise<Uint8Array<ArrayBuffer>> {
  const most = AHEAD * Math.max(1, Math.min(BATCH, Math.floor(BATCH_BYTES / bytes)));
  while (!free.length && made >= most) await new Promise<void>((done) => (wake = done));
  const buffer = free.pop();
  if (!buffer) made++;
  return new Uint8Array((buffer && buffer.byteLength >= bytes ? buffer : new ArrayBuffer(bytes)) as ArrayBuffer);
}

async function read(film: File): Promise<void> {
  let batch: Picture[] = [];
  let bytes = 0;
  const send = () => {
    const buffers = new Set(batch.flatMap((p) => [p.y.buffer, p.u.buffer, p.v.buffer]));
    if (batch.length) tell({ kind: "pictures", pictures: batch }, [...buffers] as Transferable[]);
    [batch, bytes] = [[], 0];
  };
  const problem = await readFrames(
    film,
    (info) => tell({ kind: "opened", film: info }),
    async (sample) => {
      const { width, height } = sample.visibleRect;
      const size = sample.allocationSize();
      const picture = await pictureOf(sample, { width, height }, sample.timestamp * 1000, await room(size));
      if (!picture) {
        tell({ kind: "unreadable" });
        return false;
      }
      batch.push(picture);
      bytes += size;
      if (batch.length >= BATCH || bytes + size > BATCH_BYTES) send();
      return true;
    },
  );
  send();
  tell({ kind: "ended", problem });
}

onmessage = ({ data }: MessageEvent<Asked>) => {
  if (data instanceof File) void read(data);
  else {
    free.push(...data);
    wake?.();
    wake = null;
  }
};
