import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { blankAnswer } from "@core/flash/answer";
import { decode, readFilm } from "@core/flash/decode";
import { encode, normal, seeded } from "@core/flash/dialect/encode";
import { dialect } from "@core/testing/dialects";
import type { Home } from "./home";
import { ReadingSession } from "./session";
import { homeOf, picturesOf } from "./test-home";

// The worker's own functions, on this thread: what is tested is what a session makes of them.
vi.mock("~/workers/flash", () => ({
  flashWorker: () => ({
    decode: (d: never, e: { until: number }, table: string[]) =>
      dead.now
        ? Promise.reject(new Error("the worker is gone"))
        : Promise.resolve(e.until < thinksFrom ? blankAnswer([], 1) : decode(d, e as never, { table })),
    readFilm: (d: never, f: never, table: string[]) => Promise.resolve(readFilm(d, f, { table })),
  }),
}));

/** The worker dies at every call. */
const dead = vi.hoisted(() => ({ now: false }));

/** Before this, ms of a watch, nothing is decoded: what a watch says later does not hang on it. */
let thinksFrom = 0;

const lead = dialect("lead-in");
const edges = encode(lead, { stored: ["26"] }, 300_000);
const onsets = edges.filter(([, lit]) => lit).map(([t]) => t);

const pictures = (until: number) => picturesOf(lead, ["26"], until);
const home = (part: Partial<Home> = {}) => homeOf(lead, part);

/** Lets promises that are due be kept. */
const settle = async () => {
  for (let k = 0; k < 8; k++) await Promise.resolve();
};

beforeEach(() => {
  vi.useFakeTimers({ now: new Date("2026-03-01T10:00:00Z") });
  thinksFrom = 0;
});
afterEach(() => {
  vi.useRealTimers();
});

/** When a made-up hand taps: late, never by the same time, and not every flash. */
function hand(seed: number): number[] {
  const random = seeded(seed);
  return onsets.filter(() => random() > 0.03).map((t) => t + 230 + 60 * normal(random));
}

/** Taps with the lamp up to a time of the show; the page decodes every second. */
async function tap(session: ReadingSession, taps: readonly number[], from: number, to: number): Promise<void> {
  let at = from;
  for (const t of taps.filter((o) => o >= from && o < to)) {
    await vi.advanceTimersByTimeAsync(t - at);
    at = t;
    session.down(performance.now());
  }
  await vi.advanceTimersByTimeAsync(to - at);
  await settle();
}

describe("a reading by hand", () => {
  it.each([3, 4])("keeps what was said when the person taps no more and the lamp goes on (hand %i)", async (seed) => {
    const taps = hand(seed);
    thinksFrom = 72_000;
    const session = new ReadingSession(home());
    const end = session.run();
    let at = 0;
    while (!session.state.decoded?.complete && at < 120_000) await tap(session, taps, at, (at += 2000));
    expect(session.state.decoded).toMatchObject({ codes: ["26"], complete: true });
    const said: boolean[] = [];
    for (let second = 0; second < 15; second++) {
      await vi.advanceTimersByTimeAsync(1000);
      await settle();
      said.push(session.state.decoded!.complete);
    }
    expect(said.every(Boolean)).toBe(true);
    expect((await session.finish()).result).toMatchObject({ codes: ["26"], complete: true });
    end();
  });

  it("ends by itself once two rounds were seen, unless the dialect is only believed or the person goes on", async () => {
    const session = new ReadingSession(home({ speaks: "likely" }));
    const end = session.run();
    thinksFrom = 155_000;
    await tap(session, onsets, 0, 160_000);
    expect(session.state).toMatchObject({ phase: "watching", settled: false });
    session.become(home());
    await settle();
    expect(session.state).toMatchObject({ phase: "stopped", settled: true });
    session.goOn();
    await settle();
    expect(session.state).toMatchObject({ phase: "watching", settled: false });
    end();
  });
});

