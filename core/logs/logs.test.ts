import { describe, expect, it } from "vitest";
import { makeRide } from "../cases/ride";
import { seeded } from "../flash/dialect/encode";
import { ridesIn } from "../proving/rides";
import { countingSince } from "../proving/count";
import { byHand, noted, rideSays, ruleSays } from "../proving/told";
import { readLog } from "./read-log";

const START = Date.UTC(2026, 5, 3, 8);
const iso = (s: number) => new Date(START + s * 1000).toISOString();
/** A line a second: stands ten seconds, then drives at a speed, then stands. */
const drive = (kmh: number, seconds: number, row: (s: number, v: number) => string) =>
  Array.from({ length: seconds + 20 }, (_, s) => row(s, s < 10 || s >= seconds + 10 ? 0 : kmh)).join("\n");
const rule = { seconds: 60, above: { kmh: 40, seconds: 50 }, rides: 1 };
const ridesOf = (text: string, of = rule) => {
  const read = readLog(text);
  if ("fault" in read) throw new Error(read.fault);
  return { ...read.log, rides: ridesIn(read.log, of) };
};
const faultOf = (text: string) => {
  const read = readLog(text);
  return "fault" in read ? read.fault : "read";
};

const KM = { speed: "km/h", temperature: "°C" } as const;

