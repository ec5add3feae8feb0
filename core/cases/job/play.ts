import { planClear, wipes } from "../../clearing/plan";
import { decode } from "../../flash/decode";
import { seeded } from "../../flash/encode";
import { nothingMore } from "../../flash/settle";
import type { JobCase } from "../../job/case";
import { wasCleared } from "../../job/epochs";
import { askedOf, lockOf } from "../../job/gates";
import { lookFor, OTHER } from "../../job/identity";
import { judge } from "../../job/judge";
import { sayVerdict } from "../../job/say";
import { atLeast } from "../../job/told";
import { readinessVerdict } from "../../procedure/readiness";
import type { UnitSeen } from "../../procedure/unit-check";
import type { Pack } from "../../pack/pack";
import { entriesFor, tableOwner, type SystemAccess } from "../../pack/scope";
import { tellsByDashLamp } from "../../pack/way";
import { beginClear, closeJob, endClear, newJob, withLampCheck } from "../../record/job";
import { evidenceOf } from "../../record/evidence";
import { newReading, resultFrom, resultOf, resultOfRest } from "../../record/readings";
import type { Input, Job, Reading, SystemList, Vehicle } from "../../record/types";
import { flashesNow, lampOf, outputsOf } from "../../simulated/answers";
import { READER_BUTTON, UNIT_BUTTON, type Simulated, type SimulatedAction } from "../../simulated/state";
import { act } from "../../simulated/vehicle";
import { checkStatements, type Checked, type Snapshot, type World } from "./check";
import { doerOf, type Doer, type Slip } from "./person";
import { makeVehicle } from "./vehicle";
import { watchLamp } from "./watch";

/** What came of a played job. */
export interface Outcome {
  pack: string;
  kind: Doer["kind"];
  slips: Slip[];
  checked: Checked[];
  /** Of each system that was to be read: by which input, whether the right answer was reached, and after how many readings. */
  reached: { system: string; way: string; input: Input; right: boolean; passes: number; said: string }[];
  /** Why the job could not go on, where it could not. */
  stuck: string | null;
}

const clone = <T>(x: T): T => structuredClone(x);

/** Plays one whole job of a made-up vehicle and a made-up person. The same seed gives the same job. */
export function playJob(pack: Pack, kind: Doer["kind"], seed: number): Outcome {
  return new Play(pack, kind, seed).all();
}

class Play {
  private random: () => number;
  private now: number;
  private v: Simulated;
  private world: World;
  private systems: SystemAccess[];
  private doer: Doer;
  private job: Job;
  private readings: Reading[] = [];
  private vehicle: Vehicle;
  private made = new Set<Slip>();
  private checked = new Map<string, Checked>();
  private drivenSince = false;
  private stuck: string | null = null;

  constructor(
    private pack: Pack,
    kind: Doer["kind"],
    seed: number,
  ) {
    this.random = seeded(Math.imul(seed + 7, 0x9e3779b1));
    this.now = Date.UTC(2026, 4, 3, 9) + Math.floor(this.random() * 1e6);
    const made = makeVehicle(pack, this.random, this.iso());
    this.vehicle = made.vehicle;
    this.systems = made.systems;
    this.v = made.v;
    this.doer = doerOf(kind, this.random);
    this.job = newJob(this.vehicle, this.systems[0].system, "job", this.iso());
    this.world = { snapshots: new Map(), wipes: [], dead: made.v.deadUnits ?? [], lamps: made.v.deadLamps ?? [], outputs: made.v.deadOutputs ?? [] }; // prettier-ignore
  }

  all(): Outcome {
    this.lampCheck();
    const reached: Outcome["reached"] = [];
    const wanted = this.systems.filter((s, i) => i === 0 || this.doer.kind === "careful" || this.random() < 0.5);
    for (const s of wanted) reached.push(this.readUntilKnown(s, "before"));
    if (this.random() < 0.9) this.repairAndProve(wanted);
    const verdict = judge(this.case()).statements.find((s) => s.kind === "verdict");
    this.job = closeJob(this.job, verdict?.kind === "verdict" && verdict.is === "fixed" ? "fixed" : "not-proven", sayVerdict(judge(this.case())), this.iso()); // prettier-ignore
    return {
      pack: this.pack.id,
      kind: this.doer.kind,
      slips: [...this.made],
      checked: [...this.checked.values()],
      reached: reached.filter((r) => r.way !== "readiness"),
      stuck: this.stuck,
    };
  }

