import Papa from "papaparse";
import { expect, it } from "vitest";
import { historyCsv, historyOf } from "@core/job/history";
import { withRepair, withRides } from "@core/record/job";
import { at, list, Made, none } from "./testing/made-job";

it("the history of a vehicle holds all that was recorded and stands, by date, and goes into a spreadsheet as text", () => {
  const made = new Made("norrvik", {
    drives: [{ at: at(3), cameOn: true, conditions: ["Wet"] }],
  })
    .read(6, "engine", list(["26", "43"]))
    .read(8, "engine", list(["14"]), { withdrawnAt: at(9) })
    .clear(20)
    .read(60, "engine", none(), { run: "drive" })
    .read(70, "brake", null, { recordedAt: null });
  const told = { what: "=Splice soldered", part: "S12", cost: "", cures: ["26"] };
  const ride = { at: at(30), seconds: 900, above: null, idle: null, counts: "yes" as const, says: "counts.", by: "hand" as const }; // prettier-ignore
  made.c.job = withRides(withRepair(made.c.job, told, at(15)), [ride], at(50));
  const events = historyOf(made.c.vehicle, [{ job: made.c.job, readings: made.c.readings }], made.c.pack);
  expect(events.map((e) => [e.kind, e.text])).toEqual([
    ["job", "Job opened: New job"],
    ["lamp", "The lamp came on, wet"],
    ["codes", "Engine read by tapping: 26, 43"],
    ["repair", "=Splice soldered, part S12"],
    ["clear", "Pull the memory fuse"],
    ["ride", "Ride of 15 min: counts."],
    ["codes", "Engine read by tapping: no code shown"],
  ]);
  expect(events.find((e) => e.kind === "repair")!.codes).toEqual(["26"]);
  const rows = Papa.parse<Record<string, string>>(historyCsv("=P", events), { header: true }).data;
  expect(rows).toHaveLength(events.length);
  expect(rows[2]).toMatchObject({
    time: at(6),
    vehicle: "'=P",
    kind: "codes",
    system: "engine",
    codes: "26 43",
    job: "j",
  });
  // What a spreadsheet would work out is given as text.
  expect(rows[3].text).toBe("'=Splice soldered, part S12");
  // Of a make that is not known here the records still tell.
  expect(historyOf(made.c.vehicle, [{ job: made.c.job, readings: made.c.readings }], undefined)[4].text).toBe(
    "memory-fuse",
  );
});
