import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { buildDemo } from "./demo-fleet";
import { join } from "@core/record/join";
import { openDoc } from "@core/record/open";
import type { Job, Reading, Vehicle } from "@core/record/types";

const demo = buildDemo(Date.UTC(2026, 4, 2));
const of = <D>(id: string) => demo.find((d) => d.id === id) as D;
const job = of<Job>("demo-job-six");
const vehicle = of<Vehicle>("demo-sm233k");
const reading = of<Reading>("demo-job-old-1");
const line = (n: number, text: string) => ({
  at: new Date(Date.UTC(2026, 4, 3, 8, n)).toISOString(),
  by: "person" as const,
  step: "read" as const,
  text,
});

describe("one record as two devices went on with it", () => {
  it("holds the lines, repairs and rides of both, by time, and what either took back", () => {
    const repair = { at: line(5, "").at, what: "Plug cleaned", part: "", cost: "", cures: ["14"] };
    const here = { ...job, notebook: [...job.notebook, line(1, "a"), line(4, "d")], repairs: [repair] };
    const file = {
      ...job,
      notebook: [...job.notebook, line(2, "b"), line(4, "d")],
      repairs: [{ ...repair, withdrawnAt: line(9, "").at }],
    };
    const { doc, gains, conflicts } = join(here, file);
    expect(doc.notebook.slice(-3).map((n) => n.text)).toEqual(["a", "b", "d"]);
    expect(doc.repairs).toEqual(file.repairs);
    expect(gains).toEqual([{ field: "notebook", n: 1 }]);
    expect(conflicts).toEqual([]);
  });

  it("takes what only one side has, and asks where both say otherwise", () => {
    const here = { ...vehicle, plate: "HERE", drives: [] };
    const file = { ...vehicle, plate: "FILE", inspection: "2027-01-02", year: 1995 };
    const asked = join<Vehicle>(here, file);
    expect(asked.doc).toEqual({ ...here, inspection: "2027-01-02" });
    expect(asked.gains).toEqual([{ field: "inspection", n: 1 }]);
    expect(asked.conflicts.map((c) => c.field)).toEqual(["plate", "pack"]);
    const other = join<Vehicle>(here, file, (field) => (field === "pack" ? "file" : "here")).doc;
    expect([other.plate, other.year]).toEqual(["HERE", 1995]);
    const told = join(job, { ...job, story: { ...job.story, words: "other words" } });
    expect(told.conflicts).toEqual(
      job.story.words ? [{ field: "story.words", here: job.story.words, file: "other words" }] : [],
    );
  });

  it("says how a job ended in the words of one side, whole; a reading is of one side, whole", () => {
    const closed: Job = {
      ...job,
      closedAt: line(9, "").at,
      end: "fixed",
      verdict: "Fixed, as far as this drive can show.",
    };
    expect(join(job, closed).doc).toEqual(job);
    expect(join(job, closed).conflicts.map((c) => c.field)).toEqual(["closedAt"]);
    expect(join(job, closed, () => "file").doc).toEqual(closed);
    const other = { ...reading, marks: reading.marks.slice(1) };
    expect(join(reading, other).doc).toEqual(reading);
    expect(join(reading, other, () => "file").doc).toEqual(other);
  });

  it("can always be stored, loses no entry of either side, and joined once more gains nothing", () => {
    const some = fc.array(
      fc.integer({ min: 0, max: 30 }).map((n) => line(n, `line ${n}`)),
      { maxLength: 8 },
    );
    const side = fc.record({
      notebook: some,
      words: fc.constantFrom("", "a", "b"),
      done: fc.subarray([...job.done]),
      closed: fc.boolean(),
    });
    const made = ({
      notebook,
      words,
      done,
      closed,
    }: {
      notebook: Job["notebook"];
      words: string;
      done: Job["done"];
      closed: boolean;
    }): Job => ({
      ...job,
      notebook: [...job.notebook, ...notebook],
      story: { ...job.story, words },
      done,
      ...(closed && { closedAt: line(40, "").at, verdict: "v" }),
    });
    fc.assert(
      fc.property(side, side, fc.constantFrom("here" as const, "file" as const), (a, b, whose) => {
        const [here, file] = [made(a), made(b)];
        const { doc } = join(here, file, () => whose);
        expect(openDoc(`job/${doc.id}`, JSON.parse(JSON.stringify(doc)))).toEqual({ doc });
        for (const from of [here, file]) for (const n of from.notebook) expect(doc.notebook).toContainEqual(n);
        const again = join(doc, file, () => "here");
        expect(again.gains).toEqual([]);
        expect(again.doc).toEqual(doc);
        expect(join(doc, doc)).toEqual({ doc, gains: [], conflicts: [] });
      }),
    );
  });
});
