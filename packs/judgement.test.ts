import { describe, expect, it } from "vitest";
import { endsOf, endText } from "@core/job/end";
import { runToAsk, wasCleared } from "@core/job/epochs";
import { lockOf } from "@core/job/gates";
import { judge } from "@core/job/judge";
import { why } from "@core/job/say";
import { resultOf, resultOfRest } from "@core/record/readings";
import type { LampCheck, Reading, ReadingResult, SystemList } from "@core/record/types";
import { at, CARS, heard, list, Made, none } from "./testing/made-job";

describe("a reading", () => {
  it("is certain only where it was heard twice without a slip, by that lamp, in that table", () => {
    expect(new Made("norrvik").read(1, "engine", list(["26"])).known()).toMatchObject({
      answer: "codes",
      whole: "certain",
    });
    expect(new Made("norrvik").read(1, "engine", list(["26"], 1)).known().codes[0].sure).toBe("likely");
    const open = new Made("norrvik").read(1, "engine", list(["26"]), { looked: undefined });
    expect([open.known().codes[0].sure, open.known().doubts[0].kind]).toEqual(["likely", "look"]);
    expect(new Made("norrvik").read(1, "engine", list(["99"])).known().codes[0].sure).toBe("likely");
    // Recorded by an older Klinko.
    const { heard: _, ...old } = list(["26"]);
    expect(new Made("norrvik").read(1, "engine", old).known().codes[0].sure).toBe("likely");
  });

  it("of another lamp says nothing of the one that was asked", () => {
    const brake = new Made("norrvik").read(1, "engine", list(["23"]), { looked: { lamp: "ANTI-LOCK" } });
    expect(brake.known()).toMatchObject({ answer: "other-unit", codes: [] });
    expect(brake.kinds()).toContain("other-unit");
    // Not told which lamp, but the codes stand in the other one's table alone.
    const doubt = new Made("norrvik").read(1, "engine", list(["23"]), { looked: undefined }).known();
    expect([doubt.codes[0].sure, doubt.doubts.some((d) => d.kind === "other-table")]).toEqual(["unsure", true]);
  });

  it("that agrees with another one makes it surer, and one that does not is told", () => {
    const once = new Made("norrvik").read(1, "engine", list(["26", "43"], 1, 0.995));
    expect(once.known().codes.map((x) => x.sure)).toEqual(["likely", "likely"]);
    expect(once.read(8, "engine", list(["26", "43"], 1, 0.95)).known()).toMatchObject({
      whole: "certain",
      disagree: false,
    });
    // What leaves room for another list leaves room for the same one the next time.
    const open = new Made("norrvik").read(1, "engine", list(["26"], 1, 0.95)).read(8, "engine", list(["26"], 1, 0.95));
    expect(open.known().codes[0].sure).toBe("likely");
    const odds = once.read(15, "engine", list(["26"]));
    expect([odds.known().disagree, odds.sure("list-whole")]).toEqual([true, "likely"]);
    expect(odds.kinds()).toContain("readings-disagree");
  });

  it("that holds a code more keeps others that agree from being the whole list", () => {
    const two = ["19", "43"];
    const cut = (p: number): ReadingResult => ({ ...list(two, 1, p), complete: false });
    const short = new Made("hollin-pike").read(1, "engine", { ...list(two, 1), complete: true });
    short.read(8, "engine", { ...list([...two, "67"], 1, 0.95), complete: false }).read(15, "engine", cut(0.87));
    expect(short.known().codes.map((x) => x.code)).toEqual(two);
    expect(short.known().whole).toBe("unsure");
  });

  it("of which none is worth much lets the clear go on once there are three: all that was heard is written down", () => {
    const doubtful = (n: number) => {
      const made = new Made("lindqvar");
      for (let i = 0; i < n; i++) made.read(1 + 7 * i, "engine", list(["15", "26"], 1, 0.4), { input: "counts" });
      return lockOf(made.c.job, made.c.readings, "clear");
    };
    expect(doubtful(2)).toBe("after a usable reading");
    expect(doubtful(3)).toBeNull();
  });

  it("of numbers that were counted in the head is certain only where each is seen at a glance, or something else heard it", () => {
    const counted = (code: string) =>
      new Made("lindqvar").read(1, "engine", list([code], 3), { input: "counts", looked: { socket: "4" } });
    expect(counted("3").known().codes[0].sure).toBe("certain");
    expect(counted("9").known().codes[0].sure).toBe("likely");
    // Three and four, one off by turns, however often.
    const turns = new Made("lindqvar").read(1, "engine", list(["4", "3"], 3), {
      input: "counts",
      looked: { socket: "4" },
    });
    expect(turns.known().codes.map((x) => x.sure)).toEqual(["likely", "likely"]);
    // A look at the lamp that made nothing out for itself cannot lend its certainty to what was counted.
    const lent = counted("9").read(8, "engine", list(["9"], 0, 0.999), { input: "press", looked: { socket: "4" } });
    expect(lent.known().codes[0].sure).toBe("likely");
    expect(
      lent.read(15, "engine", list(["9"], 2), { input: "press", looked: { socket: "4" } }).known().codes[0].sure,
    ).toBe("certain");
  });

  it("that was taken back counts for nothing, and is still there", () => {
    const made = new Made("norrvik").read(1, "engine", list(["26"]), { withdrawnAt: at(5) });
    expect(made.known().answer).toBe("not-read");
    expect([made.c.readings.length, lockOf(made.c.job, made.c.readings, "clear")]).toEqual([
      1,
      "after a usable reading",
    ]);
  });

  it("of a list shown once is no proof unless its start was seen", () => {
    const end = (more: Partial<Reading>) =>
      new Made("hollin-pike").read(1, "engine", none(), { marks: [{ id: 1, t: 6600 }], ...more }).known();
    expect(end({}).none).toBe("unsure");
    expect(end({ keyOn: true }).none).toBe("certain");
    // The first flash came far too late: codes went by before it.
    expect(end({ keyOn: true, marks: [{ id: 1, t: 16_000 }] }).none).toBe("unsure");
    // The key going on was tapped as well.
    expect(
      end({
        keyOn: true,
        marks: [
          { id: 1, t: 300 },
          { id: 2, t: 6600 },
        ],
      }).none,
    ).toBe("certain");
  });

  it("of a lamp that does not blink means what it means on this vehicle", () => {
    const rest = (id: keyof typeof CARS, rested: Reading["rested"]) =>
      new Made(id).read(1, "engine", resultOfRest(rested!, 20_000), { rested }).known();
    expect(rest("norrvik", "lit").answer).toBe("no-answer");
    expect(rest("calverra", "lit").answer).toBe("no-answer");
    expect(rest("calverra", "lit-then-dark")).toMatchObject({ answer: "none", none: "likely" });
    expect(rest("calverra", "dark")).toMatchObject({ answer: "none", none: "unsure" });
    expect(rest("tarvello", "lit")).toMatchObject({ answer: "none", none: "unsure" });
  });

  it("keeps what is there now apart from what was stored", () => {
    const both: ReadingResult = { ...list(["231", "233"]), memories: { live: ["231"], stored: ["231", "233"] } };
    both.heard = {
      ...heard([], 2),
      exactShown: { live: { "231": 2 }, stored: { "231": 2, "233": 2 } },
      memoryConfidence: { live: { "231": 1 }, stored: { "231": 1, "233": 1 } },
    };
    const made = new Made("dunmarrow").read(1, "engine", both, { keyOn: true, marks: [{ id: 1, t: 8200 }] });
    expect(made.known().codes.map((x) => `${x.memory} ${x.code} ${x.sure}`)).toEqual([
      "live 231 certain",
      "stored 231 certain",
      "stored 233 certain",
    ]);
  });

  it("pressed for, one code again and again is all of the list only after two rounds of a neighbour that was counted short", () => {
    const pressed = (times: number) =>
      new Made("lindqvar").read(1, "engine", list(["9"], times), { input: "press", looked: { socket: "4" } }).known();
    expect([2, 3, 4].map((n) => [pressed(n).codes[0].code, pressed(n).whole])).toEqual([
      ["9", "likely"],
      ["9", "likely"],
      ["9", "certain"],
    ]);
  });

  it("that is there now is not certain any more once a newer answer does not name it", () => {
    const live = (codes: string[], n: number): ReadingResult => ({
      ...list(codes, n),
      heard: { ...heard(codes, n), exactShown: { live: Object.fromEntries(codes.map((c) => [c, n])) } },
    });
    const made = new Made("dunmarrow").read(1, "engine-run", live(["231"], 2)).clear(5, { wiped: ["engine"] });
    const after = made.read(9, "engine-run", live(["231", "233"], 2));
    expect(after.rows("engine-run").rows.map((r) => [r.code, r.persistence, r.sure])).toContainEqual([
      "233",
      "hard",
      "certain",
    ]);
    // Heard without a slip not once: it cannot say that the other is gone, but that is no certainty that it is there.
    const doubted = after.read(12, "engine-run", live(["231"], 0));
    expect(doubted.rows("engine-run").rows.map((r) => [r.code, r.persistence, r.sure])).toContainEqual([
      "233",
      "hard",
      "likely",
    ]);
  });

  it("typed off a display is likely, however often, and a system that it does not name is not read", () => {
    const typed = (codes: string[]): Partial<Reading> => {
      const lists: Record<string, SystemList> = { engine: { state: "codes", codes, unclear: [] } };
      return { input: "modules", lists, result: resultOf(lists.engine), looked: undefined };
    };
    const made = new Made("aldermoor").read(1, "engine", null, typed(["13"]));
    expect([made.known().codes[0].sure, made.known("body").answer]).toEqual(["likely", "not-read"]);
    // One character is soon taken for the same other one twice.
    expect(made.read(6, "engine", null, typed(["13"])).known().codes[0].sure).toBe("likely");
    expect(made.read(9, "engine", null, typed(["13"])).known().codes[0].sure).toBe("likely");
  });
});

