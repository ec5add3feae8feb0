import { describe, expect, it } from "vitest";
import { randomDialect } from "../../cases/random-dialect";
import { decode } from "../../flash/decode";
import { memoriesOf, type Dialect, type Faults } from "../../flash/dialect/dialect";
import { possibleFaults, runsOf } from "../../flash/dialect/digits";
import { seeded } from "../../flash/dialect/encode";
import { ordered, runSection } from "../../flash/dialect/show";
import { DIALECTS } from "../../testing/dialects";
import { watch } from "../../testing/person";
import { evidenceOf } from "../evidence";
import type { Mark } from "../mark";
import { byHand, INPUT_IDS, inputOf, inputsFor, watchOf, type Input } from "./index";

const numbered = (marks: Omit<Mark, "id">[]): Mark[] => marks.map((m, i) => ({ id: i + 1, ...m }));

/** What a hand puts in who works this input's keys with a lamp of the dialect. */
function putIn(input: Input, d: Dialect, list: string[]): { marks: Mark[]; until: number; counts?: string } {
  const until = 100_000;
  const faults: Faults = { [memoriesOf(d)[0]]: list };
  if (input === "press") {
    const marks: Omit<Mark, "id">[] = [];
    let t = 1000;
    for (const code of [...list, ...list]) {
      marks.push({ t, kind: "p" });
      const { flashes, ms } = runSection(d, runsOf(d, code)!, 1500);
      const named = watchOf(input)
        .pad(d)
        .some((k) => k.kind === "l");
      for (const f of flashes) marks.push({ t: t + f.at + 230, ...(named && { kind: f.long ? "l" : "s" }) });
      t += ms + 8000;
    }
    return { marks: numbered(marks), until: t };
  }
  const seen = watch(d, faults, input === "hold" ? "holds" : "taps", { seed: 4, until });
  if (seen.mode === "holds") return { marks: numbered(seen.holds.map(([at, up]) => ({ t: at, up }))), until };
  if (seen.mode !== "taps") throw new Error("a hand has no edges");
  return { marks: numbered(seen.taps.map((x) => (typeof x === "number" ? { t: x } : { t: x[0], kind: x[1] }))), until };
}

describe("inputs of a reading", () => {
  it("each dialect has a hand to be watched by, and every hand that is offered gives its list to the decoder", () => {
    const pressed = Array.from({ length: 60 }, (_, i) => randomDialect(seeded(i + 1))).filter(
      (d) => d.advance === "button",
    );
    expect(new Set(pressed.map((d) => d.digits.style)).size).toBe(3);
    for (const d of [...DIALECTS, ...pressed]) {
      const hands = inputsFor(d).filter(byHand);
      expect([d.id, hands.length > 0]).toEqual([d.id, true]);
      const list = ordered(
        d,
        possibleFaults(d).filter((_, i) => i === 5 || i === 11),
      );
      for (const input of hands) {
        const { marks, until } = putIn(input, d, list);
        const evidence = evidenceOf({ input, marks, until, pauses: [] }, until, d);
        expect([d.id, input, decode(d, evidence as never).codes]).toEqual([d.id, input, list]);
      }
    }
  });

  it("long and short are never asked of a single key, and digits never of one number a press", () => {
    for (const d of [...DIALECTS, ...Array.from({ length: 60 }, (_, i) => randomDialect(seeded(i + 1)))]) {
      const offered = inputsFor(d);
      if (d.digits.style === "long-short") expect([d.id, offered.includes("tap")]).toEqual([d.id, false]);
      else expect([d.id, offered.includes("keys")]).toEqual([d.id, false]);
      if (d.advance === "button")
        expect([d.id, offered]).toEqual([d.id, d.digits.style === "total" ? ["counts", "press"] : ["press"]]);
      // Keys of a pad are told apart, by the key and by the mark that they make.
      for (const pad of offered.map((i) => watchOf(i).pad(d)))
        expect(new Set(pad.map((k) => k.code)).size).toBe(pad.length);
    }
    expect(inputsFor(null)).toEqual(["camera", "film", "tap", "hold", "trace"]);
    expect(INPUT_IDS.every((i) => inputOf(i).said && inputOf(i).short)).toBe(true);
  });
});
