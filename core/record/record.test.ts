import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { planClear } from "../clearing/plan";
import { lockOf, nextStep } from "../job/gates";
import type { ClearWay, Pack } from "../pack/pack";
import { editMarks } from "./edit";
import { dialect } from "../testing/dialects";
import { evidenceOf, marksOfTrace, traceOf } from "./evidence";
import {
  beginClear,
  closeJob,
  EMPTY_STORY,
  endClear,
  mergeStory,
  newJob,
  note,
  stepDone,
  withCorrection,
  withLampCheck,
  withReading,
  withStory,
} from "./job";
import { climb } from "../schema/ladder";
import { historyCsv, historyOf } from "../job/history";
import { readBackup } from "./backup";
import { join } from "./join";
import { notebookText } from "./notebook-text";
import { openDoc } from "./open";
import { lastKm, newVehicle, withoutWork, withWork } from "./vehicle";
import { RECORD_VERSION, type Job, type Mark, type Reading, type Story } from "./types";

const at = (minutes: number) => new Date(Date.UTC(2026, 10, 24, 9, minutes)).toISOString();
const job = () => newJob({ id: "v1" }, "engine", "j1", at(0));
const reading = (id: string, minutes: number, codes: string[], more: Partial<Reading> = {}): Reading => ({
  version: RECORD_VERSION,
  kind: "reading",
  id,
  job: "j1",
  vehicle: "v1",
  system: "engine",
  way: "w",
  dialect: "d",
  input: "tap",
  run: "before",
  startedAt: at(minutes),
  marks: [{ id: 1, t: 400 }],
  pauses: [],
  until: 5000,
  result: { state: "codes", codes, memories: {}, complete: true, confidence: 0.999, codeConfidence: {} },
  recordedAt: at(minutes + 1),
  ...more,
});

describe("the path of a job", () => {
  it("opens step by step, and locks what is not safe with its reason", () => {
    let j: Job = withStory(job(), { ...EMPTY_STORY, lamp: "MIL", engine: "warm" }, false, at(1));
    expect(j.title).toBe("MIL lamp comes on with the engine warm");
    expect(lockOf(j, [], "read")).toBe("after the lamp check");
    j = withLampCheck(j, "dark", "not-checked", at(2));
    expect(lockOf(j, [], "hook-up")).toBe("the lamp is dark");
    expect(nextStep(j, [])).toBe("way-in");
    j = stepDone(j, "way-in");
    expect(nextStep(j, [])).toBe("lamp-check");
    j = withLampCheck(j, "steady", "all", at(3));
    expect(lockOf(j, [], "read")).toBeNull();
    expect(lockOf(j, [], "clear")).toBe("after a usable reading");
    expect(lockOf(j, [reading("r", 4, ["26"], { recordedAt: null })], "clear")).toBe("after a usable reading");
    const readings = [reading("r", 4, ["26"])];
    j = withReading(stepDone(j, "hook-up"), "Read engine: 26.", at(5));
    // Asked again, since something after it could not be stored.
    j = withReading(j, "Read engine: 26.", at(5));
    expect(lockOf(j, readings, "clear")).toBeNull();
    expect(lockOf({ ...j, handOver: true }, readings, "clear")).toBe("another workshop takes over");
    expect(lockOf(j, readings, "prove")).toBe("after the clear");
    j = endClear(beginClear(j, "fuse", "Fuse", at(6)), { system: "engine", wiped: ["engine", "brake"] }, "Fuse", at(7));
    expect(j.clears).toEqual([{ at: at(7), way: "fuse", system: "engine", wiped: ["engine", "brake"], seconds: 60 }]);
    expect(lockOf(j, readings, "prove")).toBeNull();
    j = closeJob(note(j, "prove", "typed by hand", at(8), "person"), "fixed", "Fixed.", at(9));
    expect(j.notebook.map((n) => n.text)).toEqual([
      "Job opened.",
      "MIL lamp comes on with the engine warm.",
      "The lamp is dark.",
      "The lamp is steady, as it should be.",
      "Read engine: 26.",
      "Fuse: time started.",
      "Done: Fuse, 60 s.",
      "typed by hand",
      "Fixed.",
    ]);
    expect(openDoc("job/j1", JSON.parse(JSON.stringify(j)))).toEqual({ doc: j });
  });
});