describe("the proof", () => {
  const before = () => new Made("norrvik").read(1, "engine", list(["26", "43"])).clear(10);

  it("classifies by what returned and when", () => {
    const made = before()
      .read(15, "engine", list(["43"]), { run: "key-on" })
      .read(60, "engine", list(["26", "43"]), { run: "drive" });
    expect(made.persistence()).toEqual({ "26": "intermittent", "43": "hard" });
    expect(made.says()).toMatch(
      /43 came back at once: a hard fault.*26 came back on the road: intermittent.*Not fixed\./,
    );
    expect(
      before()
        .read(60, "engine", list(["26"]), { run: "drive" })
        .persistence(),
    ).toEqual({ "26": "back", "43": "gone" });
  });

  it("calls nothing hard while the clear may not have taken", () => {
    const made = before().read(15, "engine", list(["26", "43"]), { run: "key-on" });
    expect([made.persistence(), made.rows().clearTook]).toEqual([{ "26": "still", "43": "still" }, false]);
    expect(made.says()).toMatch(/still stored: back at once, or the clear did not take/);
  });

  it("says fixed only after a drive that can have been, and never surer than the word of who drove", () => {
    const quiet = before().read(15, "engine", none(), { run: "key-on" });
    expect([quiet.persistence()["26"], quiet.says()]).toEqual(["quiet", expect.stringMatching(/Not proven: drive/)]);
    // A quarter of an hour cannot have passed in a minute.
    const soon = before().read(11, "engine", none(), { run: "drive" });
    expect([soon.persistence()["26"], soon.rows().tooSoon, soon.says()]).toEqual([
      "quiet",
      true,
      expect.stringMatching(/Not proven/),
    ]);
    const fixed = before().read(40, "engine", none(), { run: "drive" });
    expect([fixed.says(), fixed.sure("verdict")]).toEqual([
      "26 and 43 stayed away over the drive that you told of. Fixed, as far as this drive can show.",
      "likely",
    ]);
    expect(runToAsk(fixed.c, "engine")).toBe("drive");
    const [verdict] = judge(fixed.c).statements.filter((s) => s.kind === "persistence");
    expect(why(verdict, fixed.c, (t) => t).join(" ")).toMatch(/memory fuse.*You told of the drive/);
    expect(endsOf(judge(fixed.c))[0]).toBe("fixed");
  });

  it("takes a drive's list that was not seen whole for nothing known", () => {
    const part: ReadingResult = { ...list(["43"]), complete: false, heard: { ...heard(["43"], 2), completeness: 0.4 } };
    const made = before().read(40, "engine", part, { run: "drive" });
    expect([made.persistence()["26"], made.says()]).toEqual(["open", expect.stringMatching(/Not fixed/)]);
  });

  it("does not forget over a second clear what was read before the first", () => {
    const made = before()
      .read(15, "engine", list(["26"]), { run: "key-on" })
      .clear(20)
      .read(60, "engine", none(), { run: "drive" });
    expect(made.persistence()).toEqual({ "26": "gone", "43": "gone" });
  });

  it("counts expected and status codes neither as faults nor as news", () => {
    const made = new Made("norrvik", { changes: [{ text: "EGR off", codes: ["43"] }] });
    const status = made.c.pack.tables
      .find((t) => t.system === "engine")!
      .entries.find((e) => e.kind === "status")!.code;
    made
      .read(1, "engine", list(["43"]))
      .clear(10)
      .read(40, "engine", list([status, "43"]), { run: "drive" });
    expect(
      made
        .rows()
        .rows.map((r) => r.kind)
        .sort(),
    ).toEqual(["expected", "status"]);
    expect(made.rows().state).toBe("nothing");
    expect(made.says()).not.toMatch(/new|back|Not fixed/);
  });

  it("speaks of every system: one that still stores something is no part of fixed, one never read is not clear", () => {
    const made = before().read(5, "brake", list(["23"]));
    made.read(40, "engine", none(), { run: "drive" });
    expect(made.says()).toBe(
      "Engine: 26 and 43 stayed away over the drive that you told of. Brakes: 23 is still stored, not cleared.",
    );
    expect(
      new Made("norrvik")
        .read(1, "engine", none())
        .kinds()
        .filter((k) => k === "not-read"),
    ).toHaveLength(1);
    // The battery was off: the brakes were wiped too, and have to be read again.
    made.clear(45, { way: "battery", wiped: ["engine", "brake"] });
    expect([wasCleared(made.c, "brake"), made.says()]).toEqual([
      true,
      expect.stringMatching(/Brakes: read the lamp again/),
    ]);
  });

  it("books one code that was wiped alone on that code, and the memory once all are", () => {
    const made = new Made("lindqvar").read(1, "engine", list(["3", "14"]), { looked: { socket: "4" }, input: "press" });
    const one = (code: string, minute: number) => made.clear(minute, { way: "button-engine", wiped: ["engine"], code });
    expect(wasCleared(one("3", 5).c, "engine")).toBe(false);
    expect(wasCleared(one("14", 7).c, "engine")).toBe(true);
  });

  it("can be ended from anywhere: handed over and given up are always there", () => {
    for (const made of [new Made("norrvik"), before(), before().read(15, "engine", list(["26"]), { run: "key-on" })]) {
      expect(endsOf(judge(made.c))).toEqual(expect.arrayContaining(["handed-over", "given-up"]));
      expect(endText(made.c, "given-up")).toMatch(/^Given up\. \S/);
    }
  });
});

