import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Vehicle } from "@core/record/types";

vi.mock("localforage", async () => ({ default: (await import("./test-store")).localforage }));
const { full, stores, storeOf } = await import("./test-store");
const { readGarage, writeAll } = await import("./records");
const { emptyRemoved, KEPT_DAYS, putBack, readRemoved, takeAway } = await import("./removed");
const { keepFilm, filmsOf } = await import("./films");
const { values } = await import("./boxes");
const { buildDemo } = await import("@packs/demo-fleet");

const demo = buildDemo(Date.UTC(2026, 4, 2));
const vehicle = demo.find((d): d is Vehicle => d.id === "demo-et9")!;
const RECORDS = ["klinko-vehicles", "klinko-jobs", "klinko-readings"];
const held = () => RECORDS.map((name) => Object.fromEntries([...storeOf(name)].sort()));

beforeEach(async () => {
  full.clear();
  for (const store of stores.values()) store.clear();
  await values.set("moved", 1);
  await writeAll(demo);
});

describe("a vehicle that was removed", () => {
  it("comes back with all that belongs to it, a record of a newer Klinko too", async () => {
    storeOf("klinko-jobs").set("demo-job-old", {
      ...(storeOf("klinko-jobs").get("demo-job-old") as object),
      version: 9,
    });
    const before = held();
    await takeAway(vehicle);
    expect(held()).not.toEqual(before);
    expect(JSON.stringify(held())).not.toContain(vehicle.id);
    expect(await readRemoved()).toMatchObject({ plate: "ET 9", done: true });
    await putBack();
    expect(held()).toEqual(before);
    expect(await readRemoved()).toBeNull();
  });

  it("is whole again, or whole to be put back, at whatever write the page dies", async () => {
    const before = held();
    const face = (await readGarage()).faces.get(vehicle.id);
    const ends = new Set<string>();
    for (let dies = 1; dies <= 20; dies++) {
      let writes = 0;
      const own = [...stores.values()].map(
        (store) => [store, store.set.bind(store), store.delete.bind(store)] as const,
      );
      const gone = () => {
        if (++writes >= dies) throw new Error("the page is gone");
      };
      for (const [store, set, remove] of own) {
        store.set = (key, value) => (gone(), set(key, value));
        store.delete = (key) => (gone(), remove(key));
      }
      await takeAway(vehicle).catch(() => undefined);
      for (const [store, set, remove] of own) {
        store.set = set;
        store.delete = remove;
      }
      // The next page looks.
      const removed = await readRemoved();
      ends.add(removed ? "removed" : "there");
      if (removed) await putBack();
      expect([dies, held()]).toEqual([dies, before]);
      expect((await readGarage()).faces.get(vehicle.id)).toEqual(face);
    }
    expect([...ends].sort()).toEqual(["removed", "there"]);
  });

  it("stays where there is no room to keep it; its films go with it for good, and not before", async () => {
    const before = held();
    full.add("klinko-values");
    await expect(takeAway(vehicle)).rejects.toMatchObject({ kind: "no-room" });
    full.clear();
    expect(held()).toEqual(before);
    await keepFilm({
      id: "f1",
      reading: "demo-job-old-1",
      vehicle: vehicle.id,
      at: "2026-05-02T08:00:00Z",
      film: new Blob(["x"]),
    });
    await takeAway(vehicle);
    expect(await filmsOf("demo-job-old-1")).toHaveLength(1);
    await emptyRemoved();
    expect(await filmsOf("demo-job-old-1")).toEqual([]);
    expect(await readRemoved()).toBeNull();
    await putBack();
    expect((await readGarage()).vehicles).toHaveLength(12);
  });

  it("is let go after its time, and never takes the place of one that has come again", async () => {
    await takeAway(vehicle);
    await writeAll([{ ...vehicle, plate: "AGAIN" }]);
    expect(await readRemoved()).toBeNull();
    expect((await readGarage()).vehicles.find((v) => v.id === vehicle.id)!.plate).toBe("AGAIN");
    await takeAway(vehicle);
    const kept = (await values.get("removed")) as { at: string };
    await values.set("removed", { ...kept, at: new Date(Date.now() - (KEPT_DAYS + 1) * 86_400_000).toISOString() });
    expect(await readRemoved()).toBeNull();
    expect(await values.get("removed")).toBeNull();
    await values.set("removed", { at: "yesterday", records: "none" });
    expect(await readRemoved()).toBeNull();
  });
});
