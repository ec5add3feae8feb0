import { beforeEach, describe, expect, it, vi } from "vitest";
import { newReading } from "@core/record/readings";
import type { Job, Reading, Vehicle } from "@core/record/types";
import { PACKS } from "@packs/index";

vi.mock("localforage", async () => ({ default: (await import("./test-store")).localforage }));
const { full, stores } = await import("./test-store");
const { readEverything, write } = await import("./db");
const { dropLoose, keepLoose, readLoose, takeIn } = await import("./loose");
const { newJob } = await import("@core/record/job");
const { buildDemo } = await import("~/workers/demo");

const stored = stores.get("klinko")!;
const demo = buildDemo(Date.UTC(2026, 4, 2));
const marks = [600, 1800, 4400].map((t, i) => ({ id: i + 1, t, up: t + 400 }));
const blank = newReading({ id: "r", job: "-", vehicle: "-", system: "-", way: "-", dialect: "lead-in", input: "hold", run: "before", startedAt: "2026-05-02T08:00:00Z" }); // prettier-ignore
const loose: Reading = { ...blank, marks };
const speaks = (v: Vehicle, dialect: string) => PACKS.find((p) => p.id === v.pack)!.dialects.some((d) => d.id === dialect); // prettier-ignore

beforeEach(async () => {
  stored.clear();
  full.clear();
  for (const doc of demo) await write(doc);
});

describe("a reading without a vehicle", () => {
  it("is here again after the page was closed, watched as long as it was", async () => {
    expect(await readLoose()).toBeNull();
    await keepLoose(loose);
    expect(await readLoose()).toEqual({ ...loose, until: 4800 + 1500 });
    await keepLoose({ ...loose, until: 9000 });
    expect((await readLoose())?.until).toBe(9000);
    // It is no record of the garage.
    expect((await readEverything()).readings.every((r) => r.id !== "r")).toBe(true);
    await dropLoose(loose);
    expect(await readLoose()).toBeNull();
  });

  it("that is damaged, or empty, is none", async () => {
    for (const bad of ["text", { ...loose, marks: [{ id: 1, t: "soon" }] }, blank, demo[0]]) {
      stored.set("value/watch", bad);
      expect(await readLoose()).toBeNull();
      await expect(takeIn("demo-sm418t", "engine")).rejects.toMatchObject({ status: 409 });
    }
  });

  it("goes to the open job of that system, or to a new one where that has a reading of its own", async () => {
    const vehicle = demo.find((d): d is Vehicle => d.kind === "vehicle" && speaks(d, "lead-in"))!;
    for (const d of demo) if (d.kind === "job" && d.vehicle === vehicle.id) stored.delete(`job/${d.id}`);
    const open: Job = newJob(vehicle, "engine", "open", "2026-05-02T07:00:00Z");
    await write(open);
    await keepLoose(loose);
    const first = await takeIn(vehicle.id, "engine");
    expect([first.job.id, first.opened]).toEqual(["open", false]);
    expect(first.job.notebook.at(-1)!.text).toMatch(/taken in: 3 flashes/);
    expect(await readLoose()).toBeNull();
    const [mine] = (await readEverything()).readings.filter((r) => r.job === "open");
    expect(mine).toMatchObject({ vehicle: vehicle.id, system: "engine", marks, recordedAt: null, until: 6300 });
    expect(mine.way).not.toBe("-");

    await keepLoose(loose);
    const second = await takeIn(vehicle.id, "engine");
    expect(second.opened).toBe(true);
    expect(second.job.id).not.toBe("open");
  });

  it("goes to no vehicle that does not talk so, and is not lost where it cannot be stored", async () => {
    await keepLoose(loose);
    const other = demo.find((d): d is Vehicle => d.kind === "vehicle" && !speaks(d, "lead-in"))!;
    await expect(takeIn(other.id, "engine")).rejects.toMatchObject({ status: 409 });
    await expect(takeIn("nobody", "engine")).rejects.toMatchObject({ status: 409 });
    full.add("klinko");
    await expect(takeIn("demo-sm418t", "engine")).rejects.toThrow("no room");
    full.clear();
    expect((await readLoose())?.marks).toEqual(marks);
    // Half way, as where just the job's record is of a newer version: nothing is left behind.
    const before = stored.size;
    const open = demo.find((d): d is Job => d.kind === "job" && d.vehicle === "demo-sm418t" && !d.closedAt)!;
    const write_ = stored.set.bind(stored);
    stored.set = (key, value) => {
      if (key === `job/${open.id}`) throw new Error("no room");
      return write_(key, value);
    };
    await expect(takeIn("demo-sm418t", open.system)).rejects.toThrow("no room");
    stored.set = write_;
    expect(stored.size).toBe(before);
    expect((await takeIn("demo-sm418t", open.system)).job.id).toBe(open.id);
  });
});
