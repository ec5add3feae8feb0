import { describe, expect, it } from "vitest";
import { dialect, DIALECTS } from "../../testing/dialects";
import { dialectCheck } from "./dialect-check";
import { encode } from "./encode";
import { codeOf, isFault, possibleFaults, runsOf } from "./digits";
import { showOf } from "./show";

const said = (id: string, faults: Parameters<typeof showOf>[1], part: "lead" | "loop", cylinders?: number) =>
  [...new Set(showOf(dialect(id), faults, cylinders)[part]!.flashes.map((f) => f.unit))].map(
    (u) => u.code ?? u.means ?? u.kind,
  );

describe("showOf", () => {
  it("shows the lead-in three times, then each code three times by number, and goes round", () => {
    expect(said("lead-in", { stored: ["43", "26"] }, "lead")).toEqual(["steady"]);
    expect(said("lead-in", { stored: ["43", "26"] }, "loop")).toEqual([
      "13",
      "13",
      "13",
      "26",
      "26",
      "26",
      "43",
      "43",
      "43",
    ]);
    expect(said("lead-in", {}, "loop")).toEqual(["13", "13", "13"]);
  });

  it("stands pass codes, even flashing or a steady lamp in place of an empty memory", () => {
    expect(said("key-on-three", { stored: ["512"] }, "lead")).toEqual(["411", "411", "separator", "512", "512"]);
    expect(said("even-when-clear", {}, "loop")).toEqual(["even"]);
    expect(showOf(dialect("long-short"), {})).toMatchObject({ loop: null, ends: "rest" });
    expect(showOf(dialect("cycle-lamp"), {})).toMatchObject({ loop: null, ends: "opposite" });
  });

  it("counts half the cylinders, with the rest that a group asks for around it", () => {
    const { lead } = showOf(dialect("running-two"), { live: ["21"] }, 6);
    expect(lead.flashes.slice(0, 4).map((f) => [f.at, f.unit.means])).toEqual([
      [4000, "cylinders"],
      [4960, "cylinders"],
      [5920, "cylinders"],
      [5920 + 480 + 8000, "act"],
    ]);
  });

  it("keeps the rests of the format between flashes, digits, repeats and passes", () => {
    const loop = showOf(dialect("even-when-clear"), { stored: ["12", "21"] }).loop!;
    const rests = loop.flashes.slice(1).map((f, i) => f.at - loop.flashes[i].at - loop.flashes[i].ms);
    expect(rests).toEqual([1500, 500, 2500, 500, 1500]);
    expect(loop.ms - loop.flashes.at(-1)!.at - 500).toBe(4500);
  });

  it("refuses a code that the style cannot show", () => {
    expect(() => showOf(dialect("lead-in"), { stored: ["20"] })).toThrow(/cannot show code 20/);
  });
});

describe("runsOf and codeOf", () => {
  it.each(DIALECTS.map((d) => [d.id, d] as const))("are inverse for every code of %s", (_, d) => {
    for (const code of possibleFaults(d)) expect(codeOf(d, runsOf(d, code)!)).toBe(code);
    expect(possibleFaults(d).every((c) => isFault(d, c))).toBe(true);
  });
});

describe("dialectCheck", () => {
  it("takes every dialect of the format, and names what is wrong with others", () => {
    for (const d of DIALECTS) expect(dialectCheck.joi().validate(d).error).toBeUndefined();
    const bad = (part: object) => dialectCheck.joi().validate({ ...dialect("lead-in"), ...part }).error?.message;
    expect(bad({ loopFrom: 7 })).toMatch(/returns to phase 7/);
    expect(bad({ phases: [{ kind: "even", onMs: 300, offMs: 300 }] })).toMatch(/never shows the list/);
    expect(bad({ phases: [{ kind: "dance" }] })).toMatch(/must be one of/);
    expect(bad({ digits: { style: "long-short", count: [2], zero: null } })).toMatch(/marks.long/);
  });
});

describe("encode", () => {
  it("gives edges that alternate and keep the tempo", () => {
    const edges = encode(dialect("lead-in"), { stored: ["21"] }, 60_000, { speed: 1.1 });
    expect(edges[0]).toEqual([0, 1]);
    expect(edges.every(([t, lit], i) => i === 0 || (t >= edges[i - 1][0] && lit !== edges[i - 1][1]))).toBe(true);
    expect(edges[1][0]).toBeCloseTo(550);
  });
});
