import { contradictoryLimits } from "./limits";
import { describe, expect, it } from "vitest";
import { dialect } from "../testing/dialects";
import { meaningsOf } from "./lookup";
import type { Entry, Pack } from "./pack";
import { checkPack, readPack } from "./schema";
import { entriesFor, outside, scopeText, systemsOf } from "./scope";

const entry = (code: string, more: Partial<Entry> = {}): Entry => ({
  code,
  kind: "fault",
  circuit: "Sensor circuit",
  title: `Fault ${code}`,
  sets: "A test",
  affects: "A test",
  lookFirst: ["The plug"],
  ...more,
});

const pack: Pack = {
  format: "klinko-pack",
  version: 1,
  id: "testmake",
  make: "Testmake",
  title: "Testmake 1980 to 1990",
  revision: "1",
  source: "made up",
  systems: [{ id: "engine", name: "Engine", unit: "ECM", lamp: "MIL" }],
  dialects: [dialect("lead-in")],
  connectors: [
    {
      id: "plug",
      name: "Plug",
      size: [200, 100],
      shape: "block",
      notch: "bottom",
      colour: "grey",
      where: "Under the dash",
      place: "under-dash",
      cavities: [
        { id: "A", at: [40, 50], role: "test", system: "engine" },
        { id: "B", at: [90, 50], role: "ground" },
        { id: "C", at: [140, 50], role: "power" },
      ],
    },
  ],
  ways: [
    {
      id: "bridge",
      title: "Bridge",
      method: "A",
      ask: { kind: "bridge", connector: "plug", bridge: ["A", "B"] },
      tells: { kind: "lamp", dialect: "lead-in" },
      engine: "off",
      preconditions: [],
      steps: [{ id: "wire", title: "Wire", text: "In", key: "off", wire: "in" }],
      nothingHappens: [],
    },
  ],
  variants: [
    {
      id: "car",
      model: "Car",
      years: [1980, 1990],
      engines: [
        { id: "2.0", name: "2.0", cylinders: 4 },
        { id: "3.0", name: "3.0", cylinders: 6 },
      ],
      markets: ["home"],
      systems: [{ system: "engine", way: "bridge" }],
    },
  ],
  tables: [
    {
      id: "t",
      system: "engine",
      entries: [
        entry("21"),
        entry("22", { kind: "status" }),
        entry("31", { scope: { engines: ["3.0"] }, title: "Of the six" }),
        entry("31", { scope: { years: [1985, 1990] }, title: "Of late years" }),
        entry("31", { title: "Of all others" }),
        entry("51", { first: "Mend this first" }),
      ],
    },
  ],
  clears: [],
  proving: { idleMinutes: 5, drive: "Drive", readiness: "None" },
};

const car = { variant: "car", year: 1983, engine: "2.0", market: "home" };
const title = (facts: typeof car, code: string) =>
  entriesFor(pack, facts, "engine").find((e) => e.code === code)?.title;

describe("limits of an entry", () => {
  it.each([
    ["Signal below 0.4 V for 2 s.", ["Good: about 0.6 V."], []],
    ["Signal below 0.4 V for 2 s.", ["Good: about 0.3 V."], [0.3]],
    ["Outside 0.2 to 4.8 V.", ["Idle: 0.1 to 1.2 V."], [0.1]],
    ["Below 9.5 V or above 16.5 V.", ["At the battery: 13.8 to 14.6 V."], []],
    ["No current for 10 s.", ["Heater: 3 to 12 Ω, near 0.2 V."], []],
  ])("%s with %j contradicts itself at %j", (sets, lookFirst, at) => {
    expect(contradictoryLimits({ sets, lookFirst })).toEqual(at);
  });
});