describe("a story that is told in two places", () => {
  it("keeps what only one of them has changed, and names what both have, whoever has the last word", () => {
    const told = (part: Partial<Story>, handOver = false) => ({
      story: { ...EMPTY_STORY, lamp: "MIL", words: "first", ...part },
      handOver,
    });
    const [base, here] = [told({ weather: ["Wet"] }), told({ weather: ["Wet"], since: "May", words: "second" }, true)];
    const apart = mergeStory(base, here, told({ weather: ["Wet", "Frost"] }));
    expect(apart).toEqual({ ...told({ weather: ["Wet", "Frost"], since: "May", words: "second" }, true), both: [] });
    const both = mergeStory(base, here, told({ weather: ["Wet"], words: "third" }));
    // What the other one alone has told stays, also where this one's words count.
    expect(both).toEqual({
      ...told({ weather: ["Wet"], since: "May", words: "third" }, true),
      both: ["the owner's words"],
    });
  });
});

describe("planClear", () => {
  const way = (id: string, costs: ClearWay["costs"][number]["id"][], seconds = 30): ClearWay => ({
    id,
    title: id,
    system: "engine",
    kind: "fuse",
    does: "off",
    seconds,
    what: "",
    costs: costs.map((c) => ({ id: c, text: c })),
    steps: [],
    afterwards: [],
  });
  const pack = {
    systems: [],
    clears: [way("battery", ["radio-code", "clock"]), way("fuse", ["clock"])],
  } as unknown as Pack;
  const facts = {
    recorded: true,
    unread: [],
    partial: [],
    radio: "not-asked" as const,
    immobiliser: "none" as const,
    handOver: false,
    forSale: false,
  };

  it("names the cheapest way first and asks for the radio code before the battery", () => {
    const plan = planClear(pack, "engine", facts);
    expect(plan.map((p) => [p.way.id, p.open])).toEqual([
      ["fuse", true],
      ["battery", false],
    ]);
    expect(planClear(pack, "engine", { ...facts, radio: "code-known" })[1].open).toBe(true);
    expect(planClear(pack, "engine", { ...facts, radio: "code-unknown" })[1].gates.at(-1)!.reason).toMatch(
      /radio stays locked until its code is found/,
    );
  });

  it("opens nothing before a reading is recorded, or when another workshop takes over", () => {
    expect(planClear(pack, "engine", { ...facts, recorded: false }).some((p) => p.open)).toBe(false);
    expect(planClear(pack, "engine", { ...facts, handOver: true }).some((p) => p.open)).toBe(false);
  });
});