describe("a reading by camera", () => {
  it("shows a flash at once, judges it when the pictures are read, and stores what they tell", async () => {
    const own = home();
    const session = new ReadingSession(own);
    session.beginPicture("camera");
    session.seeChange(1, 600);
    expect(session.state.reading.marks).toMatchObject([{ t: 600 }]);
    session.seeChange(0, 900);
    expect(session.state.reading.marks[0].up).toBe(900);
    session.seePicture(pictures(75_000), 75_000);
    expect(session.state.busy).toBe(true);
    await settle();
    expect(session.state.busy).toBe(false);
    const { marks, levels } = session.state.reading;
    const seen = onsets.filter((t) => t > 100 && t < 74_500);
    expect(seen.filter((t) => !marks.some((m) => Math.abs(m.t - t) < 120))).toEqual([]);
    expect(marks.every((m) => m.p! > 0.9)).toBe(true);
    // The flash that was never in the pictures is gone.
    expect(marks.some((m) => m.t === 600)).toBe(seen.includes(600));
    expect(session.state.decoded?.codes).toEqual(["26"]);
    session.endPicture(75_000);
    await settle();
    expect(own.saved.at(-1)).toMatchObject({ until: 75_000, input: "camera" });
    expect(levels!.t).toHaveLength(own.saved.at(-1)!.levels!.t.length);
  });

  it("keeps the beginning and the newest part of a watch of hours, and reads no more than that", async () => {
    const session = new ReadingSession(home());
    session.beginPicture("camera");
    const [short, hours] = [pictures(60_000), 2 * 3600_000];
    const dark = Array.from({ length: 7200 }, (_, s) => s * 1000).filter((t) => t > 60_000 && t < hours - 60_000);
    const t = [...short.t, ...dark, ...short.t.map((x) => x + hours - 60_000)];
    const y = [...short.y, ...dark.map(() => 70), ...short.y];
    session.seePicture({ t, y }, hours);
    await settle();
    const { levels } = session.state.reading;
    expect(levels!.t.at(-1)).toBeGreaterThan(hours - 60);
    expect(levels!.t.filter((x) => x > 601_000 && x < hours - 601_000)).toEqual([]);
    expect(levels!.t).toHaveLength(levels!.y.length);
    expect(session.state.decoded?.codes).toEqual(["26"]);
  });

  it("believes a correction more than the pictures, until it is taken back", async () => {
    const session = new ReadingSession(home());
    session.beginPicture("film");
    session.seePicture(pictures(60_000), 60_000);
    session.endPicture(60_000);
    await settle();
    const before = session.state.reading.marks;
    session.edit({ kind: "remove", id: before[5].id });
    await settle();
    expect(session.state.reading).toMatchObject({ corrected: true });
    expect(session.state.reading.marks).toHaveLength(before.length - 1);
    // More pictures change nothing of it.
    session.seePicture(pictures(60_000), 60_000);
    await settle();
    expect(session.state.reading.marks).toHaveLength(before.length - 1);
    session.undo();
    await settle();
    expect(session.state.reading.corrected).toBeUndefined();
    expect(session.state.reading.marks).toEqual(before);
  });

  it("keeps nothing of a watch in which no lamp was seen, and goes on where one was broken off", async () => {
    const own = home();
    const empty = new ReadingSession(own);
    empty.beginPicture("camera");
    empty.endPicture(9000);
    expect([empty.state.phase, own.saved]).toEqual(["ready", []]);

    const first = new ReadingSession(own);
    first.beginPicture("camera");
    first.seePicture(pictures(30_000), 30_000);
    await settle();
    const stored = first.state.reading;
    expect(stored.until).toBeNull();
    await vi.advanceTimersByTimeAsync(50_000);
    const again = new ReadingSession(home({ stored }));
    expect(again.state.phase).toBe("interrupted");
    again.beginPicture("camera");
    again.seePicture(pictures(5000), 5000);
    await settle();
    const { levels, pauses } = again.state.reading;
    expect(pauses).toHaveLength(1);
    expect(levels!.t.length).toBe(stored.levels!.t.length + pictures(5000).t.length);
    expect(levels!.t.every((t, i) => i === 0 || t > levels!.t[i - 1])).toBe(true);
    // A film cannot be gone on with: what was read of it stands.
    expect(new ReadingSession(home({ stored: { ...stored, input: "film" } })).state.phase).toBe("stopped");
  });
});

