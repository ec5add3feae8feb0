import { describe, expect, it } from "vitest";
import type { Cause, ReadinessLamp } from "../pack/way";
import { decode } from "../flash/decode";
import { encode } from "../flash/dialect/encode";
import { dialect } from "../testing/dialects";
import { actPrompt } from "./act-prompt";
import { beatOf, judgeBeat } from "./key-beat";
import { rankCauses } from "./nothing-happens";
import { readinessVerdict } from "./readiness";
import { compareVehicles, unitVerdict, type UnitSeen } from "./unit-check";

const about = (unit: string, feed: string, ground: string) => ({
  id: unit,
  name: unit,
  unit,
  feed,
  ground,
  drives: [
    { id: `${unit}-pump`, name: "Pump", expect: "hums" },
    { id: `${unit}-fan`, name: "Fan relay", expect: "clicks" },
  ],
});
const ecm = about("ECM", "fuse 1", "G1");
const seen = (lamp: UnitSeen["lamp"], outputs: UnitSeen["outputs"] = {}, more: Partial<UnitSeen> = {}): UnitSeen => ({
  lamp,
  outputs,
  ...more,
});
const DEAD = { "ECM-pump": "dead", "ECM-fan": "dead" } as const;

describe("unitVerdict", () => {
  const abs = (a: UnitSeen | undefined, feed = "fuse 1", ground = "G9") => [
    { about: about("ABS unit", feed, ground), seen: a },
  ];
  it.each([
    ["a steady lamp", seen("steady"), [], "none", true],
    ["a flashing lamp", seen("flashing"), [], "test-line", false],
    ["a lamp that goes out", seen("goes-out"), [], "wrong-lamp", false],
    ["dark, nothing else checked", seen("dark"), [], "lamp-or-unit", false],
    ["dark, but the pump hums", seen("dark", { ...DEAD, "ECM-pump": "works" }), [], "shared-feed", false],
    ["dark, and all else works", seen("dark", { "ECM-pump": "works", "ECM-fan": "works" }), [], "lamp-only", false],
    ["all dead", seen("dark", DEAD), [], "power-or-ground", false],
    ["all dead, no power at the plug", seen("dark", DEAD, { power: "bad", ground: "good" }), [], "feed", false],
    ["all dead, bad ground", seen("dark", DEAD, { power: "good", ground: "bad" }), [], "ground", false],
    ["all dead, both good", seen("dark", DEAD, { power: "good", ground: "good" }), [], "unit", false],
    [
      "all dead, as is what hangs on the same fuse",
      seen("dark", DEAD),
      abs(seen("dark", { x: "dead" })),
      "feed",
      false,
    ],
    [
      "all dead, as is what has the same ground",
      seen("dark", DEAD),
      abs(seen("dark", { x: "dead" }), "fuse 2", "G1"),
      "ground",
      false,
    ],
    ["all dead, another on the same fuse lives", seen("dark", DEAD), abs(seen("steady")), "power-or-ground", false],
    ["all dead, the other was not looked at", seen("dark", DEAD), abs(undefined), "power-or-ground", false],
  ] as const)("%s", (_, here, others, suspect, pass) => {
    expect(unitVerdict(ecm, here, others)).toMatchObject({ suspect, pass });
  });

  it("calls the lamp alone dead only when all else was seen to work", () => {
    const says = (outputs: UnitSeen["outputs"], lamp: "dark" | "steady" = "dark") =>
      unitVerdict(ecm, seen(lamp, outputs), [])!.headline;
    expect(says({ "ECM-pump": "works", "ECM-fan": "works" })).toBe("Only the lamp is dead.");
    for (const outputs of [
      { "ECM-pump": "works" },
      { "ECM-pump": "works", "ECM-fan": "dead" },
    ] as UnitSeen["outputs"][])
      expect(says(outputs)).not.toMatch(/Only the lamp/);
    expect(says({ "ECM-pump": "dead" })).not.toMatch(/all that the unit drives/);
    expect(says({ "ECM-fan": "dead" }, "steady")).toMatch(/not all that the ECM drives works/);
  });

  it("says what is known to be good, so that nobody measures it again", () => {
    const verdict = unitVerdict(ecm, seen("dark", DEAD), abs(seen("steady")));
    expect(verdict?.reason).toContain("fuse 1 is good: the ABS unit lives on it");
    expect(verdict?.look[0]).toMatch(/unit's own plug/);
    expect(unitVerdict(ecm, seen(null), [])).toBeNull();
  });

  it("compares two vehicles: what works there and not here is wrong here", () => {
    const there = seen("steady", { "ECM-pump": "works", "ECM-fan": "dead" });
    expect(compareVehicles(seen("dark", DEAD), there, ecm)).toEqual({
      wrongHere: ["The lamp", "Pump"],
      sameOnBoth: ["Fan relay"],
    });
  });
});

describe("rankCauses", () => {
  const causes: Cause[] = [
    { id: "contact", text: "c", look: "", weight: 6, seen: ["steady"] },
    { id: "mirrored", text: "m", look: "", weight: 5, seen: ["steady", "other-lamp"] },
    { id: "key", text: "k", look: "", weight: 2, seen: ["dark"] },
    { id: "line", text: "l", look: "", weight: 4, unlikelyAfter: ["contact"] },
  ];
  const order = (...a: Parameters<typeof rankCauses>) => rankCauses(...a).map((r) => r.cause.id);
  it("begins with the likeliest, turns with what is seen, and learns from what was ruled out", () => {
    expect(order(causes, null, [])).toEqual(["contact", "mirrored", "line", "key"]);
    expect(order(causes, "dark", [])[0]).toBe("line");
    expect(order(causes, "other-lamp", [])[0]).toBe("mirrored");
    expect(order(causes, "steady", ["contact", "mirrored"])).toEqual(["line", "key", "contact", "mirrored"]);
    const ranked = rankCauses(causes, null, ["contact"]);
    expect(ranked.at(-1)).toMatchObject({ ruledOut: true, probability: 0 });
    expect(ranked.reduce((s, r) => s + r.probability, 0)).toBeCloseTo(1);
    expect(
      rankCauses(
        causes,
        null,
        causes.map((c) => c.id),
      ).every((r) => r.probability === 0),
    ).toBe(true);
  });
});

describe("the key cycle", () => {
  const beat = { times: 3, withinSeconds: 5 };
  it.each([
    [[0, 1800, 3600], true, /in time/],
    [[0, 2600, 5200], false, /too slow/],
    [[0, 100, 2000], false, /fully off/],
    [[-9000, 0, 1500, 3000], true, /in time/],
  ])("%j", (turns, good, says) => {
    const verdict = judgeBeat(turns, beat);
    expect(verdict?.good).toBe(good);
    expect(verdict?.says).toMatch(says);
  });
  it("is not judged before it is whole, and its own beat is good", () => {
    expect(judgeBeat([0, 1000], beat)).toBeNull();
    for (const b of [beat, { times: 5, withinSeconds: 5 }, { times: 2, withinSeconds: 3 }])
      expect(
        judgeBeat(
          beatOf(b).flatMap((x) => (x.on ? [x.at] : [])),
          b,
        )?.good,
      ).toBe(true);
  });
});

describe("readinessVerdict", () => {
  const way: ReadinessLamp = { kind: "readiness", waitSeconds: 20, watchSeconds: 10, blinks: 7, complete: "steady" };
  const blinks = (n: number, from = 20_200) => Array.from({ length: n }, (_, i) => from + i * 1000);
  it.each([
    [{ flashes: blinks(7), atEnd: "lit", watched: 28_000 }, "not-complete"],
    [{ flashes: blinks(5), atEnd: "lit", watched: 30_000 }, "not-complete"],
    [{ flashes: [], atEnd: "lit", watched: 30_000 }, "complete"],
    [{ flashes: [], atEnd: "lit", watched: 12_000 }, "too-early"],
    // The lamp lights as the key goes on: that is no blink.
    [{ flashes: [300, ...blinks(7)], atEnd: "lit", watched: 30_000 }, "not-complete"],
    [{ flashes: [300], atEnd: "lit", watched: 32_000 }, "complete"],
    // Blinks before their time: the watch began late, or it is another lamp.
    [{ flashes: blinks(3, 2000), atEnd: "lit", watched: 30_000 }, "unclear"],
    [{ flashes: blinks(7, 5200), atEnd: "lit", watched: 30_000 }, "unclear"],
    [{ flashes: blinks(1), atEnd: "lit", watched: 30_000 }, "unclear"],
    [{ flashes: [], atEnd: "dark", watched: 30_000 }, "unclear"],
  ] as const)("%#", (seen, state) => expect(readinessVerdict(way, seen).state).toBe(state));
  it("reads the other way round where a pack says so", () =>
    expect(
      readinessVerdict({ ...way, complete: "goes-out" }, { flashes: [], atEnd: "dark", watched: 30_000 }).state,
    ).toBe("complete"));
});

describe("actPrompt", () => {
  it("says soon after the cylinders, now at the one flash, and nothing once the window is over", () => {
    const running = dialect("running-two");
    const edges = encode(running, { live: ["32"] }, 90_000, { cylinders: 8, speed: 1.1 });
    const marks = edges.filter(([, lit]) => lit === 1).map(([t]) => t);
    const act = marks[4];
    const said = new Map<string, number[]>();
    for (let now = 1000; now < act + 14_000; now += 500) {
      const taps = marks.filter((t) => t <= now - 250).map((t) => t + 230);
      const decoded = decode(running, { mode: "taps", taps, until: now });
      const kind = actPrompt(running, decoded, now, 10_000)?.kind ?? "nothing";
      said.set(kind, [...(said.get(kind) ?? []), now]);
    }
    expect(said.get("now")![0]).toBeGreaterThan(act);
    expect(said.get("now")![0]).toBeLessThan(act + 1500);
    expect(said.get("now")!.at(-1)).toBeLessThan(act + 10_500);
    expect(said.get("soon")!.every((t) => t > marks[3] && t < act + 1500)).toBe(true);
    expect(said.get("nothing")!.every((t) => t < marks[3] + 2000 || t > act + 9500)).toBe(true);
  });
});