describe("scope", () => {
  it("gives one number the meaning of the narrowest scope that holds", () => {
    expect(title(car, "31")).toBe("Of all others");
    expect(title({ ...car, year: 1985 }, "31")).toBe("Of late years");
    expect(title({ ...car, year: 1985, engine: "3.0" }, "31")).toBe("Of the six");
  });

  it("says when a vehicle is outside the pack, and finds the way in when it is not", () => {
    expect(outside(pack, car)).toBeNull();
    expect(outside(pack, { ...car, year: 1991 })).toMatch(/covers 1980 to 1990/);
    expect(outside(pack, { ...car, engine: "9" })).toMatch(/knows no engine/);
    expect(systemsOf(pack, car)[0]).toMatchObject({
      system: "engine",
      way: { id: "bridge" },
      dialect: { id: "lead-in" },
    });
    expect(scopeText({ years: [1985, 1990], engines: ["2.0"] })).toBe("1985 to 1990, engine 2.0");
  });
});

describe("meaningsOf", () => {
  it("puts what must be mended first ahead, faults next, status last", () => {
    expect(meaningsOf(pack, car, "engine", dialect("lead-in"), ["22", "31", "51"]).map((m) => m.code)).toEqual([
      "51",
      "31",
      "22",
    ]);
  });

  it("says so when a code is in no table, with what lies one flash away", () => {
    const [m] = meaningsOf(pack, car, "engine", dialect("lead-in"), ["32"]);
    expect(m.entry).toBeNull();
    expect(m.nearMisses.map((e) => e.code).sort()).toEqual(["22", "31"]);
  });

  it("warns of the same number elsewhere", () => {
    expect(meaningsOf(pack, car, "engine", dialect("lead-in"), ["31"])[0].elsewhere.map((e) => e.title)).toEqual([
      "Of the six",
      "Of late years",
    ]);
  });
});

