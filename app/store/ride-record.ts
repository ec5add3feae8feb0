import { box } from "./box";

/** Where a phone was, as the browser told it. */
export interface Fix {
  /** ms since 1970. */
  t: number;
  lat: number;
  lon: number;
  /** m/s; null where the device does not say. */
  speed: number | null;
}

/** So many positions are one part: each new one is written anew with its part, so that a long ride costs no more than a short one. */
const PART = 60;
/** Parts of the ride that is recorded for a job, by the job's id and their number. */
export const parts = box("klinko-rides");
const keyOf = (job: string, n: number): string => `${job}/${String(n).padStart(6, "0")}`;
const keysOf = async (job: string): Promise<string[]> =>
  (await parts.keys()).filter((k) => k.startsWith(`${job}/`)).sort();

const isFix = (x: unknown): x is Fix => {
  const { t, lat, lon, speed } = (x ?? {}) as Record<string, unknown>;
  return [t, lat, lon].every(Number.isFinite) && (speed === null || Number.isFinite(speed));
};

/** What is being written or thrown away; whoever reads waits for it. */
let writing: Promise<unknown> = Promise.resolve();

/** What was recorded for a job so far, in order of time. */
export async function readFixes(job: string): Promise<Fix[]> {
  await writing.catch(() => undefined);
  const kept = await Promise.all((await keysOf(job)).map((key) => parts.get(key)));
  return kept.flatMap((part) => (Array.isArray(part) ? part.filter(isFix) : []));
}

/** Writes what came since the last time. @param from how many are written already */
export async function keepFixes(job: string, all: readonly Fix[], from: number): Promise<void> {
  const first = Math.floor(from / PART);
  const news = Array.from({ length: Math.ceil(all.length / PART) - first }, (_, i) => first + i);
  writing = Promise.all(news.map((n) => parts.set(keyOf(job, n), all.slice(n * PART, (n + 1) * PART))));
  await writing;
}

/** Throws away what was recorded for a job, with what is being written just now. */
export async function dropFixes(job: string): Promise<void> {
  writing = writing
    .catch(() => undefined)
    .then(() => keysOf(job))
    .then((keys) => Promise.all(keys.map((key) => parts.remove(key))));
  await writing;
}

/** A device that tells its speed tells it nearly always. */
const MOSTLY = 0.9;

/** A recorded ride as a log like any other, so that it is read and saved like one. */
export function rideFile(fixes: readonly Fix[]): File {
  const told = fixes.filter((f) => f.speed !== null).length >= MOSTLY * fixes.length;
  const rows = fixes
    .filter((f) => !told || f.speed !== null)
    .map(({ t, lat, lon, speed }) => [
      new Date(t).toISOString(),
      lat.toFixed(6),
      lon.toFixed(6),
      ...(told ? [speed!.toFixed(2)] : []),
    ]);
  const heading = ["time", "latitude", "longitude", ...(told ? ["speed (m/s)"] : [])];
  const name = `ride-${new Date(fixes[0]?.t ?? 0).toISOString().slice(0, 16).replace(":", "")}.csv`;
  return new File([[heading, ...rows].map((r) => r.join(",")).join("\n")], name, { type: "text/csv" });
}
