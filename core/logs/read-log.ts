import { cleaned } from "./clean";
import { LOG_MAX_BYTES, type LogRead, type SpeedUnit } from "./log";
import { readCsv } from "./read-csv";
import { readGpx } from "./read-gpx";

/**
 * Reads a log of speeds or positions: GPX, or text in columns.
 * @param unit in what its speeds are told, by whoever knows; null where the file says it
 */
export function readLog(text: string, unit: SpeedUnit | null = null): LogRead {
  if (text.length > LOG_MAX_BYTES)
    return { fault: `This file is larger than ${LOG_MAX_BYTES / 1e6} MB. Cut it to the days that are meant.` };
  const begins = text.slice(0, 500).trimStart();
  if (begins === "") return { fault: "This file is empty." };
  const read = begins.startsWith("<") || begins.startsWith("\uFEFF<") ? readGpx(text) : readCsv(text);
  return "fault" in read ? read : cleaned(read.raw, unit);
}
