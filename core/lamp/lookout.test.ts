import { describe, expect, it } from "vitest";
import { readFilm } from "../flash/decode";
import { encode } from "../flash/dialect/encode";
import { blinksSeen } from "../procedure/blinks";
import { dialect } from "../testing/dialects";
import { drawFilm, type DrawnLamp, type Trouble } from "../testing/pictures";
import { adviceOf } from "./advice";
import { clearness, levelsOf } from "./lamp";
import { Lookout } from "./lookout";
import { boxOf, patchOf } from "./patch";
import { rasterOf } from "./picture";

const even = dialect("even-when-clear");
const SECONDS = 27;

const lamp = (codes: string[], x = 0.5, y = 0.55): DrawnLamp => ({
  x,
  y,
  edges: encode(even, { stored: codes }, SECONDS * 1000),
});

function watch(lamps: DrawnLamp[], trouble: Trouble, seed = 1, seconds = SECONDS): Lookout {
  const lookout = new Lookout(320, 180);
  for (const picture of drawFilm(lamps, seconds, seed, trouble)) lookout.see(picture);
  lookout.end();
  return lookout;
}

/** What the lamp at a place says. */
function said(lookout: Lookout, x: number, y: number) {
  const { eye } = lookout;
  const own = eye.lamps.find((l) => {
    const b = boxOf(l.patch, eye.raster);
    return x > b.x - 0.02 && x < b.x + b.w + 0.02 && y > b.y - 0.03 && y < b.y + b.h + 0.03;
  });
  if (!own) return null;
  return readFilm(even, { mode: "levels", levels: levelsOf(own)!, until: eye.last });
}