  private iso = (): string => new Date(this.now).toISOString();
  private case = (): JobCase => ({ vehicle: this.vehicle, job: this.job, readings: this.readings, pack: this.pack, systems: this.systems }); // prettier-ignore
  private do = (action: SimulatedAction): void => {
    this.v = act(this.v, action, this.pack, this.vehicle, this.now);
  };
  private wait = (ms: number): void => {
    this.now += ms;
  };
  private slip(s: Slip): boolean {
    if (this.random() >= this.doer.slips[s]) return false;
    this.made.add(s);
    return true;
  }
  private pick = <T>(list: readonly T[]): T => list[Math.floor(this.random() * list.length)];

  private check(when: string): void {
    for (const c of checkStatements(this.case(), this.v, this.world, when))
      this.checked.set(`${c.key} ${c.right} ${c.sure}`, c);
  }

  private lampCheck(): void {
    this.do({ do: "key", to: "on" });
    this.wait(1500);
    const units = this.systems.filter((s, i) => this.systems.findIndex((x) => x.unit === s.unit) === i);
    const wrong = this.slip("wrong-lamp") ? this.pick(this.systems) : null;
    const look = (s: SystemAccess): UnitSeen => {
      const dash = tellsByDashLamp(s.way) || s.way.tells.kind === "modules" || s.way.tells.kind === "text";
      const lit = lampOf(this.v, this.pack, this.vehicle, (s === units[0] && wrong ? wrong : s).system).kind !== "dark";
      const lamp = dash ? (lit ? "steady" : "dark") : null;
      const all = outputsOf(this.v, this.pack, this.vehicle, this.now).filter((o) => o.system === s.system);
      const asked = lamp !== "steady" || this.random() < 0.3;
      const outputs = asked ? Object.fromEntries(all.filter(() => this.doer.kind === "careful" || this.random() < 0.7).map((o) => [o.id, o.works ? "works" : "dead"] as const)) : {}; // prettier-ignore
      return { lamp: lamp ?? (Object.values(outputs).includes("works") ? "steady" : Object.keys(outputs).length ? "dark" : null), outputs }; // prettier-ignore
    };
    const tell = (seen: Record<string, UnitSeen>) => {
      const own = seen[units[0].system];
      const outs = Object.values(own.outputs);
      this.job = withLampCheck(this.job, own.lamp ?? "steady", outs.includes("works") ? "all" : outs.length ? "none" : "not-checked", this.iso(), seen); // prettier-ignore
      this.check("lamp check");
    };
    const seen = Object.fromEntries(units.map((s) => [s.system, look(s)]));
    if (this.slip("wrong-answer")) tell({ ...seen, [units[0].system]: { ...seen[units[0].system], lamp: this.pick(["steady", "dark"] as const) } }); // prettier-ignore
    tell(seen);
    this.do({ do: "key", to: "off" });
    this.wait(5000);
  }

  /** Reads a system as often as Klinko asks for and patience lasts. */
  private readUntilKnown(s: SystemAccess, run: Reading["run"]): Outcome["reached"][number] {
    const locked = lockOf(this.job, this.readings, "read", askedOf(s, this.systems));
    const dead = this.world.dead.includes(s.unit) || (tellsByDashLamp(s.way) && this.world.lamps.includes(s.lamp));
    const none = { system: s.system, way: s.way.tells.kind === "readiness" ? "readiness" : s.way.id, input: "tap" as Input, passes: 0, said: "locked" }; // prettier-ignore
    if (locked) return { ...none, right: dead || !this.truthful() };
    let input: Input = this.inputFor(s);
    let passes = 0;
    let said = "";
    let right = false;
    while (passes < this.doer.patience) {
      const before = this.readings.length;
      this.readOnce(s, input, run);
      passes++;
      if (this.readings.length > before) this.check(`read ${s.system}`);
      const known = judge(this.case()).systems.find((x) => x.access === s)!.known;
      said = `${known.answer} ${known.codes.map((x) => `${x.memory ?? ""}${x.code}`).join(" ")} ${known.answer === "none" ? known.none : known.whole}${known.disagree ? " disagree" : ""}`; // prettier-ignore
      right = this.isRight(s);
      const settled = known.answer === "codes" ? known.whole === "certain" : known.answer === "none" && (known.none === "certain" || (known.none === "likely" && passes >= 2) || known.doubts.some((d) => d.kind === "looks-alike")); // prettier-ignore
      if (settled && !known.disagree) break;
      if (dead && passes >= 2) break;
      if (this.slip("other-input")) input = this.inputFor(s);
      // A person who slips stops when it is likely; a careful one reads on.
      if (this.doer.kind === "slipping" && known.answer === "codes" && atLeast(known.whole, "likely") && this.random() < 0.5) break; // prettier-ignore
    }
    return { ...none, input, passes, right: right || dead, said };
  }

