/** What a screen can show in a few minutes is small: it is packed first. */
export async function packed(file: Blob): Promise<Uint8Array> {
  const stream = file.stream().pipeThrough(new CompressionStream("deflate-raw"));
  return new Uint8Array(await new Response(stream).arrayBuffer());
}

/** A file that unpacks to more was made to do harm. */
const MOST_BYTES = 50_000_000;

/** @returns null where it is not what was packed, or more than anybody packs */
export async function unpacked(bytes: Uint8Array): Promise<Blob | null> {
  const stream = new Blob([bytes as Uint8Array<ArrayBuffer>])
    .stream()
    .pipeThrough(new DecompressionStream("deflate-raw"));
  const reader = stream.getReader();
  const parts: Uint8Array<ArrayBuffer>[] = [];
  let size = 0;
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return new Blob(parts, { type: "application/json" });
      size += value.length;
      if (size > MOST_BYTES) return null;
      parts.push(value);
    }
  } catch {
    return null;
  } finally {
    void reader.cancel().catch(() => undefined);
  }
}