describe("a reading that is recorded", () => {
  it("is not written over by what was still being worked out", async () => {
    const own = home();
    const session = new ReadingSession(own);
    session.beginPicture("camera");
    session.seePicture(pictures(20_000), 20_000);
    session.endPicture(20_000);
    const done = await session.finish();
    await settle();
    await settle();
    expect(own.saved.at(-1)).toBe(done);
    expect(done.recordedAt).not.toBeNull();
    // Nor by a hand that comes late.
    session.edit({ kind: "remove", id: done.marks[0].id });
    session.undo();
    expect(own.saved.at(-1)).toBe(done);
    expect(session.state.busy).toBe(false);
  });

  it("goes on where the worker dies: the person is told, every mark is kept, and it is read when there is another", async () => {
    const own = home();
    const session = new ReadingSession(own);
    const stop = session.run();
    dead.now = true;
    await tap(session, hand(1), 0, 20_000);
    expect(session.state).toMatchObject({ stuck: true, busy: false, decoded: null, phase: "watching" });
    expect(own.saved.at(-1)!.marks).toEqual(session.state.reading.marks);
    dead.now = false;
    await tap(session, hand(1), 20_000, 110_000);
    expect(session.state).toMatchObject({ stuck: false, decoded: { codes: ["26"] } });
    stop();
  });

  it("that could not be stored is told of, and is recorded when there is room again", async () => {
    let room = false;
    const saved: unknown[] = [];
    const save: Home["save"] = (r) => (room ? (saved.push(r), Promise.resolve()) : Promise.reject(new Error("full")));
    const session = new ReadingSession(home({ save }));
    session.load([{ id: 1, t: 500, up: 900 }], 9000);
    await settle();
    expect(session.state.unstored).toMatch(/not saved/);
    await expect(session.finish()).rejects.toThrow("full");
    room = true;
    session.edit({ kind: "add", t: 2000, up: 2400 });
    await settle();
    expect(session.state.unstored).toBeNull();
    const done = await session.finish();
    expect(saved.at(-1)).toBe(done);
    expect(done.marks).toHaveLength(2);
    // Asked again, since what belongs to it could not be stored.
    expect(await session.finish()).toBe(done);
  });
});

describe("a reading without a vehicle", () => {
  const other = dialect("long-short");
  const taps = (until: number) => onsets.filter((t) => t < until).map((t, i) => ({ id: i + 1, t, up: t + 400 }));

  it("forgets what another dialect made of the marks until its own answer is there", async () => {
    const session = new ReadingSession(homeOf(other, { speaks: "likely" }), "camera");
    expect(session.state.reading.input).toBe("camera");
    session.load(taps(120_000), 120_000);
    await settle();
    expect(session.state.decoded?.codes ?? []).not.toContain("26");
    session.become(home());
    expect(session.state).toMatchObject({ decoded: null, reading: { dialect: lead.id } });
    await settle();
    expect(session.state.decoded).toMatchObject({ codes: ["26"], misfit: null });
    // Surer of the same dialect: nothing is asked anew in between.
    const { decoded } = session.state;
    session.become({ ...session.home, speaks: "given" });
    expect(session.state.decoded).toBe(decoded);
  });

  it("tells no code of flashes by hand while no dialect is known, and finds the flashes of pictures all the same", async () => {
    const byHand = new ReadingSession(homeOf(other, { speaks: "unknown" }));
    byHand.load(taps(120_000), 120_000);
    await settle();
    expect(byHand.state.decoded).toBeNull();
    byHand.become(homeOf(other, { speaks: "likely" }));
    await settle();
    expect(byHand.state.decoded).not.toBeNull();
    byHand.become(homeOf(other, { speaks: "unknown" }));
    expect(byHand.state.decoded).toBeNull();

    const filmed = new ReadingSession(homeOf(other, { speaks: "unknown" }));
    filmed.beginPicture("film");
    filmed.seePicture(picturesOf(lead, ["26"], 60_000), 60_000);
    filmed.endPicture(60_000);
    await settle();
    expect(filmed.state.reading.marks).toHaveLength(onsets.filter((t) => t < 60_000).length);
    filmed.become(home());
    expect(filmed.state.decoded).toBeNull();
    await settle();
    expect(filmed.state.decoded?.codes).toEqual(["26"]);
  });

  it("that is taken over is written no more, whatever is answered late; unless nobody took it", async () => {
    const own = home({ speaks: "unknown" });
    const session = new ReadingSession(own, "camera");
    session.beginPicture("camera");
    session.seePicture(picturesOf(lead, ["26"], 20_000), 20_000);
    await session.handOver();
    const written = own.saved.length;
    await settle();
    session.edit({ kind: "add", t: 900 });
    expect(own.saved).toHaveLength(written);
    session.takeBack();
    await settle();
    session.edit({ kind: "add", t: 900 });
    expect(own.saved.length).toBeGreaterThan(written);
  });

  it("is undone step by step, back to what was brought in", async () => {
    const session = new ReadingSession(home());
    const brought = taps(60_000);
    session.load(brought, 60_000);
    const random = seeded(4);
    for (let k = 0; k < 40; k++) {
      const { id } = session.state.reading.marks[Math.floor(random() * session.state.reading.marks.length)];
      const edits = [
        { kind: "remove", id },
        { kind: "move", id, by: Math.round(2000 * random() - 1000) },
        { kind: "stretch", id, by: 100 },
        { kind: "turn", id, ms: 1200 },
        { kind: "add", t: Math.round(60_000 * random()) },
      ] as const;
      session.edit(edits[k % edits.length]);
    }
    expect(session.state.reading.marks).not.toEqual(brought);
    for (let k = 0; k < 40; k++) session.undo();
    expect(session.state.reading.marks).toEqual(brought);
    await settle();
    expect(session.state.decoded?.codes).toEqual(["26"]);
  });
});

