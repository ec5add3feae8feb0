import { beforeEach, describe, expect, it, vi } from "vitest";

vi.mock("localforage", async () => ({ default: (await import("./test-store")).localforage }));
const { full, stores } = await import("./test-store");
const { dropFilm, dropFilms, filmName, filmsOf, keepFilm } = await import("./films");

const stored = stores.get("klinko-films")!;
const kept = (id: string, reading: string, vehicle = "v1", at = "2026-05-02T08:00:00.000Z") => ({
  id,
  reading,
  vehicle,
  at,
  film: new Blob(["a film"], { type: "video/webm" }),
});

beforeEach(() => {
  stored.clear();
  full.clear();
});

describe("kept films", () => {
  it("are found by their reading, the oldest first; what is damaged stays where it is", async () => {
    for (const k of [kept("c", "r1", "v1", "2026-05-03T08:00:00.000Z"), kept("a", "r1"), kept("b", "r2")])
      expect(await keepFilm(k)).toBe(true);
    stored.set("x", { ...kept("x", "r1"), film: "no film" });
    expect((await filmsOf("r1")).map((k) => k.id)).toEqual(["a", "c"]);
    await dropFilm("a");
    expect((await filmsOf("r1")).map((k) => k.id)).toEqual(["c"]);
    expect(stored.has("x")).toBe(true);
  });

  it("go with their reading, or with their vehicle, and no others do", async () => {
    for (const k of [kept("a", "r1"), kept("b", "r2"), kept("c", "r3", "v2")]) await keepFilm(k);
    await dropFilms({ reading: "r1" });
    expect([...stored.keys()]).toEqual(["b", "c"]);
    await dropFilms({ vehicle: "v2" });
    expect([...stored.keys()]).toEqual(["b"]);
  });

  it("are not stored for a reading that was thrown away while the film was still being closed", async () => {
    await dropFilms({ reading: "gone" });
    expect(await keepFilm(kept("late", "gone"))).toBe(true);
    expect(stored.size).toBe(0);
  });

  it("are refused, and nothing else is lost, where there is no room", async () => {
    await keepFilm(kept("a", "r8"));
    full.add("klinko-films");
    expect(await keepFilm(kept("b", "r9"))).toBe(false);
    expect([...stored.keys()]).toEqual(["a"]);
  });

  it("are named as what they are", () => {
    expect(filmName(new Blob([], { type: "video/mp4;codecs=avc1" }))).toBe("lamp.mp4");
    expect(filmName(new Blob([], { type: "video/webm" }))).toBe("lamp.webm");
  });
});
