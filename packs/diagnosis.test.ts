import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawCase, graphOfVehicle } from "@core/cases/diagnosis";
import { checksOf } from "@core/diagnosis/checks";
import { goodAt, readMeasured, readTemperature, verdictOn } from "@core/diagnosis/measure";
import { checkWords } from "@core/diagnosis/words";
import { codeKey, grouped, weigh, type Found } from "@core/diagnosis/weigh";
import { seeded } from "@core/flash/dialect/encode";
import type { Pack } from "@core/pack/pack";
import { checkPack } from "@core/pack/schema";
import { packById, PACKS } from "./index";

const vehicles = PACKS.flatMap((pack) =>
  pack.variants.flatMap((v) =>
    v.engines.map((e) => ({ pack, facts: { variant: v.id, year: v.years[1], engine: e.id, market: v.markets[0] } })),
  ),
);
const norrvik = () =>
  graphOfVehicle(packById("norrvik")!, { variant: "estate", year: 1989, engine: "2.3", market: "home" });
const found = (present: string[], more: Partial<Found> = {}): Found => {
  const all = norrvik().codes.map((c) => codeKey(c.system, c.code));
  return {
    present,
    absent: all.filter((k) => !present.includes(k)),
    checks: [],
    observed: { present: [], absent: [] },
    ...more,
  };
};

describe("the graphs of the packs", () => {
  it("tie every fault code that may be repaired to something that can be wrong, and everything that can be wrong to a check", () => {
    for (const { pack, facts } of vehicles) {
      const g = graphOfVehicle(pack, facts);
      for (const c of g.codes)
        expect(c.links.length, `${pack.id} ${c.system} ${c.code} ${c.circuit.kind}`).toBeGreaterThan(0);
      const told = new Set(checksOf(g).flatMap((c) => c.links.map(([i]) => i)));
      const linked = new Set(g.codes.flatMap((c) => c.links.map(([i]) => i)));
      expect([...linked].filter((i) => !told.has(i)).map((i) => g.suspects[i].id)).toEqual([]);
      for (const c of checksOf(g)) for (const line of checkWords(c).how) expect(line).toMatch(/[.?]$/);
    }
  });

  it("are refused where a circuit is none, comes twice, or has limits that cannot be", () => {
    const pack = structuredClone(packById("norrvik")!) as Pack & { circuits: NonNullable<Pack["circuits"]> };
    const [one] = pack.circuits;
    pack.circuits.push(
      { ...one, limits: [{ of: "part", unit: "V", at: "signal", good: [5, 1] }] },
      {
        system: "engine",
        circuit: "Coolant level circuit",
        limits: [
          {
            of: "part",
            unit: "ohm",
            at: "pins",
            good: [1, 2],
            curve: [
              { celsius: 20, good: [1, 2] },
              { celsius: 10, good: [1, 2] },
            ],
          },
        ],
      },
    );
    const checked = checkPack(pack);
    const said = "faults" in checked ? checked.faults.map((f) => f.message).join("\n") : "";
    expect(said).toContain("for the second time");
    expect(said).toContain("gives 5 to 1 as good");
    expect(said).toContain("and not both");
    expect(said).toContain("has to rise");
  });
});

it("a circuit that no code names stays in its pack and is told of", () => {
  const pack = structuredClone(packById("norrvik")!) as Pack & { circuits: NonNullable<Pack["circuits"]> };
  pack.circuits.push({ ...pack.circuits[0], circuit: "Flux circuit" });
  const checked = checkPack(pack);
  expect("unknown" in checked && checked.unknown).toEqual([
    {
      path: `circuits[${pack.circuits.length - 1}].circuit`,
      message: expect.stringContaining("which no code of") as string,
    },
  ]);
});

