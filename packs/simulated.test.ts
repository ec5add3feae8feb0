import { describe, expect, it } from "vitest";
import { decode } from "@core/flash/decode";
import type { Press } from "@core/flash/seen/evidence";
import { systemsOf } from "@core/pack/scope";
import { beginsAfterMs, type SerialData } from "@core/pack/way";
import { readinessVerdict } from "@core/procedure/readiness";
import { codesFrom, COMMANDS, readReply, request, valuesOf } from "@core/serial/protocol";
import { displayOf, flashesNow, lampOf } from "@core/simulated/answers";
import { unitAnswers } from "@core/simulated/serial-unit";
import { READER_BUTTON, simulate, UNIT_BUTTON, type Simulated, type SimulatedAction } from "@core/simulated/state";
import { act } from "@core/simulated/vehicle";
import { packById } from "./index";

/** A made-up vehicle of a pack with a clock of its own: actions at their time, and what its lamp then does. */
class Stand {
  now = 1_000_000;
  v: Simulated;
  pack;
  constructor(
    pack: string,
    readonly facts: { variant: string; year: number; engine: string; market: string },
    faults: Record<string, string[]>,
    returns: "key-on" | "never" = "never",
  ) {
    this.pack = packById(pack)!;
    const list = Object.entries(faults).flatMap(([system, codes]) => codes.map((code) => ({ system, code, returns })));
    this.v = simulate(list, 1.04);
  }
  do(...actions: (SimulatedAction | number)[]): this {
    for (const a of actions)
      if (typeof a === "number") this.now += a;
      else this.v = act(this.v, a, this.pack, this.facts, this.now);
    return this;
  }
  access(system: string) {
    return systemsOf(this.pack, this.facts).find((s) => s.system === system)!;
  }
  lamp = (system: string) => lampOf(this.v, this.pack, this.facts, system);
  /** Edges of a lamp from now on. */
  edges(system: string, until: number): [number, 0 | 1][] {
    const { lit, since, flashes } = flashesNow(this.lamp(system));
    const rest = lit ? 1 : 0;
    const edges: [number, 0 | 1][] = [[0, rest]];
    for (const f of flashes) {
      const [from, to] = [since + f.start - this.now, since + f.end - this.now];
      if (from >= until) break;
      if (to <= 0) continue;
      if (edges.at(-1)![0] >= Math.max(0, from)) edges.pop();
      edges.push([Math.max(0, from), (1 - rest) as 0 | 1]);
      if (to < until) edges.push([to, rest]);
    }
    return edges[0][0] > 0 ? [[0, rest], ...edges] : edges;
  }
  read(system: string, until = 260_000) {
    const { dialect } = this.access(system);
    return decode(dialect!, { mode: "edges", edges: this.edges(system, until), until });
  }
  display = () => displayOf(this.v, this.pack, this.facts, this.now);
}

const key = (to: Simulated["key"]): SimulatedAction => ({ do: "key", to });
const wire = (connector: string, from: string, to: string): SimulatedAction => ({
  do: "wire",
  wire: { connector, from, to },
});
const hold = (button: string, ms: number): (SimulatedAction | number)[] => [
  { do: "down", button },
  ms,
  { do: "up", button },
];

