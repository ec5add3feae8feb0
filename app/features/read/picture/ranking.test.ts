import { describe, expect, it, vi } from "vitest";
import { blankAnswer } from "@core/flash/answer";
import { readFilm } from "@core/flash/decode";
import type { Dialect } from "@core/flash/dialect/dialect";
import { encode } from "@core/flash/dialect/encode";
import { dialect, DIALECTS } from "@core/testing/dialects";
import type { LampSeen } from "~/workers/lamp.worker";
import { homeOf, picturesOf } from "../test-home";
import { bySpeech, fitOf, offered, orderByFit, type Fit } from "./ranking";

vi.mock("~/workers/flash", () => ({
  flashWorker: () => ({
    readFilm: (d: never, f: never, table: string[]) => Promise.resolve(readFilm(d, f, { table })),
  }),
}));

const UNTIL = 45_000;
const lamp = (id: number, y: number, seen: { t: number[]; y: number[] } = { t: [], y: [] }): LampSeen => ({
  id,
  box: { x: 0.5, y, w: 0.05, h: 0.05 },
  apart: 12,
  t: Float64Array.from(seen.t),
  y: Float64Array.from(seen.y),
});
const fit = (value: number, even = false): Fit => ({ fit: value, even });

/** Can this dialect show the code? */
function shows(own: Dialect, code: string): boolean {
  try {
    encode(own, { stored: [code] }, 1000);
    return true;
  } catch {
    return false;
  }
}

describe("orderByFit", () => {
  it("takes all that speak, the upper one first, and leaves the others", () => {
    const lamps = [lamp(1, 0.7), lamp(2, 0.1), lamp(3, 0.4)];
    expect(orderByFit(lamps, [fit(0.99), fit(0), fit(0.8)])).toEqual({ order: [3, 1], speech: "words", doubtful: [] });
  });

  it("never believes what is even beside one that says more, however sure", () => {
    const lamps = [lamp(1, 0.1), lamp(2, 0.6)];
    expect(orderByFit(lamps, [fit(1, true), fit(0.7)])).toEqual({ order: [2], speech: "words", doubtful: [1] });
    expect(orderByFit(lamps, [fit(0.2, true), fit(1, true)])).toEqual({ order: [2], speech: "even", doubtful: [2] });
  });

  it("takes the likeliest where none speaks, and says so", () => {
    expect(orderByFit([lamp(1, 0.1), lamp(2, 0.6)], [fit(0), fit(0)])).toMatchObject({ order: [1], speech: "none" });
    expect(orderByFit([], [])).toEqual({ order: [], speech: "none", doubtful: [] });
  });
});

describe("bySpeech", () => {
  it.each(DIALECTS.filter((d) => d.advance === "self").map((d) => [d.id, d] as const))(
    "finds the lamp that talks as %s does beside an indicator",
    async (_, own) => {
      const code = ["23", "123", "5"].find((c) => shows(own, c))!;
      const talks = lamp(1, 0.6, picturesOf(own, [code], UNTIL));
      const { t } = talks;
      // Ninety times a minute.
      const indicator = lamp(2, 0.2, { t: [...t], y: [...t].map((ms) => (ms % 667 < 333 ? 150 : 70)) });
      const { order, speech } = await bySpeech([indicator, talks], UNTIL, homeOf(own));
      expect([order, speech]).toEqual([[1], "words"]);
    },
  );

  it("knows of a code of single flashes that an indicator could have said it", async () => {
    const own = dialect("cycle-lamp");
    const { speech } = await bySpeech([lamp(1, 0.5, picturesOf(own, ["10"], UNTIL))], UNTIL, homeOf(own));
    expect(speech).toBe("even");
    // Of a vehicle that flashes evenly where nothing is stored that is an answer.
    const even = dialect("even-when-clear");
    expect(await bySpeech([lamp(1, 0.5, picturesOf(even, [], UNTIL))], UNTIL, homeOf(even))).toMatchObject({
      order: [1],
      speech: "words",
    });
  });
});

it("what follows no rhythm, or has hardly begun, does not speak", () => {
  expect(fitOf(blankAnswer([100, 500, 900, 1300, 1700], 1))).toEqual(fit(0));
});

it("patches that do not speak are not offered", () => {
  const seen = {
    at: 0,
    lamps: [lamp(1, 0), lamp(2, 0)],
    still: null,
    advice: null,
    pictures: 1,
    skipped: 0,
    analysis: 1,
  };
  expect(offered(seen, [1]).map((l) => l.id)).toEqual([2]);
  expect(offered(null, [1])).toEqual([]);
});
