import "@core/schema/joi-now";
import { expose } from "comlink";
import { BACKUP_MAX_BYTES, readBackup, type Attached } from "@core/record/backup";
import type { Joined, Side } from "@core/record/join";
import {
  carryOut,
  planOf,
  type Brought,
  type Difference,
  type FileRead,
  type Plan,
  type VehiclePlan,
} from "~/store/bring-in";
import { blobOf } from "~/store/data-url";
import { exportEverything, type SaveWith } from "~/store/save-records";

/** A plan without the records themselves: they stay here, and a page that shows the plan need not take them over. */
export interface PlanTold {
  savedAt: string;
  intact: boolean | null;
  /** Names of the makes that come with it. */
  makes: string[];
  vehicles: (Omit<VehiclePlan, "differences"> & { differences: DifferenceTold[] })[];
}
export type DifferenceTold = Pick<Difference, "key" | "called"> & { joined: Omit<Joined, "doc"> };

/** What bringing a file in has done. */
export interface BroughtIn {
  savedAt: string;
  makes: string[];
  added: number;
  same: number;
  kept: number;
  joined: number;
  pictures: number;
  /** It was broken off, and what came in before stays. */
  broken: boolean;
  left: { key: string; message: string }[];
}

let plan: Plan | null = null;
const broken = new AbortController();

async function read(file: Blob): Promise<FileRead | { fault: string }> {
  if (file.size > BACKUP_MAX_BYTES)
    return { fault: `This file is larger than ${BACKUP_MAX_BYTES / 1e6} MB: Klinko saves none that is.` };
  const held = readBackup(await file.text());
  if ("fault" in held) return held;
  const faults = [...held.faults];
  const brought = (of: readonly Attached[], kind: "image" | "video", what: string): Brought[] =>
    of.flatMap(({ data, ...rest }) => {
      const blob = blobOf(data, kind);
      if (!blob) faults.push({ key: `${what}/${rest.id}`, message: `It is not the ${what} that it says it is.` });
      return blob ? [{ ...rest, blob }] : [];
    });
  const [photos, films] = [brought(held.photos, "image", "photo"), brought(held.films, "video", "film")];
  return { ...held, photos, films, faults };
}

const api = {
  /** All records as one file. */
  save: (what: SaveWith, told: (done: number, of: number) => void): Promise<Blob> => exportEverything(what, told),
  /** Reads a file of records, and what bringing it in would do. */
  plan: async (file: Blob): Promise<PlanTold | { fault: string }> => {
    const held = await read(file);
    if ("fault" in held) return held;
    plan = await planOf(held);
    const vehicles = plan.vehicles.map((v) => ({
      ...v,
      differences: v.differences.map(({ key, called, joined: { gains, conflicts } }) => ({
        key,
        called,
        joined: { gains, conflicts },
      })),
    }));
    return { savedAt: held.savedAt, intact: held.intact, makes: held.makes.map((m) => m.make), vehicles };
  },
  /**
   * Brings in the file that was read last.
   * @param left vehicles of which nothing comes in
   * @param sides whose word counts, by record and field, where it is not what is here
   */
  bring: async (
    left: ReadonlySet<string>,
    sides: ReadonlyMap<string, Side>,
    told: (done: number, of: number) => void,
  ): Promise<BroughtIn> => {
    if (!plan) throw new Error("No file was read.");
    const { read: of } = plan;
    const choose = (key: string, field: string): Side => sides.get(`${key} ${field}`) ?? "here";
    const { merge, joined, pictures } = await carryOut(plan, left, choose, told, broken.signal);
    const astray = merge.astray.map((key) => ({ key, message: "What it belongs to is neither in the file nor here." }));
    return {
      savedAt: of.savedAt,
      makes: of.makes.map((m) => m.make),
      added: merge.add.length,
      same: merge.same,
      kept: merge.kept.length - joined,
      joined,
      pictures,
      broken: broken.signal.aborted,
      left: [...of.faults, ...astray],
    };
  },
  /** Breaks the bringing in off, between two vehicles. */
  stop: (): void => broken.abort(),
};

export type RecordsApi = typeof api;
expose(api);
