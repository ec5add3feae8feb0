import { SHARED, SHARED_TO } from "~/offline/names";

interface LaunchQueue {
  setConsumer: (take: (launched: { files?: readonly { getFile: () => Promise<File> }[] }) => void) => void;
}

/** A file that another program handed over: opened with Klinko, or shared with it. Each is told once. */
export async function takeHandedOver(take: (file: File) => void): Promise<void> {
  (globalThis as { launchQueue?: LaunchQueue }).launchQueue?.setConsumer(({ files }) => {
    void files?.[0]?.getFile().then(take, () => undefined);
  });
  if (!("caches" in globalThis)) return;
  const waiting = await caches.open(SHARED);
  const shared = await waiting.match(SHARED_TO);
  if (!shared) return;
  await waiting.delete(SHARED_TO);
  take(new File([await shared.blob()], "shared file"));
}
