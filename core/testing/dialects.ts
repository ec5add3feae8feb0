import type { Dialect } from "../flash/dialect/dialect";
import dialects from "./dialects.json";

/** One dialect of each kind that the format knows, for tests. */
export const DIALECTS = dialects as unknown as readonly Dialect[];

export function dialect(id: string): Dialect {
  const found = DIALECTS.find((d) => d.id === id);
  if (!found) throw new Error(`no test dialect "${id}"`);
  return found;
}
