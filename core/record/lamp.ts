import { dialectCheck } from "../flash/dialect/dialect-check";
import { holds, object, time, word, type Of } from "../schema/rule";

/** Longest name a person may give to a way of blinking, and how many are kept. */
export const LAMP_NAME_MAX = 60;
const MOST_LAMPS = 100;

const keptLamp = object({ id: word(60), name: word(LAMP_NAME_MAX), at: time, dialect: dialectCheck });
/** How a lamp talks that no pack knows, under the name that its owner gave it. */
export type KeptLamp = Of<typeof keptLamp>;

/** What is stored of them, those left out that do not hold. */
export function readLamps(stored: unknown): KeptLamp[] {
  if (!Array.isArray(stored)) return [];
  return stored.flatMap((one) => {
    const held = holds(keptLamp, one);
    return "value" in held ? [held.value] : [];
  });
}

/**
 * What is stored, with one more, or another under the same name in its place. What does not hold is left as it is.
 * @throws RangeError where the lamp itself does not hold, or there are too many
 */
export function withLamp(stored: unknown, lamp: KeptLamp): unknown[] {
  const held = holds(keptLamp, { ...lamp, name: lamp.name.trim() });
  if ("faults" in held) throw new RangeError(held.faults[0].message);
  const others = listed(stored).filter((l) => l?.name !== held.value.name);
  if (others.length >= MOST_LAMPS) throw new RangeError(`more than ${MOST_LAMPS} lamps`);
  return [...others, held.value];
}

/** What is stored, without one. */
export const withoutLamp = (stored: unknown, id: string): unknown[] => listed(stored).filter((l) => l?.id !== id);

/** Whatever is stored, as rows that may hold anything. */
const listed = (stored: unknown): (Partial<KeptLamp> | null)[] =>
  Array.isArray(stored) ? (stored as (Partial<KeptLamp> | null)[]) : [];
