import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { driveAdvice } from "@core/diagnosis/drive";
import { reasonsFor } from "@core/diagnosis/reasons";
import { checkWords } from "@core/diagnosis/words";
import { checksOf } from "@core/diagnosis/checks";
import { codeKey, grouped, weigh } from "@core/diagnosis/weigh";
import { drivable } from "@core/job/drivable";
import { judge } from "@core/job/judge";
import { suspectsAsked } from "@core/job/suspects";
import { searchCodes } from "@core/pack/search";
import { entriesFor } from "@core/pack/scope";
import { EMPTY_STORY, withCheck, withLampCheck, withoutDone, withRepair } from "@core/record/job";
import type { Story } from "@core/record/types";
import { PACKS } from "./index";
import { at, list, Made, none } from "./testing/made-job";

const repair = { what: "Mended", part: "", cost: "", cures: ["27", "32", "53"] };
const three = () => new Made("norrvik").read(1, "engine", list(["27", "32", "53"]));
const codesOf = (m: Made) => suspectsAsked(m.c).codes.map((c) => c.code);

describe("what the suspects of a job are weighed from", () => {
  it("is what was read surely: not what was doubtful, in no table, expected, or a status", () => {
    expect(codesOf(three())).toEqual(["27", "32", "53"]);
    const doubtful = new Made("norrvik").read(1, "engine", list(["27", "32"], 1, 0.3));
    expect(suspectsAsked(doubtful.c)).toMatchObject({ codes: [], aside: ["27", "32"] });
    const odd = new Made("norrvik").read(1, "engine", list(["12", "27", "99"]));
    expect(suspectsAsked(odd.c)).toMatchObject({ codes: [{ code: "27" }], aside: ["99"] });
    const expected = new Made("norrvik", { changes: [{ text: "Air pump removed", codes: ["17"] }] });
    const asked = suspectsAsked(expected.read(1, "engine", list(["17", "27"])).c);
    expect(asked.codes.map((c) => c.code)).toEqual(["27"]);
    // Neither there as a fault, nor counted as quiet.
    expect(asked.found.absent).not.toContain(codeKey("engine", "17"));
  });

  it("counts a code as quiet only where the list was seen whole", () => {
    const whole = suspectsAsked(three().c).found;
    expect(whole.absent).toContain(codeKey("engine", "14"));
    const part = { ...list(["27"]), complete: false };
    part.heard = { ...part.heard!, wholeRound: false, completeness: 0.4 };
    expect(suspectsAsked(new Made("norrvik").read(1, "engine", part).c).found.absent).toEqual([]);
    expect(suspectsAsked(new Made("norrvik").read(1, "engine", none()).c)).toMatchObject({ codes: [] });
  });

  it("leaves out what only licensed people may touch, and what a unit says that cannot be trusted", () => {
    const airbag = new Made("lindqvar").read(1, "airbag", list(["6"]));
    expect(suspectsAsked(airbag.c)).toMatchObject({ codes: [], licensed: ["Airbag (SRS)"] });
    const memory = suspectsAsked(new Made("norrvik").read(1, "engine", list(["27", "51"])).c);
    expect(memory).toMatchObject({ codes: [{ code: "51" }], distrusted: ["27"] });
    expect(memory.first[0]).toMatch(/^Stop here/);
    expect(memory.found.absent).toEqual([]);
  });

  it("does not suspect again what was mended, before it was cleared and read", () => {
    const m = three();
    m.c.job = withRepair(m.c.job, repair, at(10));
    expect(suspectsAsked(m.c)).toMatchObject({ codes: [], mended: ["27", "32", "53"] });
    // Read again without a clear: what is stored may be the old story.
    m.read(12, "engine", list(["27", "32", "53"]));
    expect(suspectsAsked(m.c).mended).toHaveLength(3);
    // Cleared, and back: it was not that.
    m.clear(15).read(20, "engine", list(["32"]), { run: "key-on" });
    expect(suspectsAsked(m.c)).toMatchObject({ codes: [{ code: "32" }], mended: [] });
    const back = three();
    back.c.job = withoutDone(withRepair(back.c.job, repair, at(10)), "repairs", at(10), at(11));
    expect(codesOf(back)).toHaveLength(3);
  });

  it("takes the last outcome of a check, and none of what was mended and cleared since", () => {
    const m = three();
    const done = (outcome: "good" | "bad", minute: number) =>
      (m.c.job = withCheck(m.c.job, { check: "look-plug:engine-1", title: "Look", outcome }, at(minute)));
    done("bad", 5);
    done("good", 6);
    expect(suspectsAsked(m.c).found.checks).toEqual([{ id: "look-plug:engine-1", bad: false }]);
    done("bad", 7);
    m.c.job = withRepair(m.c.job, repair, at(10));
    expect(suspectsAsked(m.c).found.checks).toHaveLength(1);
    m.clear(12);
    expect(suspectsAsked(m.c).found.checks).toEqual([]);
  });
});