  private truthful = (): boolean => !this.made.has("wrong-answer") && !this.made.has("wrong-lamp");

  /** Is what Klinko says of a system now right, and said as likely at least? */
  private isRight(s: SystemAccess): boolean {
    const { known } = judge(this.case()).systems.find((x) => x.access === s)!;
    const truth = known.last && this.world.snapshots.get(known.last.reading.id);
    if (!truth) return false;
    const stored = truth.memory[tableOwner(this.pack, s.system)] ?? [];
    const live = truth.live[s.system] ?? [];
    const onlyLive = s.dialect !== null && !s.dialect.phases.some((p) => p.kind === "stored" && p.memory === "stored");
    const two = known.codes.some((x) => x.memory !== null);
    const real = onlyLive
      ? live
      : two
        ? [...live.map((c) => `live ${c}`), ...stored.map((c) => `stored ${c}`)]
        : stored;
    if (known.answer === "none") return real.length === 0 && (atLeast(known.none, "likely") || known.doubts.some((d) => d.kind === "looks-alike")); // prettier-ignore
    const said = known.codes.map((x) => (two && !onlyLive ? `${x.memory} ${x.code}` : x.code));
    return (
      known.answer === "codes" && atLeast(known.whole, "likely") && [...said].sort().join() === [...real].sort().join()
    );
  }

  private inputFor(s: SystemAccess): Input {
    const { tells } = s.way;
    if (tells.kind === "text") return "text";
    if (tells.kind === "modules") return "modules";
    if (tells.kind === "serial") return "serial";
    if (tells.kind === "readiness") return "readiness";
    if (s.dialect!.advance === "button") return this.random() < 0.8 ? "press" : "counts";
    const long = s.dialect!.digits.style === "long-short";
    return this.pick<Input>(long ? ["hold", "keys", "camera", "counts"] : ["tap", "tap", "hold", "camera", "counts"]);
  }

  /** Hooks up, turns the key, reads, records, takes the wire out again. */
  private readOnce(s: SystemAccess, input: Input, run: Reading["run"]): void {
    if (s.way.engineWarm) this.do({ do: "warm-up" });
    this.hookUp(s);
    const blank = newReading({ id: `r${this.readings.length + 1}`, job: "job", vehicle: "made", system: s.system, way: s.way.id, dialect: s.dialect?.id ?? "", input, run, startedAt: this.iso() }); // prettier-ignore
    const reading =
      input === "readiness" ? this.readReadiness(s, blank) : s.way.tells.kind !== "lamp" ? this.readLists(s, blank) : s.dialect!.advance === "button" ? this.readPresses(s, blank) : this.readLamp(s, blank); // prettier-ignore
    this.wait(3000);
    this.readings.push({ ...reading, recordedAt: this.iso() });

    this.do({ do: "key", to: "off" });
    if (this.v.wire) this.do({ do: "wire", wire: null });
    this.wait(8000);
  }

  private hookUp(s: SystemAccess): void {
    const { ask } = s.way;
    const c = s.connector;
    const wrong = (ask.kind === "bridge" || ask.kind === "reader") && this.slip("wrong-wire");
    if (ask.kind === "bridge") {
      const [a, b] = ask.bridge;
      const test = c!.cavities.find((x) => x.role === "test" && !ask.bridge.includes(x.id)) ?? c!.cavities.find((x) => x.role === "empty"); // prettier-ignore
      const ground = c!.cavities.find((x) => ask.bridge.includes(x.id) && x.role === "ground")?.id ?? b;
      this.do({ do: "wire", wire: { connector: c!.id, from: wrong && test ? test.id : a, to: wrong && test ? ground : b } }); // prettier-ignore
    } else if (ask.kind === "reader") {
      const other = this.systems.find((x) => x !== s && x.way.ask.kind === "reader")?.way.ask;
      const signal = wrong && other?.kind === "reader" ? other.signal : ask.signal;
      this.do({ do: "leads", leads: { connector: c!.id, at: { black: ask.ground, signal }, fed: true } });
    } else if (ask.kind === "lead") {
      this.do({ do: "leads", leads: { connector: c!.id, fed: false, at: Object.fromEntries(ask.wires.map((w) => [w.colour, w.cavity])) } }); // prettier-ignore
    }
  }

