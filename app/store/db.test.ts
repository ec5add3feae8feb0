import { beforeEach, describe, expect, it, vi } from "vitest";
import { newJob } from "@core/record/job";
import type { Vehicle } from "@core/record/types";

vi.mock("localforage", async () => ({ default: (await import("./test-store")).localforage }));
const { full, stores } = await import("./test-store");
const { bringIn, changeJob, changeValue, changeVehicle, readEverything, readJob, readingWriter, write } =
  await import("./db");
const { buildDemo } = await import("~/workers/demo");

const demo = buildDemo(Date.UTC(2026, 4, 2));
const vehicle = demo.find((d): d is Vehicle => d.kind === "vehicle")!;
const reading = demo.find((d) => d.kind === "reading")!;
const job = newJob(vehicle, "engine", "j1", "2026-05-02T08:00:00Z");

const stored = stores.get("klinko")!;

beforeEach(() => {
  stored.clear();
  full.clear();
});

describe("records in the browser", () => {
  it("changes asked at once are all kept, whatever the order in which the store answers", async () => {
    await write(job);
    await write(vehicle);
    const texts = Array.from({ length: 12 }, (_, i) => `line ${i}`);
    await Promise.all([
      ...texts.map((text) => changeJob("j1", (j) => ({ ...j, story: { ...j.story, words: `${j.story.words}|${text}` } }))), // prettier-ignore
      ...texts.map((text) =>
        changeVehicle(vehicle.id, (v) => ({ ...v, changes: [...v.changes, { text, codes: [] }] })),
      ),
      ...texts.map((text) => changeValue("seen", (v) => [...((v as string[] | null) ?? []), text])),
    ]);
    const all = await readEverything();
    expect(all.jobs[0].story.words).toBe(`${job.story.words}|${texts.join("|")}`);
    expect(all.vehicles[0].changes.slice(-12).map((c) => c.text)).toEqual(texts);
    expect(stored.get("value/seen")).toEqual(texts);
  });

  it("a change that fails stops none that follow", async () => {
    await write(job);
    const failed = changeJob("j1", () => {
      throw new Error("no");
    });
    const next = changeJob("j1", (j) => ({ ...j, system: "abs" }));
    await expect(failed).rejects.toThrow("no");
    expect((await next).system).toBe("abs");
    expect((await readJob("j1")).system).toBe("abs");
  });

  it("never writes over a record that this version cannot read", async () => {
    const newer = { ...job, version: 99 };
    stored.set("job/j1", newer);
    await expect(write(job)).rejects.toMatchObject({ status: 409 });
    await expect(changeJob("j1", (j) => j)).rejects.toMatchObject({ status: 409 });
    expect(stored.get("job/j1")).toEqual(newer);
    const all = await readEverything();
    expect(all.jobs).toEqual([]);
    expect(all.locked.map((l) => l.key)).toEqual(["job/j1"]);
    await expect(readJob("j2")).rejects.toMatchObject({ status: 404 });
  });

  it("a file that is brought in adds what is missing and leaves the rest", async () => {
    const mine = { ...vehicle, plate: "MINE 1" };
    await write(mine);
    const merge = await bringIn(demo);
    expect(stored.get(`vehicle/${vehicle.id}`)).toEqual(mine);
    expect(merge.add).toHaveLength(demo.length - 1);
    expect(stored.size).toBe(demo.length);
    expect((await bringIn(demo)).add).toEqual([]);
  });

  it("goes on storing a reading after a write that failed, and tells of that one", async () => {
    const save = readingWriter();
    full.add("klinko");
    await expect(save(reading)).rejects.toThrow("no room");
    full.clear();
    await save({ ...reading, startedAt: "2026-05-02T09:00:00Z" });
    expect(stored.get(`reading/${reading.id}`)).toMatchObject({ startedAt: "2026-05-02T09:00:00Z" });
  });

  it("waits for other tabs where the browser has locks for that", async () => {
    await write(job);
    const asked: string[] = [];
    const locks = { request: (name: string, run: () => Promise<unknown>) => (asked.push(name), run()) };
    vi.stubGlobal("navigator", { locks });
    await changeJob("j1", (j) => ({ ...j, system: "abs" }));
    vi.unstubAllGlobals();
    expect(asked).toEqual(["klinko job/j1"]);
    expect((await readJob("j1")).system).toBe("abs");
  });

  it("of states of a reading that come quicker than they are written the last one is stored", async () => {
    const save = readingWriter();
    const states = Array.from({ length: 30 }, (_, i) => ({ ...reading, startedAt: `2026-05-02T08:00:${10 + i}Z` }));
    await Promise.all(states.map(save));
    expect(stored.get(`reading/${reading.id}`)).toEqual(states.at(-1));
  });
});