describe("Lookout", () => {
  const troubles: [string, Trouble][] = [
    ["a still camera", {}],
    ["a trembling camera and noise", { shake: 2, noise: 5 }],
    ["exposure steps", { noise: 3, steps: 0.2 }],
    ["hands that pass", { noise: 3, hands: 0.08 }],
    ["sun over a weak lamp", { noise: 4, sun: 90, strength: 0.45, shake: 1 }],
    ["a pulsed supply", { noise: 3, pulsed: 0.2 }],
  ];
  it.each(troubles)("finds the lamp among a red one, a needle and gauges, and reads it, with %s", (_, trouble) => {
    const lookout = watch([lamp(["24"])], trouble);
    const read = said(lookout, 0.5, 0.55);
    expect(read?.decoded.codes).toEqual(["24"]);
    expect(read!.decoded.confidence).toBeGreaterThan(0.9);
  });

  it("tells each flash once, at the time when it began", () => {
    const lookout = watch([lamp(["31"])], { noise: 4, shake: 1.5 }, 3);
    const truth = lamp(["31"])
      .edges.filter(([t, lit]) => lit && t > 300 && t < SECONDS * 1000 - 500)
      .map(([t]) => t);
    const marks = said(lookout, 0.5, 0.55)!.marks.filter((m) => m.p > 0.5);
    expect(truth.filter((t) => !marks.some((m) => Math.abs(m.t - t) < 150))).toEqual([]);
    expect(
      marks.filter((m) => m.t > 300 && m.t < SECONDS * 1000 - 500 && !truth.some((t) => Math.abs(m.t - t) < 150)),
    ).toEqual([]);
  });

  it("watches two lamps that answer together, each with its own list", () => {
    const lookout = watch([lamp(["12"], 0.5, 0.5), lamp(["43"], 0.5, 0.75)], { noise: 3, shake: 1 }, 5);
    expect(said(lookout, 0.5, 0.5)?.decoded.codes).toEqual(["12"]);
    expect(said(lookout, 0.5, 0.75)?.decoded.codes).toEqual(["43"]);
  });

  it("reads no code where none blinks: not from the needle, nor from hands and steps", () => {
    for (const trouble of [
      { shake: 2, noise: 5 },
      { hands: 0.1, steps: 0.1, noise: 4 },
    ]) {
      const { eye } = watch([], trouble, 7);
      for (const own of eye.lamps) {
        const { decoded } = readFilm(even, { mode: "levels", levels: levelsOf(own)!, until: eye.last });
        expect(decoded.codes.filter((c) => decoded.codeConfidence[c] >= 0.9)).toEqual([]);
      }
    }
  });

  it("reads the patch that a person drew, and nothing else", () => {
    const lookout = new Lookout(320, 180, [patchOf({ x: 0.47, y: 0.5, w: 0.06, h: 0.1 }, rasterOf(320, 180))]);
    for (const picture of drawFilm([lamp(["24"]), lamp(["43"], 0.5, 0.8)], SECONDS, 2, { noise: 3 }))
      lookout.see(picture);
    lookout.end();
    expect(lookout.eye.lamps).toHaveLength(1);
    expect(said(lookout, 0.5, 0.55)?.decoded.codes).toEqual(["24"]);
  });

  it("reads what a person draws while it is watched, in place of all that was found, from what is still held on", () => {
    const lookout = new Lookout(320, 180, [], true);
    const pictures = [...drawFilm([lamp(["24"]), lamp(["43"], 0.5, 0.8)], SECONDS, 2, { noise: 3 })];
    for (const picture of pictures.slice(0, 450)) lookout.see(picture);
    expect(said(lookout, 0.5, 0.55)).not.toBeNull();
    const { begun } = lookout.draw(patchOf({ x: 0.47, y: 0.75, w: 0.06, h: 0.1 }, rasterOf(320, 180)));
    expect(lookout.eye.lamps).toEqual(begun);
    for (const picture of pictures.slice(450)) expect(lookout.see(picture).begun).toEqual([]);
    lookout.end();
    expect(lookout.eye.lamps).toHaveLength(1);
    expect(said(lookout, 0.5, 0.55)).toBeNull();
    expect(said(lookout, 0.5, 0.8)?.decoded.codes).toEqual(["43"]);
  });

  it.each([0, 0.3, 1, 3])(
    "sees a lamp blink that had not changed for long before it was drawn, with noise %f",
    (noise) => {
      const blinks = Array.from({ length: 5 }, (_, i) => 27_000 + 700 * i);
      const edges = blinks.flatMap((t) => [[t, 0] as const, [t + 350, 1] as const]);
      const own: DrawnLamp = { x: 0.505, y: 0.556, edges: [[0, 1], ...edges] };
      for (const drawn of [1, 5, 13]) {
        const lookout = new Lookout(320, 180, [], true);
        for (const picture of drawFilm([own], 31, drawn, { noise })) {
          lookout.see(picture);
          if (picture.t < drawn * 1000 || picture.t >= drawn * 1000 + 30) continue;
          lookout.draw(patchOf({ x: 0.44, y: 0.46, w: 0.12, h: 0.18 }, rasterOf(320, 180)));
        }
        // Looked at while it goes on: there is no last learning yet.
        expect(clearness(lookout.eye.lamps[0]).apart).toBeGreaterThan(5);
        const { flashes } = blinksSeen(levelsOf(lookout.eye.lamps[0])!, 1000, 31_000);
        expect(flashes).toHaveLength(blinks.length);
      }
    },
  );

  it("holds no more pictures for a longer film", () => {
    const lookout = new Lookout(320, 180);
    const [picture] = drawFilm([], 0.04, 1);
    for (let k = 0; k < 2500; k++) lookout.eye.see({ ...picture, t: k * 33 });
    expect(lookout.eye.held).toBeLessThanOrEqual(1860);
  });

  it("says what keeps the lamp from being seen", () => {
    const given = new Lookout(320, 180, [patchOf({ x: 0.47, y: 0.5, w: 0.06, h: 0.1 }, rasterOf(320, 180))]);
    for (const picture of drawFilm([lamp(["24"])], 15, 4, { noise: 14, strength: 0.02, sun: 170 })) given.see(picture);
    expect(adviceOf(given.eye.lamps[0], { lost: false, trembling: 0 })).toBe("shade");
    expect(adviceOf(given.eye.lamps[0], { lost: true, trembling: 0 })).toBe("elsewhere");
    expect(adviceOf(null, { lost: false, trembling: 9 })).toBe("hold-still");
    expect(adviceOf(watch([lamp(["24"])], {}, 1, 15).eye.lamps[0], { lost: false, trembling: 0 })).toBeNull();
  });
});