describe("openDoc", () => {
  const why = (raw: unknown) => {
    const got = openDoc("k", raw);
    return "locked" in got ? got.locked.why : null;
  };

  it("locks what a newer version wrote, what is damaged, and what is nothing of ours", () => {
    expect(why({ ...job(), version: RECORD_VERSION + 1, news: true })).toBe("newer");
    expect(why({ ...job(), notebook: "gone" })).toBe("damaged");
    for (const raw of [
      null,
      3,
      "x",
      {},
      { kind: "constructor" },
      { version: 1, kind: "job" },
      { ...job(), version: 0 },
    ])
      expect(why(raw)).toBe("damaged");
    expect(why(reading("r", 1, ["26"]))).toBeNull();
  });

  it("opens the files of every version that was released, and what was in them is still there", () => {
    for (let version = 1; version <= RECORD_VERSION; version++) {
      const text = readFileSync(`core/record/samples/v${version}.json`, "utf8");
      const { records } = JSON.parse(text) as { records: Record<string, object> };
      const read = readBackup(text);
      if ("fault" in read) throw new Error(read.fault);
      expect(read.faults).toEqual([]);
      expect(read.docs.map((d) => d.kind).sort()).toEqual(["job", "job", "reading", "reading", "vehicle", "vehicle"]);
      for (const doc of read.docs)
        expect(doc).toMatchObject({ ...records[`${doc.kind}/${doc.id}`], version: RECORD_VERSION });
    }
  });

  it("gives a field that is missing its default, and keeps one that is unknown through every change", () => {
    const {
      handOver: _,
      clears: __,
      verdict: ___,
      ...old
    } = { ...job(), colour: "red", story: { ...EMPTY_STORY, mood: "bad" } };
    const got = openDoc("job/j1", old);
    if ("locked" in got) throw new Error(got.locked.message);
    expect(got.doc).toEqual({ ...old, handOver: false, clears: [], verdict: "" });
    let j = got.doc as Job;
    j = withLampCheck(j, "steady", "all", at(3));
    j = closeJob(
      endClear(beginClear(note(j, "read", "x", at(4)), "fuse", "Fuse", at(6)), { system: "engine" }, "Fuse", at(7)),
      "fixed",
      "Fixed.",
      at(9),
    );
    expect(j).toMatchObject({ colour: "red", story: { mood: "bad" }, end: "fixed" });
    expect(openDoc("job/j1", j)).toEqual({ doc: j });
  });

  it("climbs rung by rung, and says where there is none", () => {
    const ladder = {
      1: (o: object) => ({ ...o, plate: "?" }),
      2: (o: { plate?: unknown }) => ({ ...o, plate: `${String(o.plate)}!` }),
    };
    expect(climb(ladder, { version: 1, own: 1 }, 1, 3)).toEqual({ version: 3, own: 1, plate: "?!" });
    expect(climb(ladder, { version: 3 }, 3, 3)).toEqual({ version: 3 });
    expect(() => climb(ladder, { version: 3 }, 3, 5)).toThrow(/version 3/);
  });

  it("opens whatever the program can make: hours of pictures, marks and lines", () => {
    const many = (n: number) => Array.from({ length: n }, (_, i) => i);
    const marks = many(30_000).map((i) => ({ id: i + 1, t: i * 400, up: i * 400 + 200 }));
    const levels = { t: many(300_000), y: many(300_000) };
    expect(why({ ...reading("r", 1, ["26"]), input: "camera", marks, levels })).toBeNull();
    const notebook = many(8000).map(() => ({ at: at(1), by: "person", step: "read", text: "x" }));
    expect(why({ ...job(), notebook })).toBeNull();
  });
});

describe("marks", () => {
  const marks = fc
    .array(fc.tuple(fc.integer({ min: 300, max: 3000 }), fc.integer({ min: 61, max: 250 })), {
      minLength: 1,
      maxLength: 40,
    })
    .map((steps) => {
      let t = 0;
      return steps.map(([gap, ms], i): Mark => ({ id: i + 1, t: (t += gap), up: t + ms }));
    });

  it("a trace and its marks are two forms of the same thing", () => {
    fc.assert(
      fc.property(marks, (list) => {
        const until = list.at(-1)!.up! + 1000;
        const back = marksOfTrace(traceOf({ marks: list, until }, until, "dark"), "dark");
        expect(back.map(({ t, up }) => [t, up])).toEqual(list.map(({ t, up }) => [t, up]));
      }),
    );
  });

  it("stay in order and unique through any corrections", () => {
    const edit = fc.oneof(
      fc.record({ kind: fc.constant("add" as const), t: fc.integer({ min: -100, max: 90_000 }) }),
      fc.record({ kind: fc.constant("remove" as const), id: fc.integer({ min: 1, max: 45 }) }),
      fc.record({
        kind: fc.constant("move" as const),
        id: fc.integer({ min: 1, max: 45 }),
        by: fc.integer({ min: -9000, max: 9000 }),
      }),
      fc.record({
        kind: fc.constant("stretch" as const),
        id: fc.integer({ min: 1, max: 45 }),
        by: fc.integer({ min: -3000, max: 3000 }),
      }),
      fc.record({
        kind: fc.constant("turn" as const),
        id: fc.integer({ min: 1, max: 45 }),
        ms: fc.constantFrom(400, 1200),
      }),
    );
    fc.assert(
      fc.property(marks, fc.array(edit, { maxLength: 30 }), (list, edits) => {
        const out = edits.reduce<Mark[]>((m, e) => editMarks(m, e), list);
        expect(new Set(out.map((m) => m.id)).size).toBe(out.length);
        expect(out.every((m, i) => m.t >= 0 && (i === 0 || m.t >= out[i - 1].t))).toBe(true);
        expect(out.every((m) => m.up === undefined || m.up > m.t)).toBe(true);
      }),
    );
  });

  it("a flash of the wrong length is made longer, or the other kind, and never runs into the next", () => {
    const list: Mark[] = [
      { id: 1, t: 1000, up: 1400 },
      { id: 2, t: 2600, up: 3000 },
      { id: 3, t: 4000, kind: "s" },
    ];
    expect(editMarks(list, { kind: "stretch", id: 1, by: 300 })[0]).toEqual({ id: 1, t: 1000, up: 1700 });
    expect(editMarks(list, { kind: "stretch", id: 1, by: 9000 })[0].up).toBeLessThan(2600);
    expect(editMarks(list, { kind: "stretch", id: 1, by: -9000 })[0].up).toBeGreaterThan(1000);
    expect(editMarks(list, { kind: "turn", id: 2, ms: 1200 })[1]).toEqual({ id: 2, t: 2600, up: 3800 });
    expect(editMarks(list, { kind: "turn", id: 3, ms: 1200 })[2]).toEqual({ id: 3, t: 4000, kind: "l" });
  });

  it("turn into evidence for each way of watching; a held key that is still down is not told yet", () => {
    const base = { until: null, pauses: [] };
    expect(
      evidenceOf({ ...base, input: "keys", marks: [{ id: 1, t: 100, kind: "l" }] }, 900, dialect("lead-in")),
    ).toEqual({
      mode: "taps",
      taps: [[100, "l"]],
      until: 900,
      pauses: [],
    });
    expect(
      evidenceOf(
        {
          ...base,
          input: "hold",
          marks: [
            { id: 1, t: 100, up: 300 },
            { id: 2, t: 700 },
          ],
        },
        900,
        dialect("lead-in"),
      ),
    ).toMatchObject({ holds: [[100, 300]] });
    expect(
      evidenceOf({ ...base, input: "trace", marks: [{ id: 1, t: 100, up: 300 }] }, 900, dialect("button-total")),
    ).toMatchObject({
      edges: [
        [0, 1],
        [100, 0],
        [300, 1],
      ],
    });
  });
});