describe("a log of a ride", () => {
  it("is read for what is true of it, whatever wrote it, and counts no ride that does not", () => {
    const random = seeded(7);
    const wrong: string[] = [];
    let right = 0;
    for (let k = 0; k < 200; k++) {
      const made = makeRide(random);
      const { rides } = ridesOf(made.text, made.rule as typeof rule);
      const longest = rides.reduce((a, b) => (b.length.have > a.length.have ? b : a));
      right += Number(longest.counts === made.counts);
      if (longest.counts === "yes" && made.counts !== "yes") wrong.push(`${k}: ${rideSays(longest, made.rule, KM)}`);
      const { above } = made.truth;
      if (above && above.have > 120) expect(Math.abs(longest.above!.have / above.have - 1)).toBeLessThan(0.15);
    }
    expect(wrong).toEqual([]);
    expect(right).toBeGreaterThanOrEqual(194);
  });

  it.each([
    ["a heading with its unit", `time,speed (mph)\n${drive(31.07, 100, (s, v) => `${iso(s)},${v}`)}`],
    [
      "decimal commas",
      `Zeit/time;speed [km/h]\n${drive(50, 100, (s, v) => `${iso(s)};${String(v).replace(".", ",")},0`)}`,
    ],
    [
      "tabs, a clock over midnight, metres a second",
      `clock\tspeed m/s\n${drive(13.9, 100, (s, v) => `${s < 50 ? "23:59:" + String(10 + s).padStart(2, "0") : `00:${String(Math.floor((s - 50) / 60)).padStart(2, "0")}:${String((s - 50) % 60).padStart(2, "0")}`}\t${v}`)}`,
    ],
    ["milliseconds since 1970", `timestamp|km/h\n${drive(50, 100, (s, v) => `${START + s * 1000}|${v}`)}`],
    [
      "a date and a time apart",
      `date,time,speed kmh\n${drive(50, 100, (s, v) => `03.06.2026,08:${String(Math.floor(s / 60)).padStart(2, "0")}:${String(s % 60).padStart(2, "0")},${v}`)}`,
    ],
    [
      "words before the heading",
      `A logger's export\nvehicle,1\n\nt,speed (km/h)\n${drive(50, 100, (s, v) => `${s},${v}`)}`,
    ],
  ])("is read with %s", (_, text) => {
    const { rides, t } = ridesOf(text);
    expect(rides.map((r) => r.counts)).toEqual(["yes"]);
    expect(Math.abs(rides[0].above!.have - 100)).toBeLessThan(2);
    expect(t.at(-1)! - t[0]).toBeCloseTo(119, 0);
  });

  it.each([
    ["nothing", "", /is empty/],
    ["bytes", "\x00\x01\x02\n\x00", /not a text file/],
    ["prose", "It ran well.\nThen it did not.\nThen it did.", /but one column/],
    ["no time", "speed,temp\n50,80\n20,81\n50,82\n", /No column of it is a time/],
    ["no speed", `time,gear\n${drive(3, 9, (s) => `${iso(s)},third`)}`, /No (column of it is a speed|line of it)/],
    [
      "no unit",
      `time,speed\n${drive(50, 100, (s, v) => `${iso(s)},${v}`)}`,
      /does not say in what its speeds are told/,
    ],
    [
      "a track without times",
      `<gpx><trk><trkseg>${drive(1, 20, () => '<trkpt lat="48" lon="9"/>')}</trkseg></trk></gpx>`,
      /no times/,
    ],
    ["a route", '<gpx><rte><rtept lat="48" lon="9"/></rte></gpx>', /holds no track/],
    ["names of its own", '<!DOCTYPE gpx [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><gpx>&b;</gpx>', /DOCTYPE/],
    [
      "two recordings",
      `time,speed (km/h)\n${drive(50, 100, (s, v) => `${iso(s)},${v}\n${iso(s + 5000)},${v}`)}`,
      /back and forth/,
    ],
    [
      "two vehicles",
      `time,lat,lon\n${drive(50, 100, (s) => `${iso(s)},${s % 2 ? "48.000000" : "49.000000"},9.000000`)}`,
      /two vehicles/,
    ],
  ])("that is %s is refused with a word on what to do", (_, text, says) => {
    expect(faultOf(text)).toMatch(says);
  });

  it("tells what it could not believe, and takes none of it for speed", () => {
    const odd = drive(
      50,
      100,
      (s, v) => `${iso(s)},${s === 40 ? "NaN" : s === 50 ? -80 : s === 60 ? 900 : s === 70 ? 140 : v}`,
    );
    const { rides, notes } = ridesOf(`time,speed (km/h)\n${odd}`);
    expect(notes.join(" ")).toMatch(/3 speeds nobody can have driven/);
    expect(rides[0].counts).toBe("yes");
    // Nothing recorded where it matters: it is not known.
    const gap = drive(50, 60, (s, v) => `${iso(s)},${v}`)
      .split("\n")
      .filter((_, s) => s < 15 || s > 40);
    const short = ridesOf(`time,speed (km/h)\n${gap.join("\n")}`).rides[0];
    expect(short.counts).toBe("unknown");
    expect(rideSays(short, rule, KM)).toMatch(
      /^not known whether it counts: at 40 km\/h or more for 0:3\d of 0:50, and 0:2\d of which the log tells nothing/,
    );
  });

  it("runs on through the end of summer time, and believes positions more than a heading", () => {
    const summer = drive(
      50,
      100,
      (s, v) =>
        `2026-10-25 ${s < 60 ? `02:59:${String(s).padStart(2, "0")}` : `02:00:${String(s - 60).padStart(2, "0")}`},${v}`,
    );
    const one = ridesOf(`time,speed (km/h)\n${summer}`);
    expect([one.rides.length, one.notes.some((n) => /summer time/.test(n))]).toEqual([1, true]);
    let metres = 0;
    const wrong = drive(
      50,
      100,
      (s, v) => `${iso(s)},${(v / 3.6).toFixed(1)},${(48 + (metres += v / 3.6) / 111_195).toFixed(7)},9.0000000`,
    );
    const two = ridesOf(`time,speed (km/h),lat,lon\n${wrong}`);
    expect(two.notes.join(" ")).toMatch(/heading says km\/h, but by its positions the speeds are told in m\/s/);
    expect(two.rides[0].counts).toBe("yes");
  });
});