describe("what can be wrong", () => {
  const top = (f: Found) => grouped(weigh(norrvik(), f).suspects)[0];

  it("is what several codes share before each of their parts, and less so the more of what hangs on it is quiet", () => {
    const shared = top(found(["engine:27", "engine:32", "engine:53"]));
    expect(shared.id).toContain("sensor-ground");
    expect(shared.p).toBeGreaterThan(0.8);
    const alone = weigh(norrvik(), found(["engine:32"])).suspects.find((s) => s.failure === "sensor-ground");
    expect(alone!.p).toBeLessThan(0.05);
  });

  it("moves with each check, and by the same way back when it is taken back", () => {
    const codes = ["engine:14"];
    const before = top(found(codes));
    const plug = weigh(norrvik(), found(codes)).checks.find((c) => c.kind === "look-plug")!;
    const bad = top(found(codes, { checks: [{ id: plug.id, bad: true }] }));
    expect(bad.id).toBe(before.id.replace(/\/.*/, "/plug"));
    expect(bad.p).toBeGreaterThan(0.9);
    const good = weigh(norrvik(), found(codes, { checks: [{ id: plug.id, bad: false }] }));
    expect(good.suspects.find((s) => s.failure === "plug")!.p).toBeLessThan(0.1);
    expect(good.checks.map((c) => c.id)).not.toContain(plug.id);
  });

  it("is weighed without a slip whatever is stored and whatever the checks said", () => {
    fc.assert(
      fc.property(fc.constantFrom(...vehicles), fc.nat(), fc.nat(5), ({ pack, facts }, seed, n) => {
        const graph = graphOfVehicle(pack, facts);
        const random = seeded(seed);
        const c = drawCase(graph, { priors: 3, missing: 0.1, extra: 20 }, random);
        let f = c.found;
        for (let k = 0; k <= n; k++) {
          const w = weigh(graph, f);
          for (const s of w.suspects) expect(s.p >= 0 && s.p <= 1, `${s.id} ${s.p}`).toBe(true);
          for (const x of w.checks) expect(x.bitsPerMinute >= 0 && x.bad >= 0 && x.bad <= 1 + 1e-9, x.id).toBe(true);
          if (!w.checks.length) return;
          f = { ...f, checks: [...f.checks, { id: w.checks[0].id, bad: random() < 0.4 }] };
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe("a value off the meter", () => {
  it("is read with point or comma, with or without its unit, and refused where it cannot be", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 99_999 }),
        fc.constantFrom(".", ","),
        fc.constantFrom("kΩ", "k", "kohm", " kΩ"),
        (n, point, unit) => {
          const typed = `${Math.floor(n / 100)}${point}${String(n % 100).padStart(2, "0")}`;
          const ohm = Math.round((n / 100) * 1e6) / 1e3;
          expect(readMeasured(typed + unit, "ohm", "Ω")).toEqual({ value: expect.closeTo(ohm, 6) as number });
          expect(readMeasured(typed, "ohm", "kΩ")).toEqual({ value: expect.closeTo(ohm, 6) as number });
        },
      ),
    );
    expect(readMeasured("OL", "ohm", "Ω")).toEqual({ value: Infinity });
    for (const typed of ["", "abc", "1.2.3", "--5", "5 kV", "5 Ω", "900", "1e9", "<b>"])
      expect(readMeasured(typed, "V", "V"), typed).toHaveProperty("fault");
    expect(readTemperature("68", "°F")).toEqual({ value: expect.closeTo(20, 9) as number });
    expect(readTemperature("-40 °C", "°F")).toEqual({ value: -40 });
    for (const typed of ["", "warm", "9000"]) expect(readTemperature(typed, "°C"), typed).toHaveProperty("fault");
  });

  it("is held against a curve that goes through its points and never leaves them in between", () => {
    const curves = PACKS.flatMap((p) => p.circuits ?? []).flatMap((c) => c.limits?.filter((l) => l.curve) ?? []);
    expect(curves.length).toBeGreaterThan(10);
    for (const limit of curves)
      for (const [k, a] of limit.curve!.entries()) {
        const band = goodAt(limit, a.celsius)!;
        expect([band[0] / a.good[0], band[1] / a.good[1]]).toEqual([expect.closeTo(1, 9), expect.closeTo(1, 9)]);
        const b = limit.curve![k + 1];
        if (!b) continue;
        const [low, high] = goodAt(limit, (a.celsius + b.celsius) / 2)!;
        expect(low).toBeLessThanOrEqual(Math.max(a.good[0], b.good[0]));
        expect(high).toBeGreaterThanOrEqual(Math.min(a.good[1], b.good[1]));
        expect(verdictOn((low + high) / 2, [low, high], "ohm").bad).toBe(false);
        expect(verdictOn(low * 0.5, [low, high], "ohm")).toMatchObject({ bad: true });
      }
    expect(goodAt(curves[0], 500)).toBeNull();
    expect(goodAt(curves[0], null)).toBeNull();
  });
});
