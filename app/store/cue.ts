import type { Settings } from "./settings";

type Cue = "up" | "down" | "end";

const TONES: Record<Cue, { hertz: number; seconds: number }> = {
  up: { hertz: 880, seconds: 0.12 },
  down: { hertz: 520, seconds: 0.12 },
  end: { hertz: 660, seconds: 0.5 },
};
const RATE = 22_050;
const sounds = new Map<Cue, string>();

/** A short cue for ear and hand, as far as the settings allow: `up` to do, `down` to undo, `end` when a time is over. */
export function cue(kind: Cue, { sound, vibration }: Pick<Settings, "sound" | "vibration">): void {
  // Before the first touch the browser refuses, and complains.
  const touched = navigator.userActivation?.hasBeenActive ?? true;
  if (vibration && touched && "vibrate" in navigator) navigator.vibrate(kind === "end" ? [120, 60, 120] : 60);
  if (!sound) return;
  const url = sounds.get(kind) ?? URL.createObjectURL(tone(kind));
  sounds.set(kind, url);
  // An audio element starts beside the page; opening an audio context holds it up for a tenth of a second and more.
  void new Audio(url).play().catch(() => undefined);
}

/** A sine that dies away, as a WAV file: 16 bit, one channel. */
function tone(kind: Cue): Blob {
  const { hertz, seconds } = TONES[kind];
  const n = Math.round(RATE * seconds);
  const view = new DataView(new ArrayBuffer(44 + 2 * n));
  const text = (at: number, s: string) => [...s].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  text(0, "RIFF");
  view.setUint32(4, 36 + 2 * n, true);
  text(8, "WAVEfmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, RATE, true);
  view.setUint32(28, 2 * RATE, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  text(36, "data");
  view.setUint32(40, 2 * n, true);
  for (let i = 0; i < n; i++) {
    const loud = 0.2 * Math.exp((-5 * i) / n) * Math.min(1, i / 60);
    view.setInt16(44 + 2 * i, Math.round(32767 * loud * Math.sin((2 * Math.PI * hertz * i) / RATE)), true);
  }
  return new Blob([view.buffer], { type: "audio/wav" });
}