describe("the lamp check", () => {
  const check = (id: keyof typeof CARS, units: LampCheck["units"]) => {
    const made = new Made(id);
    const own = units!.engine;
    made.c.job.lampCheck = { at: at(1), seen: own.lamp ?? "steady", others: "not-checked", units };
    return made;
  };
  it("never calls the lamp alone dead while another output is, or was not looked at", () => {
    const dark = (outputs: Record<string, "works" | "dead">) => check("norrvik", { engine: { lamp: "dark", outputs } });
    expect(dark({ pump: "works", shift: "works" }).kinds()).toContain("only-lamp");
    expect(dark({ pump: "works" }).kinds()).not.toContain("only-lamp");
    const mixed = dark({ pump: "works", shift: "dead" }).kinds();
    expect([mixed.includes("only-lamp"), mixed.includes("unit-alive")]).toEqual([false, true]);
    expect(dark({ pump: "dead", shift: "dead" }).kinds()).toContain("unit-suspect");
  });
  it("locks a way that needs that lamp, and no other", () => {
    const { c } = check("norrvik", { engine: { lamp: "dark", outputs: {} }, brake: { lamp: "steady", outputs: {} } });
    const lock = (unit: string[], byLamp: boolean) => lockOf(c.job, [], "read", { unit, byLamp });
    expect([lock(["engine"], true), lock(["brake"], true), lock(["engine"], false)]).toEqual([
      "the lamp is dark",
      null,
      null,
    ]);
    c.job.lampCheck = { ...c.job.lampCheck!, units: { engine: { lamp: "goes-out", outputs: {} } } };
    expect(lock(["engine"], true)).toBeNull();
  });
});
