import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { blankAnswer } from "@core/flash/answer";
import { decode } from "@core/flash/decode";
import { fixedCodes } from "@core/flash/dialect/dialect";
import { possibleFaults } from "@core/flash/dialect/digits";
import { nothingMore } from "@core/flash/judge/settle";
import type { Mark } from "@core/record/types";
import { dialect } from "@core/testing/dialects";
import { watch } from "@core/testing/person";
import { saySoFar } from "./sentence";
import { layStrip } from "./strip/layout";

const lead = dialect("lead-in");

function read(until: number, drop: number[] = []) {
  const evidence = watch(lead, { stored: ["26", "43"] }, "taps", { seed: 4, jitter: 0.03, until });
  if (evidence.mode !== "taps") throw new Error();
  const taps = (evidence.taps as number[]).filter((_, i) => !drop.includes(i));
  const marks: Mark[] = taps.map((t, i) => ({ id: i + 1, t }));
  return { marks, decoded: decode(lead, { ...evidence, taps }) };
}

describe("saySoFar", () => {
  const say = (until: number) => {
    const { marks, decoded } = read(until);
    return saySoFar(decoded, lead, "tap", marks.length, true).headline;
  };

  it("says where the reading stands, from the first flash to done", () => {
    expect(saySoFar(null, lead, "tap", 0, false).headline).toBe("Tap with every flash.");
    expect(say(22_000)).toBe("13 is the lead-in. No code yet.");
    expect(say(50_000)).toBe("13 is the lead-in. One code so far.");
    expect(say(95_000)).toBe("13 is the lead-in. The list came round: 26 and 43.");
    expect(say(180_000)).toBe("26 and 43, seen twice: done.");
  });

  it.each(["lead-in", "long-short", "even-when-clear", "end-mark", "cycle-lamp"])(
    "of %s says no more than is known, and always what to do next",
    (id) => {
      const d = dialect(id);
      fc.assert(
        fc.property(
          fc.uniqueArray(fc.constantFrom(...possibleFaults(d)), { minLength: 1, maxLength: 2 }),
          fc.integer(),
          fc.integer({ min: 6000, max: 120_000 }),
          fc.boolean(),
          (stored, seed, until, watching) => {
            const evidence = watch(d, { stored }, "holds", { seed, jitter: 0.02, until });
            if (evidence.mode !== "holds" || !evidence.holds.length) return;
            const decoded = decode(d, evidence);
            const { headline, next } = saySoFar(decoded, d, "hold", evidence.holds.length, watching);
            const done = /seen twice: done|The list is over/.test(headline);
            if (done) expect(nothingMore(decoded) || /start it again/.test(next)).toBe(true);
            if (nothingMore(decoded)) expect(done).toBe(true);
            if (/came round/.test(headline)) expect(decoded.complete).toBe(true);
            // No code is named that is not among those read, or a rival's, and no question is left without a way on.
            const known = [...decoded.codes, ...(decoded.runnerUp?.codes ?? []), ...fixedCodes(d)];
            const named = `${headline} ${next.replace(/\d+ %/g, "")}`.match(/\b\d{2}\b/g) ?? [];
            expect(named.filter((c) => !known.includes(c))).toEqual([]);
            expect(next).toMatch(/\S/);
            if (!watching) expect(next).not.toMatch(/Watch on/);
          },
        ),
        { numRuns: 25, seed: 12 },
      );
    },
  );

  it("says of what does not talk so what it may be, and what to do, whether a vehicle was chosen or not", () => {
    const said = (misfit: "even" | "foreign", any: boolean, watching = true) => {
      const { headline, next } = saySoFar({ ...blankAnswer([100, 900], 1), misfit }, lead, "hold", 9, watching, any);
      return `${headline} ${next}`;
    };
    expect(said("foreign", false)).toMatch(/not blink like this vehicle should.*the right vehicle\? Watch on/);
    expect(said("foreign", true)).toMatch(
      /n't blink like any vehicle that Klinko knows. Is it the right lamp\? Watch on/,
    );
    expect(said("even", false)).toMatch(/only blinks in even time/);
    expect(said("even", true, false)).toMatch(/only blinks in even time.*watch once more/);
  });
});

describe("layStrip", () => {
  it("keeps every mark once, in order, inside the band, with no line over two rounds", () => {
    const { marks, decoded } = read(180_000);
    for (const width of [300, 620, 1000]) {
      const { lines, pxPerMs } = layStrip(marks, decoded, { width, perSecond: 30 });
      expect(lines.flatMap((l) => l.marks.map((m) => m.id))).toEqual(marks.map((m) => m.id));
      for (const line of lines) {
        expect((line.to - line.from) * pxPerMs).toBeLessThanOrEqual(width);
        expect(new Set(line.marks.map((m) => m.place?.pass)).size).toBe(1);
      }
    }
  });

  it("gathers digits in brackets and shows a missed flash where it should have been", () => {
    const { marks, decoded } = read(180_000, [14]);
    const { lines } = layStrip(marks, decoded, { width: 900, perSecond: 30 });
    const text = lines.flatMap((l) => l.brackets.map((b) => b.text)).join("");
    expect(text).toMatch(/^(13){3}(26){3}(43){3}(13){3}/);
    expect(lines.flatMap((l) => l.ghosts)).toHaveLength(1);
  });

  it("draws marks that are not decoded yet by their time alone", () => {
    const { lines } = layStrip(
      [
        { id: 1, t: 100 },
        { id: 2, t: 90_000, up: 90_400 },
      ],
      null,
      { width: 300, perSecond: 30 },
    );
    expect(lines).toHaveLength(2);
    expect(lines[0].pass).toBeNull();
  });
});