  /** Turns the key as the way asks; returns when it came on. */
  private keyOn(s: SystemAccess): number {
    const { ask } = s.way;
    if (ask.kind === "key-cycle") {
      const slow = this.slip("slow-key");
      for (let i = 0; i < ask.times; i++) {
        if (i) {
          this.do({ do: "key", to: "off" });
          this.wait(slow ? 2500 : 700);
        }
        this.do({ do: "key", to: "on" });
        if (i < ask.times - 1) this.wait(slow ? 2500 : 700);
      }
      return this.now;
    }
    this.do({ do: "key", to: "on" });
    const at = this.now;
    if (s.way.engine === "running") {
      this.wait(3000);
      this.do({ do: "key", to: "run" });
      const { tells } = s.way;
      if (tells.kind === "lamp" && tells.act && this.random() < 0.9) {
        // Acts within the window, whenever the one flash comes.
        const lamp = lampOf(this.v, this.pack, this.vehicle, s.system);
        const asked = [...this.firstFlashes(lamp)].find((f) => f.means === "act");
        if (asked) this.v = { ...this.v, actedAt: asked.at + 2000 };
      }
    }
    return at;
  }

  private *firstFlashes(lamp: ReturnType<typeof lampOf>): Generator<{ at: number; means?: string }> {
    const { flashes, since } = flashesNow(lamp);
    let n = 0;
    for (const f of flashes as Iterable<{ start: number; flash?: { unit: { means?: string } } }>) {
      if (++n > 60) return;
      yield { at: since + f.start, means: f.flash?.unit.means };
    }
  }

  private snapshot(id: string, lampOfUnit: string | null): Snapshot {
    const live: Snapshot["live"] = {};
    for (const s of this.systems) {
      const lamp = lampOf(this.v, this.pack, this.vehicle, s.system);
      live[s.system] = lamp.kind === "show" ? [...(lamp.faults.live ?? [])] : this.v.faults.filter((f) => f.system === tableOwner(this.pack, s.system) && f.returns === "key-on").map((f) => f.code); // prettier-ignore
    }
    const snap = { at: this.now, memory: clone(this.v.memory), live, ready: this.v.ready, watched: lampOfUnit, faults: clone([...this.v.faults]) }; // prettier-ignore
    this.world.snapshots.set(id, snap);
    return snap;
  }

  /** The lamp that is looked at, and what is told of it. */
  private lampWatched(s: SystemAccess): SystemAccess {
    const dash = this.systems.filter((x) => tellsByDashLamp(x.way) && x.unit !== s.unit);
    const blinks = (x: SystemAccess) => lampOf(this.v, this.pack, this.vehicle, x.system).kind === "show";
    if (!tellsByDashLamp(s.way) || !dash.length) return s;
    if (this.slip("wrong-lamp")) return this.pick(dash);
    const other = dash.find(blinks);
    return !blinks(s) && other && this.random() < 0.7 ? other : s;
  }

  private looked(s: SystemAccess, watched: SystemAccess): Reading["looked"] {
    const look = lookFor(s, this.systems);
    if (!look || this.slip("does-not-look")) return undefined;
    if (look.what === "lamp") return { lamp: watched.lamp };
    const at = this.v.leads?.at.signal ?? "";
    return { socket: look.options.includes(at) ? at : OTHER };
  }

