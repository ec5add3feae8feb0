import { beforeEach, describe, expect, it, vi } from "vitest";
import { newJob, withReading } from "@core/record/job";
import { newReading } from "@core/record/readings";
import type { Job, Reading, Vehicle } from "@core/record/types";

vi.mock("localforage", async () => ({ default: (await import("./test-store")).localforage }));
const { full, hung, missing, stores, storeOf } = await import("./test-store");
const {
  changeJob,
  changeVehicle,
  readCard,
  readGarage,
  readingsOf,
  readingWriter,
  removeJob,
  removeVehicle,
  write,
  writeReading,
} = await import("./records");
const { readJob } = await import("./opening");
const { bringIn } = await import("./bring-in");
const { exportEverything } = await import("./save-records");
const exported = async () => (await exportEverything()).text();
const { changeValue, readValue } = await import("./values");
const { move } = await import("./move");
const { boxes, values } = await import("./boxes");
const { buildDemo } = await import("@packs/demo-fleet");

const demo = buildDemo(Date.UTC(2026, 4, 2));
const vehicle = demo.find((d): d is Vehicle => d.kind === "vehicle")!;
const job = newJob(vehicle, "engine", "j1", "2026-05-02T08:00:00Z");
const reading: Reading = {
  ...newReading({
    id: "r1",
    job: "j1",
    vehicle: vehicle.id,
    system: "engine",
    way: "w",
    dialect: "d",
    input: "tap",
    run: "before",
    startedAt: "2026-05-02T08:10:00Z",
  }),
  marks: [{ id: 1, t: 500 }],
};
const done: Reading = {
  ...reading,
  until: 9000,
  result: {
    state: "codes",
    codes: ["26"],
    memories: {},
    complete: true,
    confidence: 0.99,
    codeConfidence: { 26: 0.99 },
  },
  recordedAt: "2026-05-02T08:20:00Z",
};
const says = (j: Job) => withReading(j, "Read engine: 26.", done.recordedAt!);

beforeEach(async () => {
  for (const of of [full, hung, missing]) of.clear();
  for (const held of stores.values()) held.clear();
  await values.set("moved", 1);
});

