import { expect, it } from "vitest";
import { entriesFor } from "@core/pack/scope";
import { laterBy } from "@core/record/later";
import { openDoc } from "@core/record/open";
import { DEMO_FAULTS } from "./demo-faults";
import { packById } from "./index";
import { buildDemo } from "./demo-fleet";

it("the demo fleet opens as any other records do, and was read right", () => {
  const docs = buildDemo(Date.UTC(2026, 10, 24));
  for (const doc of docs) expect(openDoc(doc.id, JSON.parse(JSON.stringify(doc)))).toEqual({ doc });
  const codes = docs.flatMap((d) => (d.kind === "reading" ? [[d.id, d.result?.codes.join(" ")]] : []));
  expect(Object.fromEntries(codes)).toEqual({
    "demo-job-six-1": "14 35",
    "demo-job-pickup-1": "21 27",
    "demo-job-pickup-2": "",
    "demo-job-old-1": "5 21",
    "demo-job-old-2": "5",
    "demo-job-hatch-1": "14 27",
    "demo-job-hatch-2": "27",
  });
});

it("made at one time and moved to another it is what would have been made then", () => {
  const [then, now] = [Date.UTC(2026, 10, 24), Date.UTC(2029, 1, 3, 4, 5, 6)];
  expect(laterBy(buildDemo(then), now - then)).toEqual(buildDemo(now));
});

it("the demo vehicles that are there to be read hide faults of their own table", () => {
  const fleet = buildDemo(0).filter((d) => d.kind === "vehicle");
  for (const [id, faults] of Object.entries(DEMO_FAULTS)) {
    const vehicle = fleet.find((v) => v.id === id)!;
    for (const f of faults)
      expect(entriesFor(packById(vehicle.pack)!, vehicle, f.system).map((e) => e.code)).toContain(f.code);
  }
});