  private readLamp(s: SystemAccess, blank: Reading): Reading {
    const dialect = s.dialect!;
    const late = this.slip("late-watch") ? 2000 + this.random() * 40_000 : 0;
    const early = 800 + 1500 * this.random();
    let from = this.now;
    this.wait(early);
    const keyOnAt = this.keyOn(s);
    // Where the key goes on several times, watching begins with the last.
    if (s.way.ask.kind === "key-cycle") from = keyOnAt - 300;
    const watched = this.lampWatched(s);
    const looked = this.looked(s, watched);
    const lamp = lampOf(this.v, this.pack, this.vehicle, watched.system);
    const begin = late ? keyOnAt + late : from;
    const start = { ...blank, startedAt: new Date(begin).toISOString(), ...(looked && { looked }) };
    // A watch that is begun late is not told to have begun with the key, mostly.
    const keyOn = !late || this.random() < 0.2;
    if (lamp.kind !== "show") {
      this.wait(25_000);
      this.snapshot(blank.id, watched.unit);
      const rested = lamp.kind === "lit" ? "lit" : "dark";
      return { ...start, until: 20_000, rested, result: resultOfRest(rested, 20_000) };
    }
    const tapsKeyOn = this.slip("before-key-on");
    const { reading, took } = watchLamp(
      {
        dialect,
        lamp,
        keyOnAt,
        from: begin,
        input: blank.input,
        eyes: this.doer.eyes,
        stopAfter: this.slip("stops-early") ? 8000 + this.random() * 60_000 : null,
        tapsLampTest: this.slip("taps-lamp-test"),
        tapsKeyOn,
        miscallsLeadIn: this.slip("miscalls-lead-in"),
        reload: this.slip("reload"),
        table: entriesFor(this.pack, this.vehicle, s.system).map((e) => e.code),
        random: this.random,
      },
      { ...start, ...(keyOn && { keyOn: true }) },
    );
    this.now = Math.max(this.now, begin + took);
    this.snapshot(blank.id, watched.unit);
    if (reading.marks.length || reading.counts) return reading;
    const test = dialect.phases[0]?.kind === "steady" && !late;
    const end = flashesNow(lamp).flashes[Symbol.iterator]().next().done ? "dark" : dialect.empty?.kind === "steady" && dialect.empty.lamp === "lit" ? "lit" : test ? "lit-then-dark" : "dark"; // prettier-ignore
    return { ...reading, rested: end, result: resultOfRest(end, took) };
  }

  private readPresses(s: SystemAccess, blank: Reading): Reading {
    const { ask } = s.way;
    if (ask.kind !== "reader" && ask.kind !== "unit-button") return blank;
    const button = ask.kind === "reader" ? READER_BUTTON : UNIT_BUTTON;
    this.keyOn(s);
    this.wait(3000);
    const looked = this.looked(s, s);
    // The unit whose line the signal lead is on answers.
    const answers = ask.kind === "reader" ? this.systems.find((x) => x.way.ask.kind === "reader" && x.way.ask.signal === this.v.leads?.at.signal) ?? s : s; // prettier-ignore
    const press = (seconds: number): number[] => {
      this.do({ do: "down", button });
      this.wait(seconds * 1000);
      const before = this.v.press?.at;
      this.do({ do: "up", button });
      if (this.v.press?.at === before || !this.v.press) return [];
      const lamp = lampOf(this.v, this.pack, this.vehicle, answers.system);
      const now = flashesNow(lamp);
      return [...now.flashes].map((f) => now.since + f.start);
    };
    if (this.random() < 0.4) {
      press(ask.readSeconds + 0.5);
      this.wait(12_000);
    }
    const began = this.now;
    const marks: Reading["marks"] = [];
    const counts: number[] = [];
    const known = entriesFor(this.pack, this.vehicle, s.system).map((e) => e.code);
    const read = (n: number) => {
      for (let i = 0; i < n; i++) {
        const flashes = press(this.slip("short-press") ? 1 : ask.readSeconds + 0.4);
        const t = this.now - began;
        marks.push({ id: marks.length + 1, t, kind: "p" });
        let seen = 0;
        for (const at of flashes) {
          if (this.random() < this.doer.eyes.miss) continue;
          const tap = at - began + this.doer.eyes.reaction + 30 * this.random();
          marks.push({ id: marks.length + 1, t: Math.round(tap) });
          seen++;
          if (this.random() < this.doer.eyes.double) marks.push({ id: marks.length + 1, t: Math.round(tap + 150) });
        }
        if (seen) counts.push(this.random() < this.doer.eyes.miscount ? Math.max(1, seen + (this.random() < 0.5 ? 1 : -1)) : seen); // prettier-ignore
        this.wait(Math.max(0, (flashes.at(-1) ?? this.now) - this.now) + 3500);
      }
    };
    const stops = this.slip("stops-early");
    const stored = this.v.memory[tableOwner(this.pack, answers.system)]?.length ?? 0;
    const look = (presses: number) => {
      read(presses);
      const base = {
        ...blank,
        startedAt: new Date(began).toISOString(),
        until: this.now - began,
        ...(looked && { looked }),
      };
      const put = blank.input === "counts" ? { ...base, counts: counts.join(" "), until: 0 } : { ...base, marks };
      return decodeReading(s, put, known);
    };
    let result = look(stops ? 1 + Math.floor(2 * this.random()) : Math.max(3, stored + 2));
    for (let again = 0; again < 3 && !stops && !result.enough; again++) result = look(2);
    this.snapshot(blank.id, answers.unit);
    return result.reading;
  }