describe("what is said of suspects and checks", () => {
  it("is whole sentences for whatever is stored on any vehicle, and the table's cautions stand at the checks", () => {
    fc.assert(
      fc.property(fc.constantFrom("norrvik", "calverra", "hollin-pike", "lindqvar"), fc.nat(), fc.nat(), (id, a, b) => {
        const m = new Made(id);
        const all = entriesFor(m.c.pack, m.c.vehicle, "engine").filter((e) => e.kind === "fault" && !e.first);
        const codes = [...new Set([all[a % all.length].code, all[b % all.length].code])];
        const asked = suspectsAsked(m.read(1, "engine", list(codes)).c);
        for (const group of grouped(weigh(asked.graph, asked.found).suspects))
          for (const line of reasonsFor(group, asked)) expect(line).toMatch(/^[A-Z0-9].*[^\s,:]\.$/);
        const checks = weigh(asked.graph, asked.found).checks;
        expect(new Set(checks.map((c) => checkWords(c).title)).size, "two checks of one name").toBe(checks.length);
        for (const c of checks) {
          const told = c.circuit?.entries.find((e) => e.caution)?.caution;
          if (told) expect(checkWords(c).caution).toContain(told);
        }
      }),
      { numRuns: 80 },
    );
    expect(PACKS.flatMap((p) => p.tables.flatMap((t) => t.entries.filter((e) => e.caution))).length).toBeGreaterThan(0);
  });

  it("many bad outcomes at once are weighed as far as they can be", () => {
    const { graph, found } = suspectsAsked(new Made("norrvik").read(1, "engine", list(["14", "27", "32", "53", "26", "43"])).c); // prettier-ignore
    const checks = checksOf(graph).map((c) => ({ id: c.id, bad: true }));
    const w = weigh(graph, { ...found, checks });
    expect(w.suspects.every((s) => s.p >= 0 && s.p <= 1)).toBe(true);
    expect(w.leftOut).toEqual([]);
  });
});

describe("whether it can be driven", () => {
  it("hangs on the worst fault of all systems, also of one that was not read surely; what no table says is told", () => {
    const entry = (code: string, drive?: "on" | "gently" | "stop") => ({ code, entry: { code, drive } as never });
    expect(driveAdvice([entry("1", "on"), entry("2", "stop"), entry("3")])).toMatchObject({
      drive: "stop",
      untold: ["3"],
    });
    expect(driveAdvice([entry("3"), { code: "4", entry: null }])).toBeNull();
    const m = new Made("norrvik").read(1, "engine", list(["17"])).read(5, "brake", list(["31"]));
    expect(drivable(m.c, judge(m.c).systems)).toMatchObject({ drive: "gently", because: [{ code: "31" }] });
    const unsure = new Made("norrvik").read(1, "engine", list(["22"], 1, 0.3));
    expect(drivable(unsure.c, judge(unsure.c).systems)!.drive).toBe("stop");
  });
});

describe("a code that is looked for", () => {
  it("is found by its number and make, its circuit, or its words, and every word has to fit", () => {
    for (const pack of PACKS)
      for (const t of pack.tables)
        for (const e of t.entries.slice(0, 3)) {
          const { found } = searchCodes(PACKS, `${pack.make.toLowerCase()} ${e.code} ${e.title.split(" ")[0]}`);
          expect(
            found.some((f) => f.entry === e),
            `${pack.id} ${e.code}`,
          ).toBe(true);
          expect(found[0].entry.code).toBe(e.code);
        }
    expect(searchCodes(PACKS, "norrvik 22 flux")).toEqual({ found: [], all: 0 });
    expect(searchCodes(PACKS, " .,; ").all).toBe(0);
    expect(searchCodes(PACKS, "signal", 5).found).toHaveLength(5);
  });
});

describe("what is told besides codes", () => {
  const told = (m: Made, story: Partial<Story>) => {
    m.c.job = { ...m.c.job, story: { ...EMPTY_STORY, ...story } };
    const asked = suspectsAsked(m.c);
    const groups = grouped(weigh(asked.graph, asked.found).suspects);
    return { asked, groups, share: (id: RegExp) => groups.find((g) => id.test(g.id))?.p ?? 0 };
  };
  const lean = () => new Made("norrvik").read(1, "engine", list(["18"]));

  it("moves what it fits up, and says so", () => {
    const plain = told(lean(), {});
    const idle = told(lean(), { symptoms: ["Hunting idle", "High idle"], speed: "standing" });
    const weak = told(lean(), { symptoms: ["Less power"], load: "hard" });
    expect(idle.share(/air-leak/)).toBeGreaterThan(plain.share(/air-leak/));
    expect(weak.share(/fuel-pressure/)).toBeGreaterThan(plain.share(/fuel-pressure/));
    expect(weak.share(/air-leak/)).toBeLessThan(plain.share(/air-leak/));
    const leak = idle.groups.find((g) => /air-leak/.test(g.id))!;
    const reasons = reasonsFor(leak, idle.asked).join(" ");
    expect(reasons).toMatch(
      /It fits what the engine does: high idle, hunting idle\. Likelier because it comes while standing\./,
    );
    // Nobody was asked: nothing speaks for or against.
    expect(plain.asked.found.observed).toEqual({ present: [], absent: [] });
  });

  it("takes what was just worked on before all else, at its place only", () => {
    const plain = told(three(), {});
    const worked = told(three(), { before: ["Just worked on"], worked: ["Exhaust"] });
    expect(worked.share(/loom/)).toBeGreaterThan(plain.share(/loom/));
    expect(worked.asked.shifts.map((s) => s.because)).toEqual(["it was just worked on there"]);
  });

  it("holds what the lamp check measured against the suspects", () => {
    const before = told(three(), {}).share(/unit-ground/);
    const m = three();
    const seen = (ground: "good" | "bad") => ({ engine: { lamp: "steady" as const, outputs: {}, ground } });
    m.c.job = withLampCheck(m.c.job, "steady", "not-checked", at(2), seen("bad"));
    expect(told(m, {}).share(/unit-ground/)).toBeGreaterThan(Math.max(0.5, before));
    m.c.job = withLampCheck(m.c.job, "steady", "not-checked", at(3), seen("good"));
    expect(told(m, {}).share(/unit-ground/)).toBeLessThan(before);
  });
});
