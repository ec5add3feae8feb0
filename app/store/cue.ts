import type { Settings } from "./settings";

let audio: AudioContext | null = null;

/** A short cue for ear and hand, as far as the settings allow: `up` to do, `down` to undo, `end` when a time is over. */
export function cue(kind: "up" | "down" | "end", { sound, vibration }: Pick<Settings, "sound" | "vibration">): void {
  if (vibration && "vibrate" in navigator) navigator.vibrate(kind === "end" ? [120, 60, 120] : 60);
  if (!sound) return;
  audio ??= new AudioContext();
  const from = audio.currentTime;
  const tone = audio.createOscillator();
  const gain = audio.createGain();
  tone.frequency.value = { up: 880, down: 520, end: 660 }[kind];
  gain.gain.setValueAtTime(0.2, from);
  gain.gain.exponentialRampToValueAtTime(0.001, from + (kind === "end" ? 0.5 : 0.12));
  tone.connect(gain).connect(audio.destination);
  tone.start(from);
  tone.stop(from + 0.6);
}