  private readLists(s: SystemAccess, blank: Reading): Reading {
    this.keyOn(s);
    this.wait(15_000);
    this.snapshot(blank.id, s.unit);
    const told = this.systems.filter((x) => x.way.id === s.way.id);
    const typed = s.way.tells.kind !== "serial";
    const typo = (code: string) =>
      typed && this.slip("typo") ? String(Math.max(1, Number(code) + this.pick([1, -1, 10]))) : code;
    const stops = typed && this.slip("stops-early");
    const lists = Object.fromEntries(
      told.map((x): [string, SystemList] => {
        const codes = this.world.dead.includes(x.unit) ? [] : (this.v.memory[tableOwner(this.pack, x.system)] ?? []);
        const seen = (stops ? codes.slice(0, Math.floor(this.random() * codes.length)) : codes).map(typo);
        if (this.world.dead.includes(x.unit)) return [x.system, { state: "unclear", codes: [], unclear: [] }];
        return [x.system, { state: seen.length ? "codes" : stops ? "unclear" : "none", codes: [...new Set(seen)], unclear: stops && seen.length ? ["??"] : [] }]; // prettier-ignore
      }),
    );
    return { ...blank, startedAt: this.iso(), until: 0, lists, result: resultOf(lists[s.system]) };
  }

  private readReadiness(s: SystemAccess, blank: Reading): Reading {
    const { tells } = s.way;
    if (tells.kind !== "readiness") return blank;
    const keyOnAt = this.keyOn(s);
    const late = this.slip("late-watch") ? this.random() * 40_000 : 0;
    this.wait(late);
    const began = this.now;
    const total = (tells.waitSeconds + tells.watchSeconds) * 1000;
    const lamp = lampOf(this.v, this.pack, this.vehicle, s.system);
    const now = flashesNow(lamp);
    const flashes = [...now.flashes].map((f) => now.since + f.start - began).filter((t) => t > 0 && t < total && this.random() >= this.doer.eyes.miss); // prettier-ignore
    if (this.slip("taps-lamp-test")) flashes.unshift(Math.max(0, keyOnAt - began + 300));
    this.wait(total);
    this.snapshot(blank.id, s.unit);
    const { state } = readinessVerdict(tells, { flashes, atEnd: now.lit ? "lit" : "dark", watched: total });
    return {
      ...blank,
      startedAt: new Date(began).toISOString(),
      until: 0,
      readiness: state === "too-early" ? "unclear" : state,
    };
  }

  private repairAndProve(wanted: readonly SystemAccess[]): void {
    for (const f of this.v.faults)
      if (f.returns !== "never" && this.random() < 0.7 && !this.slip("mends-wrongly")) this.do({ do: "mend", system: f.system, code: f.code }); // prettier-ignore
    const cleared = this.clearAll(wanted);
    if (!cleared.length) return;
    const again = wanted.filter((s) => s.way.tells.kind === "readiness" || cleared.includes(s.memory) || this.doer.kind === "careful"); // prettier-ignore
    const lock = lockOf(this.job, this.readings, "prove");
    if (lock) this.stuck = `prove: ${lock}`;
    this.drivenSince = false;
    if (this.random() < 0.6) for (const s of again) this.readUntilKnown(s, this.runTold());
    this.drive();
    for (const s of again) this.readUntilKnown(s, this.runTold());
    if (this.slip("two-clears")) {
      this.clearAll(wanted);
      this.drivenSince = false;
      for (const s of again) this.readUntilKnown(s, this.runTold());
    }
  }

  private claimed = false;
  private runTold(): Reading["run"] {
    if (this.slip("wrong-answer")) return this.pick(["key-on", "idle", "drive"] as const);
    return this.drivenSince || this.claimed ? "drive" : "key-on";
  }

