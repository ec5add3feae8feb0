import { describe, expect, it } from "vitest";
import { countedOf, countedText, toCount } from "@core/clearing/counting";
import { ridesAsked } from "@core/proving/asked";
import { FAULT_WORLDS, makeProof } from "@core/cases/proof";
import { seeded } from "@core/flash/dialect/encode";
import { goneOf, goneText } from "@core/job/gone";
import { nextStep } from "@core/job/gates";
import { judge } from "@core/job/judge";
import { systemsOf } from "@core/pack/scope";
import { readinessVerdict, withUnseen } from "@core/procedure/readiness";
import { emptyAnswer } from "@core/proving/empty";
import { inspectionLies, readyDays } from "@core/proving/ready";
import {
  beginClear,
  beginCount,
  countAnew,
  endClear,
  endCount,
  newJob,
  withoutStart,
  withStart,
} from "@core/record/job";
import { act } from "@core/simulated/vehicle";
import { simulate, type SimulatedAction } from "@core/simulated/state";
import { PACKS, packById } from "./index";
import { at, list, Made, none } from "./testing/made-job";

const DAY = 86_400_000;

describe("an empty memory after a clear", () => {
  it("is told as each make's lamp, dash or walk shows it", () => {
    const told = Object.fromEntries(
      PACKS.flatMap((pack) =>
        pack.variants.flatMap((v) =>
          systemsOf(pack, { variant: v.id, year: v.years[0], engine: v.engines[0].id, market: v.markets[0] }).map(
            (s) => [`${pack.id} ${s.way.id}`, emptyAnswer(s)?.looks ?? null],
          ),
        ),
      ),
    );
    expect(told).toMatchObject({
      "norrvik bridge-c-g": "the lead-in 13 alone, and nothing between.",
      "calverra two-wire": "the lamp stays dark.",
      "osaril box-engine": "quick even flashing that does not stop.",
      "lindqvar reader-engine": "one flash and no more.",
      "dunmarrow koer-three": "411 in place of each list.",
      "hollin-pike key-cycle": "the end mark 66 alone, and nothing between.",
      "tarvello lamp": "the lamp stays lit.",
      "pellworth ready-lamp": null,
      "merrow serial": null,
    });
  });
});

describe("how probable it is that a code is gone", () => {
  it("is said as often as it is so, of codes that had a chance to come back and did not, and of no other", () => {
    const random = seeded(21);
    const bins = Array.from({ length: 10 }, () => ({ said: 0, was: 0 }));
    let told = 0;
    for (let k = 0; k < 3000; k++) {
      const made = makeProof(packById("norrvik")!, FAULT_WORLDS["any rate"], random);
      const { systems } = judge(made.c);
      const own = systems.find((s) => s.access.system === "engine")!;
      const row = own.proof.rows.find((r) => r.code === made.code)!;
      const gone = goneOf(made.c, systems.map((s) => s.proof), "engine", row); // prettier-ignore
      expect(gone === null).toBe(made.back);
      if (!gone) continue;
      const bin = bins[Math.min(9, Math.floor(10 * gone.p))];
      bin.said += gone.p;
      bin.was += Number(made.gone);
      told++;
    }
    expect(told).toBeGreaterThan(1500);
    expect(bins.reduce((e, b) => e + Math.abs(b.said - b.was), 0) / told).toBeLessThan(0.03);
  });

  it("grows with drives and not with readings, and needs one that was whole", () => {
    const goneIn = (m: Made) => {
      const proofs = judge(m.c).systems.map((s) => s.proof);
      const own = m.rows();
      return goneOf(m.c, proofs, "engine", own.rows.find((r) => r.code === "26")!); // prettier-ignore
    };
    const cleared = () => new Made("norrvik").read(1, "engine", list(["26", "43"])).clear(10);
    expect(goneIn(cleared())).toBeNull();
    expect(goneIn(cleared().read(12, "engine", none(), { run: "key-on" }))).toBeNull();
    // Too soon after the clear for a drive.
    expect(goneIn(cleared().read(14, "engine", none(), { run: "drive" }))).toBeNull();
    const driven = cleared().read(40, "engine", none(), { run: "drive" });
    expect(goneText(goneIn(driven)!)).toBe(
      "67 % that it is gone: 1 drive and reading without it, and how often it used to come nobody knows",
    );
    expect(goneIn(driven.read(43, "engine", none(), { run: "drive" }))).toMatchObject({ quiet: 1 });
    expect(goneIn(driven.read(80, "engine", none(), { run: "drive" }))).toMatchObject({
      quiet: 2,
      p: expect.closeTo(0.75, 9) as number,
    });
    // Back at once after the clear before: it used to come, so quiet drives prove more.
    const again = cleared()
      .read(12, "engine", list(["26"]), { run: "key-on" })
      .clear(20);
    again.read(60, "engine", none(), { run: "drive" });
    expect(goneText(goneIn(again)!)).toBe(
      "75 % that it is gone: 1 drive and reading without it, and it used to come in 1 of 1",
    );
    expect(goneIn(again.read(90, "engine", list(["26"]), { run: "drive" }))).toBeNull();
  });
});

