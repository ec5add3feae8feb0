import { openDoc, type Locked } from "@core/record/open";
import type { Doc, Job, Vehicle } from "@core/record/types";
import { rulesReady } from "@core/schema/rule";
import { boxes, ready, type Kind } from "./boxes";
import { changeValue, readValue } from "./values";

/** Records as they are opened: each checked, and what cannot be used here remembered, left as it is. */
export const keyIn = (doc: Doc): string => (doc.kind === "reading" ? `${doc.job}/${doc.id}` : doc.id);
export const isThere = (raw: unknown): boolean => raw !== null && raw !== undefined;

/** Records that were met and cannot be used here: the garage names them, and offers each as a file. */
const LOCKED = "locked";
let remembering: Promise<unknown> = Promise.resolve();
const remember = ({ key }: Locked): void => {
  remembering = changeValue(LOCKED, (keys) => [
    ...new Set([...(Array.isArray(keys) ? (keys as string[]) : []), key]),
  ]).catch(() => undefined);
};

export async function stillLocked(): Promise<Locked[]> {
  await remembering;
  const keys = await readValue(LOCKED);
  if (!Array.isArray(keys)) return [];
  const found: Locked[] = [];
  for (const key of keys as string[]) {
    const [kind, ...rest] = key.split("/");
    if (!(kind in boxes)) continue;
    const raw = await boxes[kind as Kind].get(rest.join("/"));
    const got = isThere(raw) ? openDoc(key, raw) : null;
    if (got && "locked" in got) found.push(got.locked);
  }
  if (found.length < keys.length) await changeValue(LOCKED, () => found.map((l) => l.key));
  return found;
}

/** As {@link openDoc}; what is locked is remembered. */
export function openAt(kind: Kind, key: string, raw: unknown): Doc | null {
  const got = openDoc(`${kind}/${key}`, raw);
  if ("doc" in got) return got.doc;
  remember(got.locked);
  return null;
}

async function read<D extends Doc>(kind: D["kind"], key: string, what: string): Promise<D> {
  await ready();
  const raw = await boxes[kind].get(key);
  if (!isThere(raw)) throw new Response(`There is no ${what} "${key}" on this device.`, { status: 404 });
  const opened = openDoc(`${kind}/${key}`, raw);
  if ("locked" in opened) {
    remember(opened.locked);
    throw new Response(`${opened.locked.message} You can save it as a file from the garage.`, { status: 409 });
  }
  return opened.doc as D;
}

export const readVehicle = (id: string) => read<Vehicle>("vehicle", id, "vehicle");
export const readJob = (id: string) => read<Job>("job", id, "job");

/** Those of these keys that are there and can be opened. */
export async function opened<D extends Doc>(kind: D["kind"], keys: readonly string[]): Promise<D[]> {
  const raw = await Promise.all(keys.map((key) => boxes[kind].get(key)));
  await rulesReady();
  return raw.flatMap((value, i) => {
    if (!isThere(value)) return [];
    const doc = openAt(kind, keys[i], value);
    return doc ? [doc as D] : [];
  });
}
