import { asDigits } from "./segments";

/** What a typed line of a display says. */
export type DashLine =
  | { kind: "none" }
  | { kind: "code"; system: string; code: string }
  /** A digit was not clear, or the line has not the form of a code. */
  | { kind: "unclear"; system: string | null; text: string; digits: number };

/**
 * Reads a line as somebody typed it: a letter that names the system, then a number.
 * @param systems the letters that this display uses; an empty one is the system without a letter
 */
export function readLine(
  typed: string,
  systems: readonly { system: string; prefix: string; digits: number }[],
  none: string,
): DashLine {
  const text = typed.trim();
  const dashes = /^[-–—_]+$/;
  if (
    text === none ||
    dashes.test(text) ||
    systems.some((s) => s.prefix && text.startsWith(s.prefix) && dashes.test(text.slice(s.prefix.length).trim()))
  )
    return { kind: "none" };
  // The longest letter first: the system without one takes what is left.
  const bySize = [...systems].sort((a, b) => b.prefix.length - a.prefix.length);
  const wanted = bySize.find((s) => s.prefix === "" || (text.startsWith(s.prefix) && text.length > s.prefix.length));
  if (!wanted) return { kind: "unclear", system: null, text, digits: 2 };
  const number = asDigits(text.slice(wanted.prefix.length).trim());
  if (/^\d+$/.test(number) && number.length <= wanted.digits && Number(number) > 0)
    return { kind: "code", system: wanted.system, code: String(Number(number)) };
  return { kind: "unclear", system: wanted.system, text: number, digits: wanted.digits };
}