describe("records in the browser", () => {
  it("changes asked at once are all kept, whatever the order in which the store answers", async () => {
    await write(vehicle);
    await write(job);
    const texts = Array.from({ length: 12 }, (_, i) => `line ${i}`);
    await Promise.all([
      ...texts.map((text) =>
        changeJob("j1", (j) => ({ ...j, story: { ...j.story, words: `${j.story.words}|${text}` } })),
      ),
      ...texts.map((text) =>
        changeVehicle(vehicle.id, (v) => ({ ...v, changes: [...v.changes, { text, codes: [] }] })),
      ),
      ...texts.map((text) => changeValue("seen", (v) => [...((v as string[] | null) ?? []), text])),
    ]);
    expect((await readJob("j1")).story.words).toBe(`${job.story.words}|${texts.join("|")}`);
    expect((await readGarage()).vehicles[0].changes.slice(-12).map((c) => c.text)).toEqual(texts);
    expect(await readValue("seen")).toEqual(texts);
  });

  it("a change that fails stops none that follow, and what could not be read again is not written", async () => {
    await write(vehicle);
    await write(job);
    const failed = changeJob("j1", () => {
      throw new Error("no");
    });
    const next = changeJob("j1", (j) => ({ ...j, system: "abs" }));
    await expect(failed).rejects.toThrow("no");
    expect((await next).system).toBe("abs");
    const many = Array.from({ length: 5000 }, () => "11");
    await expect(changeVehicle(vehicle.id, (v) => ({ ...v, changes: [{ text: "x", codes: many }] }))).rejects.toThrow(
      /changes.0.codes/,
    );
    expect((await readGarage()).vehicles).toEqual([vehicle]);
  });

  it("never writes over a record that this version cannot read", async () => {
    await write(vehicle);
    await write(job);
    const newer = { ...job, version: 99 };
    storeOf("klinko-jobs").set("j1", newer);
    await expect(write(job)).rejects.toMatchObject({ status: 409 });
    await expect(changeJob("j1", (j) => j)).rejects.toMatchObject({ status: 409 });
    expect(storeOf("klinko-jobs").get("j1")).toEqual(newer);
    await expect(readJob("j1")).rejects.toMatchObject({ status: 409 });
    expect((await readGarage()).locked.map((l) => l.key)).toEqual(["job/j1"]);
    expect(JSON.parse(await exported())).toMatchObject({ records: { "job/j1": newer } });
    await expect(readJob("j2")).rejects.toMatchObject({ status: 404 });
  });

  it("the card of a vehicle says what its jobs hold, and is made anew where it is missing", async () => {
    await write(vehicle);
    await write(job);
    await write(reading);
    await writeReading(done, says);
    const card = await readCard(vehicle.id);
    expect(card.jobs).toMatchObject([
      { id: "j1", at: "story", readings: [{ id: "r1", codes: ["26"], says: "read: 26" }] },
    ]);
    expect(await readingsOf(job)).toEqual([done]);
    storeOf("klinko-cards").clear();
    expect((await readGarage()).faces.get(vehicle.id)!.open).toEqual(card.jobs);
    storeOf("klinko-cards").set(vehicle.id, "nothing of ours");
    expect(await readCard(vehicle.id)).toEqual(card);
    expect(await removeJob(await readJob("j1"))).toEqual(["r1"]);
    expect([storeOf("klinko-readings").size, storeOf("klinko-jobs").size]).toEqual([0, 0]);
    expect((await readCard(vehicle.id)).jobs).toEqual([]);
    await write(job);
    await write(reading);
    await removeVehicle(vehicle);
    for (const [name, held] of stores) if (name !== "klinko-values") expect([name, held.size]).toEqual([name, 0]);
  });

  it.each([
    ["looked at", () => Promise.resolve()],
    // The lines of both are there.
    ["changed", () => changeJob("j1", (j) => withReading(j, "He called.", "2026-05-02T08:30:00Z"))],
    ["read once more", () => writeReading({ ...reading, id: "r2" }, (j) => j)],
  ])(
    "a page that dies at any write leaves nothing half said: the next one finds it whole, %s first",
    async (_, next) => {
      for (let dies = 1; dies <= 6; dies++) {
        for (const held of stores.values()) held.clear();
        await values.set("moved", 1);
        await write(vehicle);
        await write(job);
        await write(reading);
        let writes = 0;
        const own = [...stores].map(([name, held]) => [name, held, held.set.bind(held)] as const);
        for (const [, held, set] of own)
          held.set = (key, value) => {
            if (++writes >= dies) throw new Error("the page is gone");
            return set(key, value);
          };
        const died = await writeReading(done, says).then(
          () => false,
          () => true,
        );
        for (const [, held, set] of own) held.set = set;
        await next();
        const now = await readJob("j1");
        const [line] = (await readCard(vehicle.id)).jobs;
        const r = (await readingsOf(now)).find((x) => x.id === done.id)!;
        const told = (await readJob("j1")).notebook.some((n) => n.at === done.recordedAt);
        expect([dies, line.readings.find((x) => x.id === done.id)!.codes.length > 0, told]).toEqual([
          dies,
          r.recordedAt !== null,
          r.recordedAt !== null,
        ]);
        if (!died) expect(r).toEqual(done);
      }
    },
  );

  it("a file that is brought in adds what is missing and leaves the rest", async () => {
    const mine = { ...vehicle, plate: "MINE 1" };
    await write(mine);
    const merge = await bringIn(demo);
    expect(storeOf("klinko-vehicles").get(vehicle.id)).toEqual(mine);
    expect(merge.add).toHaveLength(demo.length - 1);
    expect((await bringIn(demo)).add).toEqual([]);
    const { records } = JSON.parse(await exported()) as { records: object };
    expect(Object.keys(records)).toHaveLength(demo.length);
    const faces = (await readGarage()).faces;
    storeOf("klinko-cards").clear();
    expect((await readGarage()).faces).toEqual(faces);
  });

  it("what an older Klinko kept in one store is moved, once, and what is there already stays", async () => {
    const old = storeOf("klinko");
    storeOf("klinko-values").clear();
    for (const doc of demo) old.set(`${doc.kind}/${doc.id}`, doc);
    old.set("value/settings", { theme: "dark" });
    old.set("value/draft/j1/story", { words: "x" });
    old.set("trouble", 1);
    storeOf("klinko-vehicles").set(vehicle.id, { ...vehicle, plate: "NEW" });
    await move(boxes, values);
    expect([...old.keys()]).toEqual(["trouble"]);
    expect(await readValue("settings")).toEqual({ theme: "dark" });
    expect(await readValue("draft/j1/story")).toEqual({ words: "x" });
    const garage = await readGarage();
    expect(garage.vehicles.find((v) => v.id === vehicle.id)!.plate).toBe("NEW");
    const recorded = demo.filter((d) => d.kind === "reading").length;
    const cards = await Promise.all(garage.vehicles.map((v) => readCard(v.id)));
    expect(cards.flatMap((c) => c.jobs.flatMap((j) => j.readings))).toHaveLength(recorded);
  });
});

