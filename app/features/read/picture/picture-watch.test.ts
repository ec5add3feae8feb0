import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { decode, readFilm } from "@core/flash/decode";
import type { Box } from "@core/lamp/patch";
import { dialect } from "@core/testing/dialects";
import type { FilmInfo, FilmProblem } from "~/workers/film-frames";
import type { FilmEnd, LampEvent, LampSeen, Seen } from "~/workers/lamp.worker";
import { ReadingSession } from "../session";
import { homeOf, picturesOf } from "../test-home";
import { PictureWatch } from "./picture-watch";
import { offered } from "./ranking";

vi.mock("comlink", () => ({ proxy: (x: unknown) => x, transfer: (x: unknown) => x }));
vi.mock("~/workers/flash", () => ({
  flashWorker: () => ({
    decode: (d: never, e: never, table: string[]) => Promise.resolve(decode(d, e, { table })),
    readFilm: (d: never, f: never, table: string[]) => Promise.resolve(readFilm(d, f, { table })),
  }),
}));

/** A worker that does what the test says. */
interface Work {
  given: Box | null;
  tell: (event: LampEvent) => void;
  end: (end: FilmEnd) => void;
  fail: () => void;
  ended: boolean;
}
const works: Work[] = [];
vi.mock("~/workers/lamp", () => ({
  lampWorker: () => {
    const work = { ended: false } as Work;
    const begin = (given: Box | null, tell: Work["tell"]) =>
      new Promise((done, fail) => {
        works.push(Object.assign(work, { given, tell, end: done, fail: () => fail(new Error("gone")) }));
      });
    return {
      api: {
        readFilm: (_: File, given: Box | null, tell: Work["tell"]) => begin(given, tell),
        watchCamera: (_: unknown, given: Box | null, tell: Work["tell"]) => begin(given, tell),
        draw: () => undefined,
      },
      end: () => (work.ended = true),
    };
  },
}));

const even = dialect("even-when-clear");
const LONG = 40_000;
const film = (rotation: FilmInfo["rotation"] = 0): LampEvent => ({
  kind: "opened",
  film: { width: 640, height: 360, rotation, duration: LONG },
});

/** A lamp of the film, as the worker tells it: it speaks, only goes on and off as an indicator does, or anyhow as a reflection. */
function lampOf(id: number, codes: string[] | "indicator" | "reflection", until: number, y = 0.5): LampSeen {
  const speech = picturesOf(even, typeof codes === "string" ? ["11"] : codes, until);
  const lit = (t: number) =>
    codes === "indicator" ? t % 2900 < 2000 : Math.sin(t / 310) + Math.sin(t / 1370) + Math.sin(t / 173) > 0.4;
  const bright = typeof codes === "string" ? speech.t.map((t) => (lit(t) ? 150 : 70)) : speech.y;
  return {
    id,
    box: { x: 0.4, y, w: 0.05, h: 0.05 },
    apart: 20,
    t: Float64Array.from(speech.t),
    y: Float64Array.from(bright),
  };
}

const seenOf = (at: number, ...lamps: LampSeen[]): Seen => ({
  at,
  lamps,
  still: null,
  advice: null,
  pictures: 1,
  skipped: 0,
  analysis: 1,
});
const endOf = (seen: Seen | null, problem: FilmProblem | null = null): FilmEnd => ({ seen, problem, cancelled: false });
const settle = () => vi.advanceTimersByTimeAsync(5000);
const FILE = new File(["a film"], "lamp.mp4");

/** A watch with so many sessions, and the work that it has given. */
function watch(sessions = 1) {
  const all = Array.from({ length: sessions }, () => new ReadingSession(homeOf(even)));
  return { all, picture: new PictureWatch(() => all) };
}

class Track extends EventTarget {
  on = true;
  stop = () => (this.on = false);
  getSettings = () => ({ width: 1280, height: 720 });
  applyConstraints = () => Promise.resolve();
}

class Recorder extends EventTarget {
  state = "inactive";
  start = () => (this.state = "recording");
  stop = () => {
    this.state = "inactive";
    this.dispatchEvent(
      Object.assign(new Event("dataavailable"), { data: new Blob(["a film"], { type: "video/webm" }) }),
    );
    this.dispatchEvent(new Event("stop"));
  };
}

const page = Object.assign(new EventTarget(), { visibilityState: "visible" });

