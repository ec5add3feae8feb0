import { rulesReady } from "@core/schema/rule";
import { box } from "./box";

/** Makes that are on this device: made here, or brought in from a file. By id, as they were stored. */
export const ownBox = box("klinko-packs");

/** As they were read last; the same map until they are read again. */
let raw: ReadonlyMap<string, unknown> = new Map();

export async function loadOwnPacks(): Promise<void> {
  const found = new Map<string, unknown>();
  await ownBox.each((value, key) => void found.set(key, value));
  if (found.size) await rulesReady();
  raw = found;
}

export const rawPacks = (): ReadonlyMap<string, unknown> => raw;

/** What a model of an own make is called, or null; asked without checking the whole. */
export function ownModelName(pack: string, variant: string): string | null {
  const { make, variants } = (raw.get(pack) ?? {}) as { make?: unknown; variants?: unknown };
  if (typeof make !== "string" || !Array.isArray(variants)) return null;
  const model = (variants as ({ id?: unknown; model?: unknown } | null)[]).find((v) => v?.id === variant)?.model;
  if (typeof model !== "string") return null;
  return model.toLowerCase().startsWith(make.toLowerCase()) ? model : `${make} ${model}`;
}
