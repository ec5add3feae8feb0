import { expose } from "comlink";
import { LOG_MAX_BYTES, type SpeedUnit } from "@core/logs/log";
import { readLog } from "@core/logs/read-log";
import type { RideRule } from "@core/pack/ride";
import { ridesIn, type RideJudged } from "@core/proving/rides";
import { drawn, type Drawn } from "@core/proving/drawn";

/** The rides of a log, and what is drawn of each. */
export type RidesRead =
  | { rides: { judged: RideJudged; drawn: Drawn }[]; dated: boolean; zoned: boolean; notes: string[] }
  | { fault: string; asks?: "unit" };

const api = {
  rides: async (file: Blob, rule: RideRule, unit: SpeedUnit | null): Promise<RidesRead> => {
    if (file.size > LOG_MAX_BYTES)
      return { fault: `This file is larger than ${LOG_MAX_BYTES / 1e6} MB. Cut it to the days that are meant.` };
    const read = readLog(await file.text(), unit);
    if ("fault" in read) return read;
    const { dated, zoned, notes } = read.log;
    const rides = ridesIn(read.log, rule).map((judged) => ({ judged, drawn: drawn(read.log, judged) }));
    return { rides, dated, zoned, notes };
  },
};

export type LogApi = typeof api;
expose(api);