describe("checkPack", () => {
  const faults = (value: unknown) => {
    const got = checkPack(value);
    return "faults" in got ? got.faults.map((f) => `${f.path} ${f.message}`) : [];
  };

  it("takes a good pack", () => expect(faults(pack)).toEqual([]));

  it("lists every fault with its path", () => {
    const bad = structuredClone(pack) as unknown as Record<string, never> & Pack;
    bad.ways[0].ask = { kind: "bridge", connector: "plug", bridge: ["A", "C"] };
    bad.ways[0].tells = { kind: "lamp", dialect: "none" };
    bad.variants[0].systems[0].way = "nowhere";
    bad.tables[0].entries.push(entry("21"));
    expect(faults(bad)).toEqual([
      expect.stringMatching(/^ways\[0\].tells.dialect names the dialect "none"/),
      expect.stringMatching(/^ways\[0\].ask.bridge\[1\] bridges cavity C, which carries power/),
      expect.stringMatching(/^variants\[0\].systems\[0\].way names the way "nowhere"/),
      expect.stringMatching(/^tables\[0\].entries\[6\] is code 21 for the same vehicles as tables\[0\].entries\[0\]/),
    ]);
    const wrongTypes = { ...pack, revision: 2, systems: [{ id: "Engine!" }] };
    expect(faults(wrongTypes).map((f) => f.split(" ")[0])).toEqual(
      expect.arrayContaining(["revision", "systems[0].id", "systems[0].name"]),
    );
  });

  it("keeps a field that it does not know, and tells of it; a pack of a newer version is no pack here", () => {
    const more = { ...pack, extra: 1, ways: [{ ...pack.ways[0], cuation: "Engine off" }] };
    expect(checkPack(more)).toEqual({
      pack: more,
      unknown: [expect.objectContaining({ path: "ways[0].cuation" }), expect.objectContaining({ path: "extra" })],
    });
    expect(faults({ ...pack, version: 2, more: [] })).toEqual([expect.stringMatching(/^version is 2, of a newer/)]);
    expect(faults({ ...pack, version: 0 })).toEqual([expect.stringMatching(/^version/)]);
  });

  it("refuses hostile packs with the place at fault", () => {
    const with_ = (change: (p: Pack) => void) => {
      const p = structuredClone(pack);
      change(p);
      return faults(p).join("; ");
    };
    expect(with_((p) => (p.ways[0].title = "<img src=x onerror=alert(1)>"))).toMatch(/ways\[0\].title.*without markup/);
    expect(with_((p) => (p.source = "a\u0000b"))).toMatch(/^source .*without markup/);
    expect(with_((p) => (p.tables[0].entries[0].lookFirst = ["R < 5 Ω", "<script>x</script>"]))).toMatch(
      /lookFirst\[1\]/,
    );
    expect(with_((p) => p.connectors.push(structuredClone(p.connectors[0])))).toMatch(/connectors\[1\].*duplicate/);
    expect(with_((p) => (p.variants[0].years = [1990, "1980"] as never))).toMatch(/variants\[0\].years/);
    const cause = (id: string, unlikelyAfter: string[]) => ({ id, text: id, look: id, weight: 1, unlikelyAfter });
    expect(with_((p) => (p.ways[0].nothingHappens = [cause("a", ["b"]), cause("b", ["a"])]))).toMatch(
      /nothingHappens\[0\].unlikelyAfter leads back to "a"/,
    );
    expect(with_((p) => (p.ways[0].nothingHappens = [cause("a", ["zz"])]))).toMatch(/names the cause "zz"/);
    const act = { what: "Turn the wheel", seconds: 10, missed: "21" };
    expect(with_((p) => (p.ways[0].tells = { kind: "lamp", dialect: "lead-in", act }))).toMatch(
      /tells.act .*never asks/,
    );
    // A shape of its own is drawn, and only by what draws.
    const plug = (c: Partial<Pack["connectors"][number]>) => with_((p) => Object.assign(p.connectors[0], c));
    expect(plug({ shape: "own" })).toMatch(/connectors\[0\].outline is missing/);
    expect(plug({ outline: { path: "M 0 0 H 9 Z", words: "square" } })).toMatch(/connectors\[0\].shape must be "own"/);
    expect(plug({ shape: "own", outline: { path: 'M 0 0" onload="x', words: "square" } })).toMatch(/outline.path/);
    expect(plug({ shape: "own", outline: { path: "M 0 0 H 9 V 9 Z", words: "square" } })).toBe("");
    // Scopes that overlap without one being narrower: two meanings for one vehicle.
    const entries = [entry("77", { scope: { years: [1980, 1985] } }), entry("77", { scope: { years: [1985, 1990] } })];
    expect(with_((p) => p.tables[0].entries.push(...entries))).toMatch(/is code 77 for the same vehicles/);
    expect(with_((p) => p.tables[0].entries.push(entries[0], { ...entries[1], scope: { years: [1986, 1991] } }))).toBe(
      "",
    );
    const own = JSON.parse('{"__proto__": {"polluted": true}}') as object;
    expect(
      faults({
        ...pack,
        ways: [Object.assign(JSON.parse(JSON.stringify(pack.ways[0])) as object, { constructor: 1 })],
      }).join(),
    ).toMatch(/constructor/);
    expect(readPack(JSON.stringify(pack).replace('"make"', '"__proto__":{"polluted":true},"make"'))).toHaveProperty(
      "faults",
    );
    expect([own, {} as { polluted?: boolean }].at(1)).not.toHaveProperty("polluted");
    let deep: unknown = "x";
    for (let i = 0; i < 5000; i++) deep = { title: deep };
    expect(faults({ ...pack, proving: deep }).length).toBeGreaterThan(0);
    expect(readPack(`{"format":"klinko-pack","pad":"${"x".repeat(10_000_000)}"}`)).toHaveProperty("faults");
  });

  it("refuses what is no pack at all", () => {
    for (const text of [
      "",
      "nul",
      "[1]",
      "null",
      '"x"',
      '{"__proto__":{"a":1}}',
      "[".repeat(50_000),
      " ".repeat(2_000_001),
    ])
      expect(readPack(text)).toHaveProperty("faults");
    expect(({} as { a?: number }).a).toBeUndefined();
  });
});