describe("what is said of a ride", () => {
  it("names by how much it missed, in the person's units", () => {
    const { rides } = ridesOf(`time,speed (km/h)\n${drive(50, 46, (s, v) => `${iso(s)},${v}`)}`);
    expect(rides[0].counts).toBe("no");
    expect(rideSays(rides[0], rule, KM)).toMatch(
      /^does not count: at 40 km\/h or more for 0:4\d of 0:50; on the way for 0:4\d of 1:00\.$/,
    );
    expect(rideSays(rides[0], rule, { ...KM, speed: "mph" })).toMatch(/at 25 mph or more/);
    expect(ruleSays({ ...rule, rides: 3, idleSeconds: 120 }, KM)).toBe(
      "3 rides, each: 1 min on the way, 0:50 min of it at 40 km/h or more, 2 min standing with the engine running before.",
    );
  });

  it("never takes a standstill for an engine that was off", () => {
    const two = drive(50, 100, (s, v) => `${s},${v}`) + "\n" + drive(50, 100, (s, v) => `${s + 4000},${v}`);
    const { rides } = ridesOf(`t,speed (km/h)\n${two}`, { ...rule, offSeconds: 600 } as typeof rule);
    expect(rides.map((r) => r.counts)).toEqual(["unknown", "unknown"]);
    expect(byHand({ seconds: 900, above: 60, idle: 0, off: 300 }, { ...rule, offSeconds: 600 }, KM, iso(0)).says).toBe(
      "does not count: engine off before for 5:00 of 10:00.",
    );
  });

  it("counts what was ridden since the clear, and what was not taken back", () => {
    const { rides } = ridesOf(`time,speed (km/h)\n${drive(50, 100, (s, v) => `${iso(s)},${v}`)}`);
    const logged = { ...noted(rides[0], rule, KM, iso(10)), notedAt: iso(200) };
    const told = {
      ...byHand({ seconds: 900, above: 60, idle: 0, off: 0 }, rule, KM, iso(3000)),
      notedAt: iso(4000),
    };
    expect([logged.counts, told.counts]).toEqual(["yes", "yes"]);
    expect(countingSince([logged, told], iso(100))).toEqual([told]);
    expect(countingSince([logged, { ...told, withdrawnAt: iso(5000) }], iso(0))).toEqual([logged]);
    expect(byHand({ seconds: 900, above: 20, idle: 0, off: 0 }, rule, KM, iso(0)).says).toBe(
      "does not count: at 40 km/h or more for 0:20 of 0:50.",
    );
  });

  it("asks for a warm engine where the make does, and knows it only from what tells the coolant", () => {
    const rule = { seconds: 300, rides: 1, celsius: 80 };
    const file = (heading: string, warmest: number) =>
      [
        heading,
        ...Array.from({ length: 400 }, (_, s) =>
          [s, s < 20 ? 0 : 60, Math.min(warmest, 20 + s / 4).toFixed(1)].join(";"),
        ),
      ].join("\n");
    const says = (heading: string, warmest: number) => {
      const read = readLog(file(heading, warmest));
      if ("fault" in read) throw new Error(read.fault);
      return rideSays(ridesIn(read.log, rule)[0], rule, KM);
    };
    expect(says("s;speed (km/h);coolant (°C)", 88)).toMatch(/^counts/);
    expect(says("s;speed (km/h);coolant (°C)", 71)).toMatch(/^does not count: the coolant at 71 °C of 80 °C/);
    expect(says("s;speed (km/h);ECT deg F", 100)).toMatch(/^does not count: the coolant at 38 °C of 80 °C/);
    expect(says("s;speed (km/h);intake air temp", 88)).toMatch(
      /^not known whether it counts: the coolant has to get to 80 °C/,
    );
    expect(ruleSays(rule, { ...KM, temperature: "°F" })).toContain("the coolant at 176 °F or more once");
    const told = { seconds: 900, above: 0, idle: 0, off: 0 };
    expect(byHand({ ...told, warm: true }, rule, KM, "2026-03-04T09:00:00.000Z").counts).toBe("yes");
    expect(byHand({ ...told, warm: false }, rule, KM, "2026-03-04T09:00:00.000Z").says).toMatch(
      /coolant did not get to 80 °C\.$/,
    );
  });
});
