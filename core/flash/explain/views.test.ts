import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { dialect, DIALECTS } from "../../testing/dialects";
import { watch } from "../../testing/person";
import { decode } from "../decode";
import { memoriesOf, type Dialect, type Faults } from "../dialect/dialect";
import { possibleFaults } from "../dialect/digits";
import { flashesOf } from "../dialect/encode";
import type { Called, Pressed } from "../seen/evidence";
import { identify } from "../identify";
import { ordered } from "../dialect/show";
import { codeSure, nothingSure } from "../judge/sureness";

/** What somebody calls out who counts each run of a show, so many rounds of it. */
function callOut(d: Dialect, faults: Faults, runs: number): Called {
  const called: { key: object; digit: number; at: number; long: number; short: number }[] = [];
  for (const { flash } of flashesOf(d, faults)) {
    if (flash.unit.kind === "steady") continue;
    const last = called.at(-1);
    // A list of one code shows the same unit round after round: time that starts over begins a new run.
    if (!last || last.key !== flash.unit || last.digit !== flash.digit || flash.at <= last.at) {
      if (called.length === runs) break;
      called.push({ key: flash.unit, digit: flash.digit, at: flash.at, long: 0, short: 0 });
    }
    called.at(-1)!.at = flash.at;
    if (flash.long) called.at(-1)!.long++;
    else called.at(-1)!.short++;
  }
  const pair = d.digits.style === "long-short";
  return { mode: "counts", counts: called.map((c) => (pair ? ([c.long, c.short] as const) : c.short)) };
}

const lists = (d: Dialect, max: number) =>
  fc.uniqueArray(fc.constantFrom(...possibleFaults(d)), { minLength: 1, maxLength: max });

describe("called-out counts", () => {
  it.each(["lead-in", "long-short", "cycle-lamp", "even-when-clear", "end-mark"])("give the list back, %s", (id) => {
    const d = dialect(id);
    fc.assert(
      fc.property(lists(d, 3), (list) => {
        const got = decode(d, callOut(d, { [memoriesOf(d)[0]]: list }, 40));
        expect(got).toMatchObject({ state: "codes", codes: ordered(d, list) });
      }),
      { numRuns: 25 },
    );
  });

  it("a misheard number in one of two rounds does not change the list; in a list heard once it is not certain", () => {
    const d = dialect("lead-in");
    const heard = callOut(d, { stored: ["26", "43"] }, 36).counts as number[];
    for (let i = 6; i < 12; i++)
      expect(decode(d, { mode: "counts", counts: heard.with(i, heard[i] + 1) }).codes).toEqual(["26", "43"]);
    const once = decode(dialect("end-mark"), { mode: "counts", counts: [2, 6, 4, 3, 6, 6] });
    expect(once.codes).toEqual(["26", "43"]);
    expect(once.confidence).toBeLessThan(0.99);
  });
});

describe("one code a press", () => {
  const d = dialect("button-total");
  const press = (list: string[], presses: number): Pressed => {
    const shown = list.length ? ordered(d, list) : ["1"];
    const before = 1500;
    return {
      mode: "button",
      presses: Array.from({ length: presses }, (_, k) => {
        const at = k * 60_000;
        const taps = Array.from({ length: Number(shown[k % shown.length]) }, (_, i) => at + before + 230 + i * 900);
        return { press: at, taps, until: at + 50_000 };
      }),
    };
  };

  it("gives the list back once it came round, and knows that it is whole", () => {
    fc.assert(
      fc.property(lists(d, 4), (list) => {
        const got = decode(d, press(list, 2 * list.length));
        expect(got).toMatchObject({ state: "codes", codes: ordered(d, list), complete: true });
        expect(
          decode(d, { mode: "counts", counts: press(list, 2 * list.length).presses.map((p) => p.taps!.length) }).codes,
        ).toEqual(ordered(d, list));
      }),
      { numRuns: 12 },
    );
    expect(decode(d, press([], 2))).toMatchObject({ state: "none", codes: [] });
    expect(decode(d, press(["7", "26", "29"], 2)).complete).toBe(false);
  });

  it("may be begun with any code of the list; presses that show nothing do not take its place", () => {
    fc.assert(
      fc.property(
        lists(d, 3),
        fc.nat(2),
        fc.array(fc.boolean(), { minLength: 14, maxLength: 14 }),
        (list, first, short) => {
          const whole = press(list, 3 * list.length + first).presses.slice(first);
          // Held too briefly, nothing is shown and the list stands where it stood.
          const presses = whole.flatMap((p, k) =>
            short[k] ? [{ press: p.press - 9000, taps: [], until: p.press }, p] : [p],
          );
          const got = decode(d, { mode: "button", presses });
          // It is told from the code on that came first.
          const all = ordered(d, list);
          const at = first % all.length;
          expect(got).toMatchObject({ state: "codes", codes: [...all.slice(at), ...all.slice(0, at)] });
          for (const code of list) expect(codeSure(got, code)).toBe("certain");
        },
      ),
      { numRuns: 12 },
    );
  });

  it("finds a code that was tapped twice as its neighbour each time, and a first flash that came late for a missed one", () => {
    const all = press(["11", "12", "21"], 6).presses;
    // One flash of the eleven is tapped double: twelve marks, and never eleven.
    const doubled = all.map((p, k) => (k % 3 ? p : { ...p, taps: p.taps!.toSpliced(5, 0, Number(p.taps![4]) + 150) }));
    const got = decode(d, { mode: "button", presses: doubled });
    expect(got.codes).toEqual(["11", "12", "21"]);
    const late = press(["12", "14"], 6).presses.map((p, k) =>
      k === 1 ? { ...p, taps: p.taps!.slice(1) } : k === 3 ? { ...p, taps: p.taps!.slice(0, -1) } : p,
    );
    const other = decode(d, { mode: "button", presses: late });
    expect([other.codes, codeSure(other, "13")]).toEqual([["12", "14"], "unsure"]);
  });

  it("says nothing is stored only where the unit said so: presses without a flash are no answer", () => {
    const silent = decode(d, { mode: "button", presses: press([], 3).presses.map((p) => ({ ...p, taps: [] })) });
    expect([silent.state, nothingSure(silent)]).toEqual(["unclear", "unsure"]);
    expect(nothingSure(decode(d, press([], 2)))).toBe("certain");
  });
});

describe("identify", () => {
  it("names the dialect where codes were shown, and refuses where the lamp only rested", () => {
    for (const d of DIALECTS.filter((x) => x.advance === "self")) {
      const list = possibleFaults(d).filter((_, i) => i === 20 || i === 40);
      const faults: Faults = Object.fromEntries(memoriesOf(d).map((m) => [m, list]));
      const [first] = identify(DIALECTS, watch(d, faults, "edges", { seed: 9, jitter: 0.03, until: 120_000 })).ranked;
      expect([d.id, first.dialect, first.probability > 0.9]).toEqual([d.id, d.id, true]);
    }
    const refused = identify(DIALECTS, { mode: "taps", taps: [], until: 60_000 });
    expect(Math.max(...refused.ranked.map((r) => r.probability))).toBeLessThan(0.2);
  });
});
