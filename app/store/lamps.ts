import type { Dialect } from "@core/flash/dialect/dialect";
import { readLamps, withLamp, withoutLamp, type KeptLamp } from "@core/record/lamp";
import { nowIso } from "./clock";
import { newId } from "./records";
import { changeValue, readValue } from "./values";

/** Ways of blinking that were learned on this device and kept under a name. */
const KEY = "lamps";

export const keptLamps = async (): Promise<KeptLamp[]> => readLamps(await readValue(KEY));

/** Keeps how a lamp talks; one of the same name is replaced. */
export async function keepLamp(name: string, dialect: Dialect): Promise<KeptLamp> {
  const id = `lamp-${newId()}`;
  const lamp = { id, name: name.trim(), at: nowIso(), dialect: { ...dialect, id, title: name.trim() } };
  await changeValue(KEY, (stored) => withLamp(stored, lamp));
  return lamp;
}

export const forgetLamp = (id: string): Promise<unknown> => changeValue(KEY, (stored) => withoutLamp(stored, id));