describe("the days until it is ready", () => {
  const pack = packById("pellworth")!;
  it("hold so often as is said, and an inspection is held against them", () => {
    const random = seeded(4);
    for (const aWeek of [1, 3, 7, 14]) {
      const { first, last } = readyDays(pack, aWeek, 0)!;
      expect(first).toBeLessThanOrEqual(last);
      const monitors = pack.proving.monitors!;
      const dayOf = (drives: number) => {
        let t = 0;
        for (let k = 0; k < drives; k++) t -= (7 / aWeek) * Math.log(1 - random());
        return t;
      };
      const [fewest, most] = [0, 1].map((i) => Math.max(...monitors.map((m) => m.drives[i])));
      const share = (drives: number, holds: (day: number) => boolean) =>
        Array.from({ length: 4000 }, () => Number(holds(dayOf(drives)))).reduce((a, b) => a + b) / 4000;
      // A day is whole, so that it is a little later than the share asks.
      expect(share(fewest, (d) => d <= first - 1)).toBeLessThan(0.12);
      expect(share(most, (d) => d <= last)).toBeGreaterThan(0.88);
    }
    const days = readyDays(pack, 7, 0)!;
    expect(readyDays(pack, 7, 6)).toMatchObject({ first: 0, last: 0 });
    expect(readyDays(packById("norrvik")!, 7, 0)).toBeNull();
    expect([-1, 0, days.first, days.last].map((d) => inspectionLies(d, days))).toEqual([
      "past",
      "early",
      "within",
      "late",
    ]);
  });

  it("are not known by a watch of the lamp in which nobody looked when it tells", () => {
    const { tells } = pack.ways.find((w) => w.id === "ready-lamp")!;
    if (tells.kind !== "readiness") throw new Error("no readiness");
    const watch = (unseen: [number, number][], flashes: number[] = []) =>
      readinessVerdict(tells, { flashes, watched: 32_000, atEnd: "lit", unseen }).state;
    expect(watch([])).toBe("complete");
    expect(watch([[2000, 15_000]])).toBe("complete");
    expect(watch([[24_000, 25_000]])).toBe("unclear");
    // What was seen to blink blinked.
    expect(watch([[24_000, 25_000]], [21_000, 22_000, 23_000, 26_000])).toBe("not-complete");
    expect(withUnseen(withUnseen([], [1, 5]), [5, 9])).toEqual([[1, 9]]);
    expect(withUnseen([[1, 5]], [6, 9])).toEqual([[1, 5], [6, 9]]); // prettier-ignore
  });
});

describe("a unit that wipes itself", () => {
  const osaril = packById("osaril")!;
  const way = osaril.clears.find((w) => w.id === "starts")!;
  const begun = () => beginCount(newJob({ id: "v" }, "engine", "j", at(0)), { way: way.id, ...toCount(way)! }, way.title, at(1)); // prettier-ignore

  it("is counted by starts, from the beginning where the fault comes back, beside any other clear", () => {
    let job = begun();
    expect(nextStep(job, [])).toBe("prove");
    for (let i = 0; i < 3; i++) job = withStart(job, at(2 + i));
    expect(countedText(countedOf(withoutStart(job))!)).toBe("2 of 40 starts");
    expect(countedOf(countAnew(job, at(9)))).toMatchObject({ have: 0, need: 40 });
    const other = endClear(beginClear(job, "memory-fuse", "Fuse", at(10)), { system: "engine" }, "Fuse", at(11));
    expect(countedOf(other)).toMatchObject({ have: 3 });
    const done = endCount(job, { system: "engine", wiped: ["engine"] }, way.title, "3 of 40 starts", at(30));
    expect([done.counting, done.clears.at(-1)!.way, done.notebook.at(-1)!.text]).toEqual([
      null,
      "starts",
      "Forty starts without the fault: 3 of 40 starts.",
    ]);
    expect([toCount(osaril.clears[0]), ridesAsked(job, osaril)]).toEqual([null, null]);
    const rides = packById("tarvello")!.clears.find((w) => w.ride)!;
    const riding = { ...job, counting: { ...job.counting!, way: rides.id, ...toCount(rides)! } };
    expect(ridesAsked(riding, packById("tarvello")!)).toMatchObject({ rule: rides.ride, since: at(1), wipes: true });
  });

  it("does so in the simulated vehicle, where the fault stays away, and is told to by an adapter with its wire out", () => {
    const facts = { variant: "coupe", year: 1991, engine: osaril.variants[0].engines[0].id, market: "home" };
    const used = (returns: "never" | "key-on", times: number) => {
      let v = simulate([{ system: "engine", code: "21", returns }], 1);
      for (let i = 0; i < times; i++)
        for (const to of ["on", "run", "off"] as const) v = act(v, { do: "key", to }, osaril, facts, i * DAY);
      return v.memory.engine ?? [];
    };
    expect([used("never", 39), used("never", 40), used("key-on", 60)]).toEqual([["21"], [], ["21"]]);
    const pellworth = packById("pellworth")!;
    const mini = { variant: "mini", year: 1999, engine: pellworth.variants[0].engines[0].id, market: "home" };
    const told = (first: SimulatedAction[]) =>
      [...first, { do: "adapter", way: "adapter" } as const].reduce(
        (v, a) => act(v, a, pellworth, mini, 0),
        simulate([{ system: "engine", code: "31", returns: "never" }], 1),
      ).memory.engine ?? [];
    const wire: SimulatedAction = { do: "wire", wire: { connector: pellworth.connectors[0].id, from: "14", to: "3" } };
    const on: SimulatedAction = { do: "key", to: "on" };
    expect([told([]), told([on]), told([wire, on])]).toEqual([["31"], [], ["31"]]);
  });
});