describe("what a person wrote", () => {
  it("can be put right, and what it said before stays; no line of Klinko's own, and none that was changed meanwhile", () => {
    const j = note(job(), "read", "Plug was blue", at(2), "person", ["p1"]);
    const right = withCorrection(j, { at: at(2), text: "Plug was blue" }, "Plug was green", at(5));
    expect(right.notebook.at(-1)).toEqual({
      at: at(2),
      by: "person",
      step: "read",
      text: "Plug was green",
      photos: ["p1"],
      was: [{ text: "Plug was blue", at: at(5) }],
    });
    expect(withCorrection(right, { at: at(2), text: "Plug was blue" }, "Plug was red", at(6))).toBe(right);
    expect(withCorrection(j, { at: at(0), text: "Job opened." }, "Job closed.", at(6))).toBe(j);
    expect(openDoc("job/j1", right)).toHaveProperty("doc");
    const text = notebookText({ plate: "AB 1" }, "Estate", { ...right, title: "Lamp" });
    expect(text).toContain(`${at(2)}  * Plug was green [until ${at(5)}: Plug was blue; with a photo]`);
  });

  it("is one line when two devices are joined, of which one put it right", () => {
    const here = note(job(), "read", "Plug was blue", at(2), "person");
    const there = withCorrection(here, { at: at(2), text: "Plug was blue" }, "Plug was green", at(5));
    for (const [a, b] of [
      [here, there],
      [there, here],
    ])
      expect(join(a, b).doc.notebook).toEqual(there.notebook);
  });

  it("of mileage and work stands by its day, and can be taken back", () => {
    const v = newVehicle(
      { id: "v1", plate: "AB 1", pack: "p", variant: "x", year: 1990, engine: "2.0", market: "eu" },
      at(0),
    );
    const told = withWork(withWork(v, { what: "", km: 90_000 }, at(9)), { what: "Belts", km: 80_000 }, at(3));
    expect(told.work?.map((w) => w.km)).toEqual([80_000, 90_000]);
    expect(lastKm(told)?.km).toBe(90_000);
    const back = withoutWork(told, { at: at(9), what: "" }, at(10));
    expect(lastKm(back)?.km).toBe(80_000);
    expect(openDoc("vehicle/v1", back)).toHaveProperty("doc");
    const events = historyOf(back, [], undefined);
    expect(events.map((e) => [e.kind, e.text, e.km])).toEqual([["work", "Belts", 80_000]]);
    expect(historyCsv("AB 1", events)).toContain(",work,,,80000,Belts,");
  });
});
