import type { Press, Tap } from "../../flash/seen/evidence";
import type { Mark } from "../mark";
import type { InputKind } from "./input";
import { TWO_KEYS } from "./keys";
import { ONE_KEY } from "./tap";

/** Where a button shows one code a press: the button, and each flash that follows. */
export const press: InputKind = {
  known: "seen",
  said: "press by press",
  short: "press by press",
  lamp: {
    label: "Button and flashes",
    start: "Let the button go, then tap with every flash.",
    by: "hand",
    reads: ({ advance }) => advance === "button",
    anyLamp: false,
    lengths: false,
    pad: ({ digits }) => [
      { code: "KeyB", kind: "p", label: "Button let go", keyName: "B" },
      ...(digits.style === "long-short" ? TWO_KEYS : ONE_KEY),
    ],
    evidence: ({ marks }, until) => ({ mode: "button", presses: pressesOf(marks, until) }),
  },
};

/** Flashes after each press of the reader's button. Those before the first press belong to none. */
export function pressesOf(marks: readonly Mark[], until: number): Press[] {
  const presses: (Press & { taps: Tap[] })[] = [];
  for (const m of [...marks].sort((a, b) => a.t - b.t))
    if (m.kind === "p") presses.push({ press: m.t, taps: [], until: Math.max(until, m.t) });
    else presses.at(-1)?.taps.push(m.kind ? [m.t, m.kind] : m.t);
  const last = marks.reduce((t, m) => Math.max(t, m.t), until);
  return presses.map((p, i) => ({ ...p, until: presses[i + 1]?.press ?? last }));
}
