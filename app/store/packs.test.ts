import { beforeEach, describe, expect, it, vi } from "vitest";
import { newPack, withEntries } from "@core/pack/make/build";
import { readBackup } from "@core/record/backup";
import { newVehicle } from "@core/record/vehicle";

vi.mock("localforage", async () => ({ default: (await import("./test-store")).localforage }));
const { full, storeOf } = await import("./test-store");
const { allPacks, changePack, freeId, idFor, lockedPacks, ownPacks, packById, packsReady, removePack, writePack } =
  await import("./packs");
const { loadOwnPacks } = await import("./own-packs");
const { bringIn } = await import("./bring-in");
const { exportEverything } = await import("./save-records");
const exported = async () => (await exportEverything()).text();
const { vehicleName } = await import("./vehicle-name");
const { write } = await import("./records");

const make = (id: string) =>
  newPack({ id, make: "Harrowgate", model: "Coupe", years: [1986, 1991], engine: "2.0", cylinders: 4 }, "1");
const entry = (code: string) => ({ code, kind: "fault" as const, circuit: "Air", title: "Air", lookFirst: [] });
const car = newVehicle(
  { id: "v1", plate: "AB 1", pack: "mine", variant: "model", year: 1988, engine: "2.0", market: "home" },
  "2026-05-02T08:00:00Z",
);

beforeEach(async () => {
  for (const store of ["klinko-packs", "klinko-vehicles", "klinko-cards"]) storeOf(store).clear();
  await packsReady();
  await loadOwnPacks();
});

describe("makes of this device", () => {
  it("stand beside those that ship, under ids of their own, and name their vehicles", async () => {
    const shipped = allPacks().length;
    await writePack(make("mine"));
    expect(allPacks()).toHaveLength(shipped + 1);
    expect(vehicleName(car)).toBe("Harrowgate Coupe 2.0");
    expect([freeId("mine"), freeId("norrvik"), idFor("Härrow & Sön")]).toEqual(["mine-2", "norrvik-2", "harrow-son"]);
    await expect(writePack(make("norrvik"))).rejects.toThrow(/ships with Klinko/);
    await removePack("mine");
    expect(packById("mine")).toBeUndefined();
    expect(vehicleName(car)).toBe("mine model 2.0");
  });

  it("are changed one after the other from what is stored, and never to what does not hold", async () => {
    await writePack(make("mine"));
    const add = (code: string) =>
      changePack("mine", (p) => withEntries(p, "codes", [...(p.tables[0]?.entries ?? []), entry(code)]));
    await Promise.all(["11", "12", "13"].map(add));
    expect(ownPacks()[0].tables[0].entries.map((e) => e.code)).toEqual(["11", "12", "13"]);
    await expect(add("11")).rejects.toThrow(/is code 11 for the same vehicles/);
    await expect(changePack("mine", (p) => ({ ...p, make: "<b>x</b>" }))).rejects.toThrow(RangeError);
    await expect(changePack("gone", (p) => p)).rejects.toThrow(/not on this device any more/);
    full.add("klinko-packs");
    await expect(add("14")).rejects.toThrow(/no room left/);
    full.clear();
    expect(ownPacks()[0].tables[0].entries).toHaveLength(3);
  });

  it("that are damaged or of a newer Klinko stay as they are, and are told of", async () => {
    storeOf("klinko-packs").set("later", { ...make("later"), version: 9 });
    storeOf("klinko-packs").set("other", make("mine"));
    storeOf("klinko-packs").set("odd", 7);
    await loadOwnPacks();
    expect(ownPacks()).toEqual([]);
    expect(lockedPacks().map((l) => [l.id, l.faults.length > 0])).toEqual([
      ["later", true],
      ["other", true],
      ["odd", true],
    ]);
    await writePack(make("mine"));
    expect(storeOf("klinko-packs").size).toBe(4);
  });

  it("go into the file of records and come back with it; one that is here stays", async () => {
    await writePack(make("mine"));
    await write(car);
    const read = readBackup(await exported());
    if ("fault" in read) throw new Error(read.fault);
    expect(read.makes).toEqual([make("mine")]);
    await removePack("mine");
    storeOf("klinko-vehicles").clear();
    await bringIn(read.docs, read.makes);
    expect(packById("mine")).toEqual(make("mine"));
    await writePack({ ...make("mine"), make: "Mine" });
    await bringIn(read.docs, read.makes);
    expect(packById("mine")?.make).toBe("Mine");
  });
});