  private drive(): void {
    const minutes = (this.pack.proving.driveMinutes ?? 15) + 5;
    this.claimed = true;
    if (this.slip("no-drive")) return this.wait(this.random() < 0.5 ? 60_000 : minutes * 60_000);
    this.do({ do: "drive" });
    this.wait(minutes * 60_000);
    this.drivenSince = true;
  }

  /** Clears what was read, by the cheapest way that may be taken; returns the memories that were meant to be wiped. */
  private clearAll(wanted: readonly SystemAccess[]): string[] {
    const cleared = new Set<string>();
    this.claimed = false;
    for (const s of wanted) {
      if (cleared.has(s.memory) || s.way.tells.kind === "readiness") continue;
      const j = judge(this.case());
      const own = j.systems.find((x) => x.access === s)!;
      if (own.known.answer !== "codes") continue;
      if (lockOf(this.job, this.readings, "clear")) {
        this.stuck ??= own.known.codes.some((x) => atLeast(x.sure, "likely"))
          ? "clear is locked after a reading"
          : null;
        continue;
      }
      if (this.vehicle.radio === "not-asked") this.vehicle = { ...this.vehicle, radio: "none" };
      const unread = j.systems.filter((x) => x.known.answer === "not-read" && x.access.way.tells.kind !== "readiness").map((x) => ({ system: x.access.system, name: x.access.name })); // prettier-ignore
      const ways = planClear(this.pack, s.system, {
        recorded: true,
        unread,
        radio: this.vehicle.radio,
        handOver: false,
      });
      const may = ways.filter((w) => w.may);
      if (ways.length && !may.length) this.stuck ??= "no way to clear may be taken";
      const other = this.slip("clears-other") ? this.pick(this.pack.clears) : null;
      const way = other ?? may[0]?.way;
      if (!way) continue;
      for (const m of this.clearBy(way, s)) cleared.add(m);
      this.check("clear");
    }
    return [...cleared];
  }

  private clearBy(way: Pack["clears"][number], s: SystemAccess): string[] {
    const memories = wipes(this.pack, way);
    const before = clone(this.v.memory);
    const begin = (what = way.title) => {
      this.job = beginClear(this.job, way.id, what, this.iso());
    };
    const end = (code?: string) => {
      this.job = endClear(
        this.job,
        { system: way.system, wiped: memories, ...(code && { code }) },
        way.title,
        this.iso(),
      );
    };
    begin();
    if (way.kind === "fuse") {
      this.do({ do: "fuse", out: true, way: this.slip("wrong-fuse") ? "none" : way.id });
      this.wait(way.seconds * 1000 + 2000);
      this.do({ do: "fuse", out: false });
      end();
    } else if (way.kind === "battery") {
      this.do({ do: "battery", off: true });
      this.wait(way.seconds * 1000 + 2000);
      this.do({ do: "battery", off: false });
      end();
    } else if (way.kind === "submode") {
      this.wait(way.seconds * 1000);
      if (!this.slip("wrong-fuse"))
        this.v = { ...this.v, memory: { ...this.v.memory, [tableOwner(this.pack, way.system)]: [] } };
      end();
    } else {
      const owner = tableOwner(this.pack, way.system);
      const codes = this.v.memory[owner] ?? [];
      for (const [i, code] of codes.entries()) {
        if (i) begin();
        this.wait(way.seconds * 1000);
        if (!this.slip("wrong-fuse")) this.v = { ...this.v, memory: { ...this.v.memory, [owner]: (this.v.memory[owner] ?? []).filter((c) => c !== code) } }; // prettier-ignore
        end(code);
      }
      if (!codes.length) {
        this.job = { ...this.job, clearing: null };
        return [];
      }
      if (s.memory === owner && codes.length && !wasCleared(this.case(), owner)) return [];
    }
    for (const [system, codes] of Object.entries(before))
      if (codes.length && !(this.v.memory[system] ?? []).length)
        this.world.wipes.push({ memory: system, at: this.now });
    this.wait(5000);
    return memories;
  }
}

/** Decodes what was put in, as the page does. */
function decodeReading(s: SystemAccess, reading: Reading, table: string[]): { reading: Reading; enough: boolean } {
  const decoded = decode(s.dialect!, evidenceOf(reading, reading.until ?? 0, s.dialect!), { table });
  return { reading: { ...reading, result: resultFrom(decoded) }, enough: nothingMore(decoded) };
}
