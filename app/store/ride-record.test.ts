import { beforeEach, describe, expect, it, vi } from "vitest";

vi.mock("localforage", async () => ({ default: (await import("./test-store")).localforage }));
const { full, storeOf } = await import("./test-store");
const { dropFixes, keepFixes, readFixes } = await import("./ride-record");

const stored = storeOf("klinko-rides");
const ride = Array.from({ length: 200 }, (_, i) => ({ t: 1000 * i, lat: 51, lon: 1, speed: 20 }));

beforeEach(() => {
  stored.clear();
  full.clear();
});

describe("a ride that the phone records", () => {
  it("is read as it was written, part by part, each job its own", async () => {
    await keepFixes("a", ride.slice(0, 90), 0);
    await keepFixes("a", ride, 90);
    await keepFixes("b", ride.slice(0, 10), 0);
    expect(await readFixes("a")).toEqual(ride);
    expect(await readFixes("b")).toHaveLength(10);
  });

  it("is gone once it is thrown away, though its last part is just being written; what is read meanwhile is nothing of it", async () => {
    for (let i = 0; i < 20; i++) {
      const written = keepFixes("a", ride, 0);
      const dropped = dropFixes("a");
      expect(await readFixes("a")).toEqual([]);
      await Promise.all([written, dropped]);
      expect(stored.size).toBe(0);
    }
  });

  it("can be thrown away after a write that found no room", async () => {
    await keepFixes("a", ride.slice(0, 60), 0);
    full.add("klinko-rides");
    await expect(keepFixes("a", ride, 60)).rejects.toThrow(/no room/);
    await dropFixes("a");
    expect(stored.size).toBe(0);
  });
});