beforeEach(() => {
  vi.useFakeTimers({ now: new Date("2026-03-01T10:00:00Z") });
  works.length = 0;
  vi.stubGlobal("document", page);
  vi.stubGlobal("window", {
    VideoDecoder: true,
    MediaStreamTrackProcessor: class {
      readable = {};
    },
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe("a film", () => {
  it("is read from its opening to its end, and what it says stays", async () => {
    const { picture, all } = watch();
    void picture.openFilm(FILE);
    works[0].tell(film());
    expect([picture.state.phase, all[0].state.phase]).toEqual(["watching", "watching"]);
    const seen = (until: number) => works[0].tell({ kind: "seen", seen: seenOf(until, lampOf(1, ["24"], until)) });
    seen(10_000);
    await settle();
    // Most films are through sooner: what they say so far is worked out of those alone that take a while.
    expect(all[0].state.reading.marks).toEqual([]);
    await vi.advanceTimersByTimeAsync(7000);
    seen(20_000);
    await settle();
    expect(all[0].state.reading.marks.length).toBeGreaterThan(5);
    works[0].end(endOf(seenOf(LONG, lampOf(1, ["24"], LONG))));
    await settle();
    expect(picture.state).toMatchObject({ phase: "ended", problem: null });
    expect(all[0].state).toMatchObject({ phase: "stopped", decoded: { codes: ["24"], complete: true } });
    expect(works[0].ended).toBe(true);
  });

  it.each([
    ["not-a-film", null, "not-a-film", "ready"],
    [null, seenOf(LONG), "no-lamp", "ready"],
    [null, seenOf(LONG, lampOf(1, "indicator", LONG)), "only-even", "stopped"],
    [null, seenOf(LONG, lampOf(1, "reflection", LONG)), "no-speech", "stopped"],
    ["cut-off", seenOf(20_000, lampOf(1, ["24"], 20_000)), "cut-off", "stopped"],
  ] as const)("with the end %s says what is wrong (%#)", async (problem, seen, said, phase) => {
    const { picture, all } = watch();
    void picture.openFilm(FILE);
    if (seen) works[0].tell(film());
    works[0].end(endOf(seen, problem));
    await settle();
    expect([picture.state.problem, all[0].state.phase]).toEqual([said, phase]);
  });

  it("with two lamps gives each session its own, those that speak before an indicator, the upper one first", async () => {
    const { picture, all } = watch(2);
    void picture.openFilm(FILE);
    works[0].tell(film());
    const lamps = [lampOf(1, "indicator", LONG, 0.1), lampOf(2, ["31"], LONG, 0.7), lampOf(3, ["24"], LONG, 0.3)];
    works[0].end(endOf(seenOf(LONG, ...lamps)));
    await settle();
    expect(picture.state.chosen).toEqual([3, 2]);
    // The indicator is not offered any more.
    expect(offered(picture.state.seen, picture.state.quiet).map((l) => l.id)).toEqual([2, 3]);
    expect(all.map((s) => s.state.decoded?.codes)).toEqual([["24"], ["31"]]);
    // The person says that it is the other way round: no lamp is read twice.
    picture.choose(0, 2);
    expect(picture.state.chosen).toEqual([2, null]);
    picture.choose(1, 3);
    await settle();
    expect(all.map((s) => s.state.decoded?.codes)).toEqual([["31"], ["24"]]);
  });

  it.each([1, 2])(
    "with a lamp and what only blinks evenly, and %i lamps asked for, takes the lamp alone",
    async (sessions) => {
      const { picture, all } = watch(sessions);
      void picture.openFilm(FILE);
      works[0].tell(film());
      // Evenly flashes this dialect where nothing is stored; so does a needle that swings.
      works[0].end(endOf(seenOf(LONG, lampOf(1, [], LONG, 0.2), lampOf(2, ["24"], LONG, 0.6))));
      await settle();
      expect(picture.state.chosen[0]).toBe(2);
      expect(all[0].state.decoded?.codes).toEqual(["24"]);
      // It is offered where another lamp is looked for, and not taken unasked.
      const ids = offered(picture.state.seen, picture.state.quiet).map((l) => l.id);
      expect([ids, picture.state.chosen[1] ?? null]).toEqual([sessions === 1 ? [2] : [1, 2], null]);
    },
  );

  it("that was left for another tells nothing any more", async () => {
    const { picture, all } = watch();
    void picture.openFilm(FILE);
    works[0].tell(film());
    void picture.openFilm(FILE);
    expect(works[0].ended).toBe(true);
    works[1].tell(film());
    works[0].tell({ kind: "seen", seen: seenOf(LONG, lampOf(1, ["31"], LONG)) });
    works[0].end(endOf(seenOf(LONG, lampOf(1, ["31"], LONG))));
    works[1].end(endOf(seenOf(LONG, lampOf(1, ["24"], LONG))));
    await settle();
    expect(all[0].state.decoded?.codes).toEqual(["24"]);
  });

  it("is read again where the person drew the lamp, in the picture as coded", () => {
    const { picture } = watch();
    void picture.openFilm(FILE);
    works[0].tell(film(90));
    picture.draw({ x: 0.1, y: 0.2, w: 0.3, h: 0.05 });
    const { x, y, w, h } = works[1].given!;
    // A quarter clockwise takes what is drawn here back to where it is shown.
    expect([1 - y - h, x, h, w].map((v) => Math.round(v * 100) / 100)).toEqual([0.1, 0.2, 0.3, 0.05]);
  });

  it("whose worker fails keeps what was read", async () => {
    const { picture, all } = watch();
    void picture.openFilm(FILE);
    works[0].tell(film());
    works[0].tell({ kind: "seen", seen: seenOf(20_000, lampOf(1, ["24"], 20_000)) });
    await settle();
    works[0].fail();
    await settle();
    expect(picture.state).toMatchObject({ phase: "ended", problem: "worker" });
    expect(all[0].state.phase).toBe("stopped");
    expect(all[0].state.reading.marks.length).toBeGreaterThan(5);
  });
});

describe("a camera", () => {
  const camera = (answer: () => Promise<unknown>) =>
    vi.stubGlobal("navigator", { mediaDevices: { getUserMedia: answer } });
  const withTrack = () => {
    const track = new Track();
    camera(() => Promise.resolve({ getVideoTracks: () => [track], getTracks: () => [track] }));
    return track;
  };

  it.each([
    ["NotAllowedError", "refused"],
    ["NotFoundError", "no-camera"],
    ["NotReadableError", "busy"],
  ])("that answers %s is told of as %s, and leaves other ways open", async (name, problem) => {
    camera(() => Promise.reject(Object.assign(new Error(), { name })));
    const { picture, all } = watch();
    await picture.startCamera(false);
    expect(picture.state).toMatchObject({ phase: "idle", problem });
    expect(all[0].state.phase).toBe("ready");
  });

  it("that is unplugged keeps what was read, and can be gone on with", async () => {
    const track = withTrack();
    const { picture, all } = watch();
    await picture.startCamera(false);
    works[0].tell({ kind: "seen", seen: seenOf(12_000, lampOf(1, ["24"], 12_000)) });
    await settle();
    track.dispatchEvent(new Event("ended"));
    expect(picture.state).toMatchObject({ phase: "ended", problem: "unplugged" });
    const { marks } = all[0].state.reading;
    expect([all[0].state.phase, marks.length > 3]).toEqual(["stopped", true]);
    // Its last pictures may be on their way: it is given a second to let go of them.
    await expect.poll(() => works[0].ended, { timeout: 3000 }).toBe(true);
    withTrack();
    await picture.startCamera(false);
    expect(all[0].state.phase).toBe("watching");
    expect(all[0].state.reading.marks).toEqual(marks);
  });

  it("is switched off when it is no longer watched, even when it opened too late", async () => {
    const track = withTrack();
    const { picture } = watch();
    const opening = picture.startCamera(false);
    picture.close();
    await opening;
    expect([track.on, picture.state.phase]).toEqual([false, "idle"]);
    const next = withTrack();
    await picture.startCamera(false);
    expect(next.on).toBe(true);
    picture.stop();
    expect(next.on).toBe(false);
  });

  it.each([true, false])(
    "is filmed if that is asked, until it ends, and the film goes to its reading; with room %s",
    async (room) => {
      vi.stubGlobal("MediaRecorder", Recorder);
      withTrack();
      const kept: [number, string][] = [];
      const home = homeOf(even, {
        keep: (film, reading) => (kept.push([film.size, reading.id]), Promise.resolve(room)),
      });
      const session = new ReadingSession(home);
      const picture = new PictureWatch(() => [session]);
      await picture.startCamera();
      picture.stop();
      await settle();
      expect([kept, picture.state.kept]).toEqual([[], null]);
      withTrack();
      await picture.startCamera(true);
      picture.stop();
      await picture.closed;
      expect(kept).toEqual([[6, session.state.reading.id]]);
      expect(picture.state).toMatchObject({ stored: room ? "stored" : "no-room", kept: { size: 6 } });
      // Gone on with, it is filmed as before, and no film of an earlier watch is offered for the later one.
      withTrack();
      await picture.startCamera();
      expect(picture.state.kept).toBeNull();
      picture.close();
      await picture.closed;
      expect(kept).toHaveLength(2);
      expect(picture.state.kept).toBeNull();
    },
  );

  it("that is stopped while its lamps are judged is not said to be worked on", async () => {
    withTrack();
    const { all } = watch();
    const picture = new PictureWatch(
      () => all,
      () => new Promise(() => undefined),
    );
    await picture.startCamera(false);
    works[0].tell({ kind: "seen", seen: seenOf(16_000, lampOf(1, ["24"], 16_000), lampOf(2, "indicator", 16_000)) });
    expect(picture.state.judging).toBe(true);
    picture.stop();
    expect(picture.state).toMatchObject({ phase: "ended", judging: false });
  });

  it("shows a change of its lamp at once, and of no other lamp", async () => {
    withTrack();
    const { picture, all } = watch();
    await picture.startCamera(false);
    works[0].tell({ kind: "seen", seen: seenOf(3000, lampOf(4, ["24"], 3000)) });
    await settle();
    const before = all[0].state.reading.marks.length;
    works[0].tell({ kind: "change", id: 9, lit: 1, t: 5000 });
    expect(all[0].state.reading.marks).toHaveLength(before);
    works[0].tell({ kind: "change", id: 4, lit: 1, t: 5000 });
    expect(all[0].state.reading.marks).toHaveLength(before + 1);
  });

  it("says for how long the page was hidden", async () => {
    withTrack();
    const { picture } = watch();
    await picture.startCamera(false);
    await settle();
    for (const visibilityState of ["hidden", "visible"]) {
      Object.assign(page, { visibilityState });
      page.dispatchEvent(new Event("visibilitychange"));
      await vi.advanceTimersByTimeAsync(7000);
    }
    expect(picture.state.hidden).toBe(7000);
  });
});
