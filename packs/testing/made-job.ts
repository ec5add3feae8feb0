import type { JobCase } from "@core/job/case";
import { judge } from "@core/job/judge";
import { sayVerdict } from "@core/job/say";
import type { StatementKind } from "@core/job/statement";
import { systemsOf } from "@core/pack/scope";
import { newJob } from "@core/record/job";
import { newReading } from "@core/record/readings";
import type { ClearDone, Reading, ReadingResult, Vehicle } from "@core/record/types";
import { packById } from "../index";

export const at = (minutes: number) => new Date(Date.UTC(2026, 2, 4, 9, minutes)).toISOString();

export const CARS = {
  norrvik: { variant: "estate", year: 1990, engine: "2.3" },
  calverra: { variant: "hatch", year: 1994, engine: "1.6" },
  "hollin-pike": { variant: "truck", year: 1996, engine: "5.9 D" },
  dunmarrow: { variant: "pickup", year: 1992, engine: "5.0 V8" },
  lindqvar: { variant: "saloon", year: 1993, engine: "3.0" },
  aldermoor: { variant: "two-seater", year: 1990, engine: "3.8 V6" },
  tarvello: { variant: "tour", year: 1995, engine: "650" },
} as const;

/** A job of a made-up vehicle with what was recorded of it. */
export class Made {
  readonly c: JobCase & { readings: Reading[] };
  constructor(id: keyof typeof CARS, more: Partial<Vehicle> = {}) {
    const pack = packById(id)!;
    const car = CARS[id];
    const engine = pack.variants.find((v) => v.id === car.variant)!.engines.some((e) => e.id === car.engine)
      ? car.engine
      : pack.variants.find((v) => v.id === car.variant)!.engines[0].id;
    const vehicle: Vehicle = {
      version: 1,
      kind: "vehicle",
      id: "v",
      plate: "P",
      pack: id,
      ...car,
      engine,
      market: "home",
      changes: [],
      drives: [],
      radio: "none",
      immobiliser: "none",
      createdAt: at(0),
      ...more,
    };
    const systems = systemsOf(pack, vehicle);
    this.c = { pack, vehicle, systems, job: newJob(vehicle, "engine", "j", at(0)), readings: [] };
  }
  read(minute: number, system: string, result: ReadingResult | null, more: Partial<Reading> = {}): this {
    const access = this.c.systems.find((s) => s.system === system)!;
    const reading = newReading({
      id: `r${this.c.readings.length}`,
      job: "j",
      vehicle: "v",
      system,
      way: access.way.id,
      dialect: access.dialect?.id ?? "",
      input: "tap",
      run: "before",
      startedAt: at(minute),
    });
    this.c.readings.push({ ...reading, looked: { lamp: access.lamp }, result, recordedAt: at(minute + 1), ...more });
    return this;
  }
  clear(minute: number, more: Partial<ClearDone> = {}): this {
    this.c.job.clears.push({ at: at(minute), way: "memory-fuse", system: "engine", seconds: 30, ...more });
    return this;
  }
  kinds = (): StatementKind[] => judge(this.c).statements.map((s) => s.kind);
  sure = (kind: StatementKind) => judge(this.c).statements.find((s) => s.kind === kind)?.sure;
  says = (): string => sayVerdict(judge(this.c));
  rows = (system = "engine") => judge(this.c).systems.find((s) => s.access.system === system)!.proof;
  persistence = (system = "engine") => Object.fromEntries(this.rows(system).rows.map((r) => [r.code, r.persistence]));
  known = (system = "engine") => judge(this.c).systems.find((s) => s.access.system === system)!.known;
}

export const heard = (codes: string[], n: number) => ({
  exactShown: { stored: Object.fromEntries(codes.map((c) => [c, n])) },
  memoryConfidence: {},
  wholeRound: n >= 2,
  roundsShown: Object.fromEntries(codes.map((c) => [c, n])),
  over: false,
  completeness: 0.999,
  cylinders: null,
  tempo: 1,
});
export const list = (codes: string[], n = 2, p = 0.999): ReadingResult => ({
  state: "codes",
  codes,
  memories: {},
  complete: true,
  confidence: p,
  codeConfidence: Object.fromEntries(codes.map((c) => [c, p])),
  heard: heard(codes, n),
});
export const none = (p = 0.999): ReadingResult => ({ ...list([], 2, p), state: "none" });