describe("every method, from the hook-up to the reading", () => {
  it.each([
    ["A", "norrvik", { variant: "estate", year: 1989, engine: "2.3", market: "home" }, "service-10"],
    ["B", "calverra", { variant: "hatch", year: 1993, engine: "1.6", market: "home" }, "service-2"],
    ["C", "osaril", { variant: "coupe", year: 1991, engine: "1.8", market: "home" }, "box"],
    ["F", "dunmarrow", { variant: "pickup", year: 1992, engine: "4.9", market: "home" }, "test-6"],
  ] as const)("%s: the right bridge before the key, and the lamp tells the list", (_, pack, facts, connector) => {
    const codes = packById(pack)!
      .tables[pack === "dunmarrow" ? 1 : 0].entries.filter((e) => e.kind === "fault" && !e.scope)
      .slice(3, 5)
      .map((e) => e.code);
    const car = new Stand(pack, facts, { engine: codes });
    const { ask } = car.access("engine").way;
    if (ask.kind !== "bridge") throw new Error("not a bridge");
    car.do(wire(connector, ...ask.bridge), key("on"));
    // A unit that answers only warm says nothing cold.
    if (car.access("engine").way.engineWarm) {
      expect(car.lamp("engine").kind).toBe("lit");
      car.do(key("off"), { do: "warm-up" }, key("on"));
    }
    const begins = flashesNow(car.lamp("engine")).since;
    expect(begins - car.v.keyOnAt).toBe(beginsAfterMs(car.access("engine").way));
    car.now = begins;
    expect(car.read("engine").codes).toEqual(codes);
    // After the key, the unit does not look at its test line any more.
    const late = new Stand(pack, facts, { engine: codes }).do(key("on"), wire(connector, ...ask.bridge));
    expect(late.lamp("engine").kind).toBe("lit");
  });

  it("B, older: the LED on the unit blinks with the key alone", () => {
    const car = new Stand(
      "calverra",
      { variant: "hatch-early", year: 1987, engine: "1.5", market: "home" },
      { engine: ["14", "23"] },
    );
    expect(car.do(key("on")).read("engine").codes).toEqual(["14", "23"]);
  });

  it("D: the reader on one system at a time, one code a press, wiped alone by a longer hold", () => {
    const facts = { variant: "saloon", year: 1993, engine: "3.0", market: "home" };
    const car = new Stand("lindqvar", facts, { engine: ["4", "11"], airbag: ["6"] });
    const leads = (signal: string): SimulatedAction => ({
      do: "leads",
      leads: { connector: "socket-12", fed: true, at: { black: "1", signal } },
    });
    const press = (system: string): Press => {
      car.do(...hold(READER_BUTTON, 3200));
      const edges = car.edges(system, 12_000).map(([t, lit]) => [t + car.now, lit] as const);
      const at = car.now;
      car.do(12_000);
      return { press: at, edges, until: car.now };
    };
    expect(car.do(leads("4"), key("on")).lamp("engine").kind).toBe("lit");
    expect(car.lamp("airbag").kind).toBe("dark");
    const { dialect } = car.access("engine");
    const seen = [press("engine"), press("engine"), press("engine")];
    expect(decode(dialect!, { mode: "button", presses: seen })).toMatchObject({ codes: ["4", "11"], complete: true });
    // Too short shows nothing; longer than for reading wipes the one that was shown last.
    car.do(...hold(READER_BUTTON, 1000));
    press("engine");
    car.do(...hold(READER_BUTTON, 7500));
    expect(car.v.memory.engine).toEqual(["4"]);
    expect(car.do(leads("9")).lamp("engine").kind).toBe("dark");
    expect(car.lamp("airbag").kind).toBe("lit");
    const early = new Stand("lindqvar", { variant: "saloon-early", year: 1986, engine: "2.0", market: "home" }, {});
    early.do(key("on"), ...hold(UNIT_BUTTON, 3100));
    expect(early.lamp("engine")).toMatchObject({ kind: "run", flashes: 1 });
  });

  it("E: half the cylinders first; who does not act when asked finds a code for it", () => {
    const facts = { variant: "pickup", year: 1992, engine: "5.0 V8", market: "home" };
    const pack = packById("dunmarrow")!;
    const tells = pack.ways.find((w) => w.id === "koer-three")!.tells;
    const missed = tells.kind === "lamp" ? tells.act!.missed : "";
    const run = (acts: boolean) => {
      const car = new Stand("dunmarrow", facts, { engine: ["376"] }, "key-on");
      car.do({ do: "warm-up" }, wire("test-6", "ST", "SR"), key("on"), 3000, key("run"));
      const lit = flashesNow(car.lamp("engine-run"));
      const begins = lit.since;
      if (acts) car.do(20_500, { do: "act" });
      car.now = begins;
      return car.read("engine-run");
    };
    expect(run(true)).toMatchObject({ codes: ["376"], cylinders: 8 });
    expect(run(false).codes.sort()).toEqual(["376", missed].sort());
    const cold = new Stand("dunmarrow", facts, { engine: ["376"] }, "key-on");
    expect(cold.do(wire("test-6", "ST", "SR"), key("on"), key("run")).lamp("engine-run").kind).toBe("dark");
  });

  it("G: three times on within five seconds, not slower", () => {
    const facts = { variant: "truck", year: 1996, engine: "5.9 D", market: "home" };
    const cycle = (ms: number) => [key("on"), ms, key("off"), ms, key("on"), ms, key("off"), ms, key("on")];
    const good = new Stand("hollin-pike", facts, { engine: ["14", "23"] }).do(...cycle(900));
    expect(good.read("engine").codes).toEqual(["14", "23"]);
    expect(new Stand("hollin-pike", facts, {}).do(...cycle(1600)).lamp("engine").kind).toBe("lit");
  });

  it("H: both buttons before the key, held long enough; then number by number", () => {
    const facts = { variant: "sport", year: 2008, engine: "1000", market: "home" };
    const bike = new Stand("tarvello", facts, { engine: ["4", "15"], brake: ["29"] });
    const both: SimulatedAction[] = [
      { do: "down", button: "SET" },
      { do: "down", button: "RESET" },
    ];
    bike.do(...both, key("on"), 5200, { do: "up", button: "SET" }, { do: "up", button: "RESET" });
    const shown = [bike.display()];
    for (let i = 0; i < 3; i++) shown.push(bike.do(...hold("SET", 200)).display());
    expect(shown).toEqual(["04", "15", "b29", "--"]);
    const late = new Stand("tarvello", facts, {}).do(key("on"), ...both, 6000, { do: "up", button: "SET" });
    expect(late.display()).toBeNull();
  });

  it("I: module by module; held in its erase sub-mode, one is wiped and the others keep theirs", () => {
    const facts = { variant: "two-seater", year: 1990, engine: "3.8 V6", market: "home" };
    const car = new Stand("aldermoor", facts, { engine: ["13", "34"], climate: ["49"] });
    car.do(wire("tap-8", "D", "H"), key("on"), 3000);
    const first = car.display();
    expect(car.do(2500).display()).not.toBe(first);
    expect(["E 13", "E 34"]).toContain(first);
    expect(car.do(...hold("TRIP", 100)).display()).toBe("B ---");
    expect(car.do(...hold("TRIP", 100)).display()).toBe("C 49");
    car.do(...hold("MODE", 100), ...hold("MODE", 100));
    expect(car.display()).toBe("C ERA");
    expect(car.do(...hold("MODE", 4500)).display()).toBe("C ---");
    expect(car.v.memory).toMatchObject({ engine: ["13", "34"], climate: [] });
  });

  it("J: blinks after the wait until a drive has completed the monitors", () => {
    const facts = { variant: "mini", year: 2002, engine: "1.2", market: "home" };
    const car = new Stand("pellworth", facts, {});
    const tells = car.access("readiness").way.tells;
    if (tells.kind !== "readiness") throw new Error("no readiness");
    const watch = () => {
      const until = (tells.waitSeconds + tells.watchSeconds) * 1000;
      const { flashes } = flashesNow(car.lamp("readiness"));
      const seen = [...flashes].map((f) => f.start).filter((t) => t < until);
      return readinessVerdict(tells, { flashes: seen, atEnd: "lit", watched: until }).state;
    };
    expect(car.do(key("on")) && watch()).toBe("not-complete");
    expect(car.do(key("off"), { do: "drive" }, key("on")) && watch()).toBe("complete");
  });

  it("K: bytes with the right leads and the right protocol; silence or gibberish with wrong ones", () => {
    const facts = { variant: "mini-merrow", year: 1995, engine: "1.4", market: "home" };
    const car = new Stand("merrow", facts, { engine: ["15", "28"] });
    const tells = car.access("engine").way.tells as SerialData;
    const leads = (yellow: string, orange: string): SimulatedAction => ({
      do: "leads",
      leads: { connector: "round-4", fed: false, at: { yellow, orange, black: "3" } },
    });
    const ask = (command: (typeof COMMANDS)[keyof typeof COMMANDS], protocol = 1) => {
      const answer = unitAnswers(car.v, car.pack, facts, request(command, protocol), car.now);
      car.v = answer.vehicle;
      return readReply(answer.bytes, command);
    };
    car.do(leads("2", "1"), key("on"));
    expect(ask(COMMANDS.hello)).toEqual({ wrong: "silence" });
    car.do(leads("1", "2"));
    expect(ask(COMMANDS.hello, 0)).toEqual({ wrong: "gibberish" });
    const codes = ask(COMMANDS.codes);
    expect("payload" in codes && codesFrom(codes.payload)).toEqual(["15", "28"]);
    car.do({ do: "warm-up" }, key("run"), 5000);
    const block = ask(COMMANDS.block);
    const values = "payload" in block ? valuesOf(tells.parameters, block.payload) : {};
    for (const p of tells.parameters) {
      expect(values[p.id], p.name).toBeGreaterThanOrEqual(p.idle[0] - 1);
      expect(values[p.id], p.name).toBeLessThanOrEqual(p.idle[1] + 1);
    }
    ask(COMMANDS.wipe);
    expect(car.v.memory.engine).toEqual([]);
  });
});
