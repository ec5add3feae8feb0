import { beforeEach, describe, expect, it, vi } from "vitest";
import { newReading } from "@core/record/readings";
import type { Job, Reading, Vehicle } from "@core/record/types";
import { PACKS } from "@packs/index";

vi.mock("localforage", async () => ({ default: (await import("./test-store")).localforage }));
const { full, stores, storeOf } = await import("./test-store");
const { readGarage, readingsOf, removeJob, write, writeAll } = await import("./records");
const { readJob } = await import("./opening");
const { values } = await import("./boxes");
const { readValue, writeValue } = await import("./values");
const { dropLoose, keepLoose, readLoose, takeIn } = await import("./loose");
const { newJob } = await import("@core/record/job");
const { buildDemo } = await import("@packs/demo-fleet");

const demo = buildDemo(Date.UTC(2026, 4, 2));
const marks = [600, 1800, 4400].map((t, i) => ({ id: i + 1, t, up: t + 400 }));
const blank = newReading({
  id: "r",
  job: "-",
  vehicle: "-",
  system: "-",
  way: "-",
  dialect: "lead-in",
  input: "hold",
  run: "before",
  startedAt: "2026-05-02T08:00:00Z",
});
const loose: Reading = { ...blank, marks };
const speaks = (v: Vehicle, dialect: string) =>
  PACKS.find((p) => p.id === v.pack)!.dialects.some((d) => d.id === dialect);

beforeEach(async () => {
  full.clear();
  for (const held of stores.values()) held.clear();
  await values.set("moved", 1);
  await writeAll(demo);
});

const count = (name: string) => storeOf(name).size;

describe("a reading without a vehicle", () => {
  it("is here again after the page was closed, watched as long as it was", async () => {
    expect(await readLoose()).toBeNull();
    await keepLoose(loose);
    expect(await readLoose()).toEqual({ ...loose, until: 4800 + 1500 });
    await keepLoose({ ...loose, until: 9000 });
    expect((await readLoose())?.until).toBe(9000);
    // It is no record of the garage.
    expect(count("klinko-readings")).toBe(demo.filter((d) => d.kind === "reading").length);
    await dropLoose(loose);
    expect(await readLoose()).toBeNull();
  });

  it("that is damaged, or empty, is none", async () => {
    for (const bad of ["text", { ...loose, marks: [{ id: 1, t: "soon" }] }, blank, demo[0]]) {
      await writeValue("watch", bad);
      expect(await readLoose()).toBeNull();
      await expect(takeIn("demo-sm418t", "engine")).rejects.toMatchObject({ status: 409 });
    }
  });

  it("goes to the open job of that system, or to a new one where that has a reading of its own", async () => {
    const vehicle = demo.find((d): d is Vehicle => d.kind === "vehicle" && speaks(d, "lead-in"))!;
    for (const d of demo) if (d.kind === "job" && d.vehicle === vehicle.id) await removeJob(d);
    const open: Job = newJob(vehicle, "engine", "open", "2026-05-02T07:00:00Z");
    await write(open);
    await keepLoose(loose);
    const first = await takeIn(vehicle.id, "engine");
    expect([first.job.id, first.opened]).toEqual(["open", false]);
    expect(first.job.notebook.at(-1)!.text).toMatch(/taken in: 3 flashes/);
    expect(await readLoose()).toBeNull();
    const [mine] = await readingsOf(await readJob("open"));
    expect(mine).toMatchObject({ vehicle: vehicle.id, system: "engine", marks, recordedAt: null, until: 6300 });
    expect(mine.way).not.toBe("-");

    await keepLoose({ ...loose, id: "r2" });
    const second = await takeIn(vehicle.id, "engine");
    expect(second.opened).toBe(true);
    expect(second.job.id).not.toBe("open");
  });

  it("goes to no vehicle that does not talk so, and is not lost where it cannot be stored", async () => {
    await keepLoose(loose);
    const other = demo.find((d): d is Vehicle => d.kind === "vehicle" && !speaks(d, "lead-in"))!;
    await expect(takeIn(other.id, "engine")).rejects.toMatchObject({ status: 409 });
    await expect(takeIn("nobody", "engine")).rejects.toMatchObject({ status: 409 });
    full.add("klinko-readings");
    await expect(takeIn("demo-sm418t", "engine")).rejects.toThrow("no room");
    full.clear();
    expect((await readLoose())?.marks).toEqual(marks);
    // Half way, where just the job's record cannot be written: nothing is left behind.
    const before = [count("klinko-readings"), count("klinko-jobs")];
    const open = demo.find((d): d is Job => d.kind === "job" && d.vehicle === "demo-sm418t" && !d.closedAt)!;
    full.add("klinko-jobs");
    await expect(takeIn("demo-sm418t", open.system)).rejects.toThrow("no room");
    full.clear();
    expect([count("klinko-readings"), count("klinko-jobs")]).toEqual(before);
    expect((await takeIn("demo-sm418t", open.system)).job.id).toBe(open.id);
  });

  it("handed over twice at once, or by a page that died after it, is taken in once", async () => {
    await keepLoose(loose);
    const taken = await Promise.allSettled([1, 2, 3].map(() => takeIn("demo-sm418t", "engine")));
    expect(taken.map((t) => t.status).sort()).toEqual(["fulfilled", "rejected", "rejected"]);
    const ids = [...(await readGarage()).faces.values()].flatMap((f) =>
      f.open.flatMap((j) => j.readings.map((r) => r.id)),
    );
    expect(ids.filter((id) => id === "r")).toHaveLength(1);
    const [{ value }] = taken.filter((t) => t.status === "fulfilled");
    await writeValue("watch", { ...loose, taking: { at: new Date().toISOString(), job: value.job.id } });
    expect(await readLoose()).toBeNull();
    expect(await readValue("watch")).toBeNull();
  });
});
