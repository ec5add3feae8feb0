import type { Dialect } from "@core/flash/dialect/dialect";
import type { SystemAccess } from "@core/pack/scope";
import { entriesFor, variantOf } from "@core/pack/scope";
import { runToAsk } from "@core/job/epochs";
import { newReading } from "@core/record/readings";
import type { Input, Reading } from "@core/record/types";
import { nowIso } from "~/store/clock";
import { newId, readingWriter, removeReading } from "~/store/records";
import { dropFilms, keepFilm } from "~/store/films";
import { dropLoose, keepLoose } from "~/store/loose";
import type { JobData } from "~/store/job-data";

/** Where a reading belongs: what it is read by, and where it is kept. */
export interface Home {
  dialect: Dialect;
  /**
   * Why it is read by that dialect: the vehicle speaks it, or the person said so; or what was seen so far makes it the likeliest, and
   * what the lamp says by it settles nothing; or none is known yet, and no code may be told by it.
   */
  speaks: "given" | "likely" | "unknown";
  /** Codes that exist there. */
  table: string[];
  /** Of the vehicle's engine, where it is known: some units show half of them first. */
  cylinders: number | null;
  /** A reading that was begun and not recorded. */
  stored: Reading | null;
  blank: (input: Input) => Reading;
  save: (reading: Reading) => Promise<void>;
  drop: (reading: Reading) => Promise<void>;
  /** Keeps the film of a watch with its reading; false where there is no room. Null where nothing is kept. */
  keep: ((film: Blob, reading: Reading) => Promise<boolean>) | null;
}

export const NOT_STARTED = new Date(0).toISOString();

/** A system of a job's vehicle: every mark is stored as it comes. */
export function jobHome(data: JobData, access: SystemAccess, dialect: Dialect): Home {
  const { job, vehicle, pack, readings } = data;
  const save = readingWriter();
  return {
    dialect,
    speaks: "given",
    table: entriesFor(pack, vehicle, access.system).map((e) => e.code),
    cylinders: variantOf(pack, vehicle)?.engines.find((e) => e.id === vehicle.engine)?.cylinders ?? null,
    // An empty one holds nothing to go on with.
    stored:
      readings.findLast((r) => !r.recordedAt && r.system === access.system && (r.marks.length > 0 || r.counts)) ?? null,
    blank: (input) =>
      newReading({
        id: newId(),
        job: job.id,
        vehicle: vehicle.id,
        system: access.system,
        way: access.way.id,
        dialect: dialect.id,
        input,
        run: runToAsk(data, access.system),
        revision: pack.revision,
        startedAt: NOT_STARTED,
      }),
    save,
    drop: async (reading) => {
      // What is still to be written comes before; that it fails must keep nobody from starting over.
      await save(reading).catch(() => undefined);
      await removeReading(reading);
      await dropFilms({ reading: reading.id });
    },
    keep: (film, reading) => keepFilm({ id: newId(), reading: reading.id, vehicle: vehicle.id, at: nowIso(), film }),
  };
}

/** No vehicle: the reading stays on the device until one takes it, or another lamp is watched. */
export function looseHome(dialect: Dialect, speaks: Home["speaks"], stored: Reading | null = null): Home {
  return {
    dialect,
    speaks,
    table: [],
    cylinders: null,
    stored,
    blank: (input) =>
      newReading({
        id: newId(),
        job: "-",
        vehicle: "-",
        system: "-",
        way: "-",
        dialect: dialect.id,
        input,
        run: "before",
        startedAt: NOT_STARTED,
      }),
    save: keepLoose,
    drop: dropLoose,
    keep: null,
  };
}