describe("a reading that is being made", () => {
  beforeEach(async () => {
    await write(vehicle);
    await write(job);
  });

  it("goes on being stored after a write that failed, and tells of that one in words", async () => {
    const save = readingWriter();
    full.add("klinko-readings");
    await expect(save(reading)).rejects.toThrow(/no room left/);
    full.clear();
    await save({ ...reading, startedAt: "2026-05-02T09:00:00Z" });
    expect(await readingsOf(job)).toMatchObject([{ startedAt: "2026-05-02T09:00:00Z" }]);
  });

  it("of states that come quicker than they are written the last one is stored", async () => {
    const save = readingWriter();
    const states = Array.from({ length: 30 }, (_, i) => ({ ...reading, startedAt: `2026-05-02T08:00:${10 + i}Z` }));
    await Promise.all(states.map(save));
    expect(await readingsOf(job)).toEqual([states.at(-1)]);
  });

  it("that another tab has recorded is not written over, neither by marks nor by recording it again", async () => {
    const save = readingWriter();
    await save(reading);
    await writeReading(done, says);
    await expect(save({ ...reading, marks: [] })).rejects.toThrow(/recorded in another tab/);
    await expect(writeReading({ ...done, recordedAt: "2026-05-02T09:00:00Z" }, says)).rejects.toThrow(/recorded in/);
    expect(await readingsOf(job)).toEqual([done]);
    await writeReading({ ...done, withdrawnAt: "2026-05-02T09:00:00Z" }, (j) => j);
    expect((await readCard(vehicle.id)).jobs[0].readings[0].withdrawn).toBe(true);
  });
});

describe("a store that fails", () => {
  it("is told of within three seconds, whether it is not there, or never answers", async () => {
    missing.add("klinko-vehicles");
    await expect(readGarage()).rejects.toThrow(/does not let Klinko store anything/);
    missing.clear();
    hung.add("klinko-vehicles");
    vi.useFakeTimers();
    const told = expect(readGarage()).rejects.toMatchObject({ kind: "no-store" });
    await vi.advanceTimersByTimeAsync(3000);
    vi.useRealTimers();
    await told;
    hung.clear();
    expect((await readGarage()).vehicles).toEqual([]);
  });

  it("waits for other tabs where the browser has locks for that", async () => {
    await write(vehicle);
    await write(job);
    const asked: string[] = [];
    const locks = { request: (name: string, run: () => Promise<unknown>) => (asked.push(name), run()) };
    vi.stubGlobal("navigator", { locks });
    await changeJob("j1", (j) => ({ ...j, system: "abs" }));
    vi.unstubAllGlobals();
    expect(asked).toEqual(["klinko job/j1", `klinko vehicle/${vehicle.id}`]);
    expect((await readJob("j1")).system).toBe("abs");
  });
});
