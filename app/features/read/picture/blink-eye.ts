import { TWO_STATES } from "@core/lamp/lamp";
import { blinksSeen, type BlinksSeen } from "@core/procedure/blinks";
import { clock } from "~/store/clock";
import type { PictureState, PictureWatch, Watcher } from "./picture-watch";

/** So late a picture is looked at, at most, ms. */
const LATE_MS = 1500;

/** Counts the blinks of the one lamp that a camera looks at; it need not say anything else. */
export class BlinkEye implements Watcher {
  home = null;
  state: Watcher["state"] = { phase: "ready" };
  /** Wall clock of the first picture, ms since 1970. */
  private first: number | null = null;

  beginPicture: Watcher["beginPicture"] = () => {
    this.state = { phase: "watching" };
    this.first = null;
  };
  /** All is judged together, a moment later. */
  seePicture: Watcher["seePicture"] = () => undefined;
  seeChange: Watcher["seeChange"] = () => undefined;
  endPicture: Watcher["endPicture"] = () => {
    this.state = { phase: "stopped" };
  };

  /** Notes when pictures began to come. */
  look({ state: { seen } }: Pick<PictureWatch, "state">): void {
    if (seen) this.first ??= clock.now() - seen.at;
  }

  /** What was seen since the key went on. @param began wall clock of that, ms; null where no camera looks */
  since(began: number, { seen, chosen }: Pick<PictureState, "seen" | "chosen">): BlinksSeen | null {
    if (this.state.phase !== "watching") return null;
    const now = clock.now();
    const lamp = seen?.lamps.find((l) => l.id === chosen[0]);
    const pictures = lamp ?? seen?.still;
    const passed = Math.max(0, now - began);
    if (this.first === null || !pictures) return { flashes: [], unseen: [[0, passed]], until: passed };
    const t = Array.from(pictures.t);
    // Of a lamp that does not change nothing is told.
    const blinks = lamp && lamp.apart >= TWO_STATES;
    // Pictures come in a moment after they were taken.
    const until = Math.max(t.at(-1) ?? 0, now - this.first - LATE_MS, began - this.first);
    return blinksSeen({ t, y: blinks ? Array.from(lamp.y) : t.map(() => 0) }, began - this.first, until);
  }
}
