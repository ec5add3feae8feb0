import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { decode } from "../flash/decode";
import { dialect } from "../testing/dialects";
import { evidenceOf } from "./evidence";
import { pressesOf } from "./inputs/press";
import { newJob, withLampCheck } from "./job";
import { readingOf, resultOf } from "./readings";
import { openDoc } from "./open";
import { RECORD_VERSION, type Mark, type Reading, type SystemList } from "./types";

const at = (minute: number) => new Date(Date.UTC(2026, 0, 1, 10, minute)).toISOString();
const reading = (id: string, more: Partial<Reading>): Reading => ({
  version: RECORD_VERSION,
  kind: "reading",
  id,
  job: "j",
  vehicle: "v",
  system: "engine",
  way: "walk",
  dialect: "",
  input: "modules",
  run: "before",
  startedAt: at(0),
  marks: [],
  pauses: [],
  until: 0,
  result: null,
  recordedAt: at(0),
  ...more,
});
const list = (state: SystemList["state"], codes: string[] = [], unclear: string[] = []): SystemList => ({
  state,
  codes,
  unclear,
});

describe("a reading of several systems", () => {
  const walk = reading("walk", {
    lists: { engine: list("codes", ["13"]), body: list("none"), ride: list("codes", ["21"], ["4?"]) },
  });

  it("is one list for whoever asks for a system, and nothing for a system that was not read", () => {
    expect(readingOf(walk, "engine")?.result).toMatchObject({ state: "codes", codes: ["13"], complete: true });
    expect(readingOf(walk, "body")?.result).toMatchObject({ state: "none", codes: [], complete: true });
    expect(readingOf(walk, "climate")).toBeNull();
    expect(readingOf(walk, "toString")).toBeNull();
    expect(readingOf(reading("lamp", { input: "tap" }), "engine")?.id).toBe("lamp");
    expect(readingOf(reading("lamp", { input: "tap" }), "body")).toBeNull();
  });

  it("is less certain, and never whole, while a digit was not clear", () => {
    const { complete, confidence, codeConfidence } = resultOf(list("codes", ["21"], ["4?"]));
    expect([complete, confidence < 0.9, codeConfidence["21"] < 0.9]).toEqual([false, true, true]);
    expect(resultOf(list("unclear"))).toMatchObject({ complete: false, codes: [] });
  });

  it("is stored and opened as it was; a damaged list locks the record", () => {
    for (const doc of [
      walk,
      reading("ready", { input: "readiness", readiness: "not-complete" }),
      reading("called", { input: "counts", counts: "1 3" }),
    ])
      expect(openDoc(`reading/${doc.id}`, JSON.parse(JSON.stringify(doc)))).toEqual({ doc });
    const bad = { ...walk, lists: { engine: { state: "codes", codes: ["<b>"], unclear: [] } } };
    expect(openDoc("reading/walk", bad)).toHaveProperty("locked.why", "damaged");
  });
});

describe("presses of a reader's button", () => {
  const marks = (rows: [number, Mark["kind"]?][]): Mark[] =>
    rows.map(([t, kind], i) => ({ id: i + 1, t, ...(kind && { kind }) }));

  it("gather the flashes that follow them; what came before the first belongs to none", () => {
    const rows: [number, Mark["kind"]?][] = [[100], [1000, "p"], [3000], [3900], [9000, "p"], [11_000]];
    expect(pressesOf(marks(rows), 20_000)).toEqual([
      { press: 1000, taps: [3000, 3900], until: 9000 },
      { press: 9000, taps: [11_000], until: 20_000 },
    ]);
    expect(pressesOf([], 5)).toEqual([]);
  });

  it("never lose a flash, in whatever order they were put in", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(60_000), fc.boolean()), { maxLength: 60 }), (rows) => {
        const put = marks(rows.map(([t, press]) => (press ? [t, "p"] : [t])));
        const presses = pressesOf(put, 60_000);
        const first = Math.min(...rows.filter(([, p]) => p).map(([t]) => t));
        const after = rows.filter(([t, press]) => !press && t >= first).length;
        const taken = presses.reduce((n, p) => n + p.taps!.length, 0);
        expect(taken).toBeLessThanOrEqual(after);
        expect(taken).toBeGreaterThanOrEqual(rows.filter(([t, press]) => !press && t > first).length);
        expect(presses.every((p) => p.until >= p.press)).toBe(true);
      }),
    );
  });

  it("are decoded one code a press", () => {
    const d = dialect("button-total");
    const before = d.empty?.kind === "group" ? d.empty.beforeMs : 0;
    const rows: [number, Mark["kind"]?][] = [];
    [7, 12, 7, 12].forEach((n, k) => {
      rows.push([k * 25_000, "p"]);
      for (let i = 0; i < n; i++) rows.push([k * 25_000 + before + 230 + i * 900]);
    });
    const evidence = evidenceOf({ input: "press", marks: marks(rows), until: 100_000, pauses: [] }, 100_000, d);
    expect(decode(d, evidence)).toMatchObject({ codes: ["7", "12"], complete: true });
  });
});

describe("the lamp check in the notebook", () => {
  it("writes a verdict once, however often the same is told, and keeps what was seen of each unit", () => {
    const units = { engine: { lamp: "dark" as const, outputs: { pump: "dead" as const } } };
    let job = newJob({ id: "v" }, "engine", "j", at(0));
    for (const minute of [1, 2, 3])
      job = withLampCheck(job, "dark", "none", at(minute), units, "The unit has no power.");
    expect(job.notebook.map((n) => n.text)).toEqual(["Job opened.", "The unit has no power."]);
    expect(job.lampCheck).toEqual({ at: at(3), seen: "dark", others: "none", units });
    expect(openDoc("job/j", JSON.parse(JSON.stringify(job)))).toEqual({ doc: job });
    job = withLampCheck(job, "steady", "all", at(4));
    expect(job.done).toContain("lamp-check");
  });
});
