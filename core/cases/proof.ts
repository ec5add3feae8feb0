import type { JobCase } from "../job/case";
import type { Pack } from "../pack/pack";
import { systemsOf } from "../pack/scope";
import { newJob } from "../record/job";
import { newReading } from "../record/readings";
import type { Reading, ReadingResult } from "../record/types";
import { newVehicle } from "../record/vehicle";

/** How often a fault that is not gone comes, and how often a repair cures it. */
export interface FaultWorld {
  /** Draws the share of drives on which it comes, 0 to 1. */
  rate: (random: () => number) => number;
  cured: number;
  /** It comes in the wet alone, which is every other drive. */
  wet?: true;
}

/** Worlds: any rate is as likely as any other, which is what is believed beforehand, and others in which it is not so. */
export const FAULT_WORLDS: Readonly<Record<string, FaultWorld>> = {
  "any rate": { rate: (random) => random(), cured: 0.5 },
  "a quarter always": { rate: (random) => (random() < 0.25 ? 1 : random()), cured: 0.5 },
  "half always": { rate: (random) => (random() < 0.5 ? 1 : random()), cured: 0.5 },
  "all seldom": { rate: (random) => 0.5 * random(), cured: 0.5 },
  "only in the wet": { rate: (random) => random(), cured: 0.5, wet: true },
};

const START = Date.UTC(2026, 2, 4, 9);
const HOUR = 3_600_000;
const CODE = "26";
const OTHER = "43";

/** A job in which one fault was read, cleared and driven, some times over, then mended, cleared and driven again. */
export interface MadeProof {
  c: JobCase;
  code: string;
  /** The repair cured it. */
  gone: boolean;
  /** It came back since, so that nobody asks how probable it is that it is gone. */
  back: boolean;
}

function certain(codes: string[]): ReadingResult {
  const shares = Object.fromEntries(codes.map((c) => [c, 0.999]));
  const times = Object.fromEntries(codes.map((c) => [c, 2]));
  return {
    state: codes.length ? "codes" : "none",
    codes,
    memories: {},
    complete: true,
    confidence: 0.999,
    codeConfidence: shares,
    heard: {
      exactShown: { stored: times },
      memoryConfidence: {},
      wholeRound: true,
      roundsShown: times,
      over: false,
      completeness: 0.999,
      cylinders: null,
      tempo: 1,
    },
  };
}

/** @param pack one whose first variant has an engine that is read by a lamp */
export function makeProof(pack: Pack, { rate, cured, wet: onlyWet }: FaultWorld, random: () => number): MadeProof {
  const [variant] = pack.variants;
  const about = {
    variant: variant.id,
    year: variant.years[0],
    engine: variant.engines[0].id,
    market: variant.markets[0],
  };
  const vehicle = newVehicle({ id: "v", plate: "P", pack: pack.id, ...about }, new Date(START).toISOString());
  const systems = systemsOf(pack, vehicle);
  const access = systems.find((s) => s.system === "engine")!;
  let at = START;
  const time = () => new Date((at += HOUR)).toISOString();
  const job = newJob(vehicle, "engine", "j", time());
  const readings: Reading[] = [];
  const rounds = Math.floor(5 * random());
  // In half of the jobs another code is stored as well, so that the lamp tells of neither alone.
  const others = random() < 0.5 ? [OTHER] : [];
  const read = (run: Reading["run"], codes: string[]) =>
    readings.push({
      ...newReading({
        id: `r${readings.length}`,
        job: "j",
        vehicle: "v",
        system: "engine",
        way: access.way.id,
        dialect: access.dialect?.id ?? "",
        input: "tap",
        run,
        startedAt: time(),
      }),
      looked: { lamp: access.lamp },
      result: certain(codes),
      recordedAt: time(),
    });
  const clear = () =>
    job.clears.push({ at: time(), way: pack.clears[0].id, system: "engine", seconds: 30, wiped: ["engine"] });
  const often = rate(random);
  const noted = random() < 0.5;
  const drive = (there: boolean): boolean => {
    const wet = random() < 0.5;
    const came = there && (wet || !onlyWet) && random() < often;
    const on = time();
    if (noted) vehicle.drives.push({ at: on, cameOn: came, conditions: [wet ? "Wet" : "Dry"] });
    return came;
  };
  /** Drives after a clear, each read, until it is back or nobody drives any more. */
  const drives = (most: number, there: boolean): boolean => {
    clear();
    for (let k = 1 + Math.floor(most * random()); k > 0; k--) {
      const came = drive(there);
      read("drive", came ? [CODE] : []);
      if (came) return true;
    }
    return false;
  };
  // Some were noted before anybody opened a job.
  for (let k = noted ? Math.floor(9 * random()) : 0; k > 0; k--) drive(true);
  read("before", [CODE, ...others]);
  for (let k = 0; k < rounds; k++) drives(3, true);
  const gone = random() < cured;
  const back = drives(6, !gone);
  return { c: { vehicle, job, readings, pack, systems }, code: CODE, gone, back };
}
