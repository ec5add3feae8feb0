import { seeded } from "../../flash/dialect/encode";
import type { JobCase } from "../../job/case";
import type { Pack } from "../../pack/pack";
import { tableOwner, type SystemAccess } from "../../pack/scope";
import { newJob } from "../../record/job";
import type { Job, Reading, Vehicle } from "../../record/types";
import { lampOf } from "../../simulated/answers";
import type { Simulated, SimulatedAction } from "../../simulated/state";
import { act } from "../../simulated/vehicle";
import { checkStatements, type Checked, type Snapshot, type World } from "./check";
import { doerOf, type Doer, type Slip } from "./person";
import { makeVehicle } from "./vehicle";

/** What a played job happens on: the vehicle as it is, the person, the clock, the records made so far, and what was checked. */
export class Stage {
  readonly random: () => number;
  now: number;
  v: Simulated;
  vehicle: Vehicle;
  readonly systems: SystemAccess[];
  readonly doer: Doer;
  job: Job;
  readings: Reading[] = [];
  readonly world: World;
  /** Slips that were really made. */
  readonly made = new Set<Slip>();
  readonly checked = new Map<string, Checked>();
  /** Why the job could not go on. */
  stuck: string | null = null;
  /** Since the last clear the person says that they drove, and did. */
  claimed = false;
  driven = false;

  constructor(
    readonly pack: Pack,
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
    this.world = {
      snapshots: new Map(),
      wipes: [],
      dead: made.v.deadUnits ?? [],
      lamps: made.v.deadLamps ?? [],
      outputs: made.v.deadOutputs ?? [],
    };
  }

  iso = (): string => new Date(this.now).toISOString();
  case = (): JobCase => ({
    vehicle: this.vehicle,
    job: this.job,
    readings: this.readings,
    pack: this.pack,
    systems: this.systems,
  });
  do = (action: SimulatedAction): void => {
    this.v = act(this.v, action, this.pack, this.vehicle, this.now);
  };
  wait = (ms: number): void => {
    this.now += ms;
  };
  slip(s: Slip): boolean {
    if (this.random() >= this.doer.slips[s]) return false;
    this.made.add(s);
    return true;
  }
  pick = <T>(list: readonly T[]): T => list[Math.floor(this.random() * list.length)];

  /** Holds everything that is said now against the vehicle. */
  check(when: string): void {
    for (const c of checkStatements(this.case(), this.v, this.world, when))
      this.checked.set(`${c.key} ${c.right} ${c.sure}`, c);
  }

  snapshot(id: string, lampOfUnit: string | null): Snapshot {
    const live: Snapshot["live"] = {};
    for (const s of this.systems) {
      const lamp = lampOf(this.v, this.pack, this.vehicle, s.system);
      live[s.system] =
        lamp.kind === "show"
          ? [...(lamp.faults.live ?? [])]
          : this.v.faults
              .filter((f) => f.system === tableOwner(this.pack, s.system) && f.returns === "key-on")
              .map((f) => f.code);
    }
    const snap = {
      at: this.now,
      memory: structuredClone(this.v.memory),
      live,
      ready: this.v.ready,
      watched: lampOfUnit,
      faults: structuredClone([...this.v.faults]),
    };
    this.world.snapshots.set(id, snap);
    return snap;
  }
}