describe("the beginning of a watch", () => {
  const end = dialect("end-mark");
  const shown = (codes: string[]) =>
    encode(end, { stored: codes }, 60_000, { from: 0 }).flatMap(([t, lit], i, all) =>
      lit && (all[i + 1]?.[0] ?? 0) - t < 1500 ? [t + 230] : [],
    );

  it("of a list that is shown once is told with the key: what is tapped from then on is read whole", async () => {
    const session = new ReadingSession(homeOf(end));
    const stop = session.run();
    session.watch(true);
    await tap(session, shown(["13", "22"]), 0, 60_000);
    stop();
    const done = await session.finish();
    expect(done).toMatchObject({ keyOn: true, result: { state: "codes", codes: ["13", "22"], complete: true } });
    expect(done.marks[0].t).toBeGreaterThan(4000);
  });

  it("is taken to be the key's, too, where nobody told: no code is cut off for it", async () => {
    const session = new ReadingSession(homeOf(end));
    const stop = session.run();
    await tap(session, shown(["13", "22"]), 0, 60_000);
    stop();
    const done = await session.finish();
    expect([done.keyOn, done.result!.codes]).toEqual([undefined, ["13", "22"]]);
  });

  it("without a flash is recorded as the lamp did, and a flash takes that back", async () => {
    const session = new ReadingSession(home());
    session.watch();
    await vi.advanceTimersByTimeAsync(20_000);
    session.setRested("lit");
    expect((await session.finish()).result).toMatchObject({ state: "steady", codes: [], confidence: 0.95 });
    const other = new ReadingSession(home());
    other.watch();
    other.setRested("dark");
    other.down(performance.now());
    expect(other.state.reading.rested).toBeUndefined();
  });
});

describe("counts that are typed", () => {
  it("are read as they stand, also after they were whole", async () => {
    const session = new ReadingSession(home({ table: ["26", "43", "54"] }));
    session.setInput("counts");
    const type = async (text: string) => {
      session.setCounts(text);
      await settle();
      await settle();
      return session.state.decoded;
    };
    expect((await type("13 13 13 26 26 26 13 13 13 26 26 26 13 13 13 26 26 26 13"))?.complete).toBe(true);
    expect((await type("13 13 13 26"))?.complete).toBe(false);
    expect((await type("13 13 13 54 54 54 13 13 13 54 54 54 13"))?.codes).toEqual(["54"]);
    expect((await session.finish()).result?.codes).toEqual(["54"]);
  });
});
