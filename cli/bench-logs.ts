import { makeRide } from "@core/cases/ride";
import { seeded } from "@core/flash/dialect/encode";
import { readLog } from "@core/logs/read-log";
import { ridesIn, type Part } from "@core/proving/rides";

/** Goals: right verdicts, %; seconds above the limit, mean of how far off, %; a log of ten hours at ten rows a second, ms and MB. */
const GOALS = { right: 99.5, seconds: 2, ms: 1000, mb: 150 };

/** Rides that never were, of which all is known, against what is read from their files. */
export function benchLogs(given: Map<string, string>): number {
  const n = Number(given.get("n") || 1000);
  const random = seeded(Number(given.get("seed") || 11));
  let [right, refused, falseCounts, honest] = [0, 0, 0, 0];
  const off: number[] = [];
  for (let k = 0; k < n; k++) {
    const made = makeRide(random);
    const read = readLog(made.text);
    if ("fault" in read) {
      refused++;
      console.log(`${k} refused: ${read.fault}`);
      continue;
    }
    const rides = ridesIn(read.log, made.rule);
    const ride = rides.reduce<(typeof rides)[number] | null>(
      (a, b) => (!a || b.length.have > a.length.have ? b : a),
      null,
    );
    if (!ride) {
      refused++;
      console.log(`${k}: no ride found`);
      continue;
    }
    // So near to what is needed that positions cannot tell it, "not known" is the right word.
    const { warm, ...seconds } = made.truth;
    const parts = Object.values(seconds).flatMap((p: Part | null) => p ?? []);
    // A tenth of a degree is what the file tells.
    const even = warm?.have != null && Math.abs(warm.have - warm.need) < 0.1;
    const close =
      even || (read.log.noise > 0 && parts.some((p) => Math.abs(p.have - p.need) < 2 * (3 + 0.02 * p.need)));
    const ok = ride.counts === made.counts || (close && ride.counts === "unknown");
    right += Number(ok);
    if (ride.counts === "unknown" && made.counts !== "unknown") honest++;
    if (ride.counts === "yes" && made.counts !== "yes") falseCounts++;
    if (!ok && given.has("v"))
      console.log(
        k,
        made.counts,
        ride.counts,
        rides.length,
        JSON.stringify(made.truth),
        JSON.stringify([ride.idle, ride.length, ride.above]),
        read.log.notes.join(" "),
        read.log.noise.toFixed(2),
      );
    if (made.truth.above && made.truth.above.have > 60)
      off.push(Math.abs(ride.above!.have / made.truth.above.have - 1));
  }
  const mean = (100 * off.reduce((a, b) => a + b, 0)) / off.length;
  const within = (100 * off.filter((x) => x <= GOALS.seconds / 100).length) / off.length;
  const worst = 100 * Math.max(...off);
  console.log(
    `${n} rides: verdict right ${((100 * right) / n).toFixed(1)} %, left open ${honest}, refused ${refused}, wrongly counted ${falseCounts}; seconds above the limit off by ${mean.toFixed(2)} % on average, within ${GOALS.seconds} % in ${within.toFixed(1)} %, ${worst.toFixed(1)} % at most`,
  );
  const { ms, mb } = longLog();
  console.log(`ten hours at ten rows a second: ${ms.toFixed(0)} ms, ${mb.toFixed(0)} MB more`);
  const short = [
    (100 * right) / n < GOALS.right && `verdicts right ${((100 * right) / n).toFixed(1)} %, goal ${GOALS.right}`,
    mean > GOALS.seconds && `seconds off by ${mean.toFixed(2)} %, goal ${GOALS.seconds}`,
    ms > GOALS.ms && `a long log takes ${ms.toFixed(0)} ms, goal ${GOALS.ms}`,
    mb > GOALS.mb && `a long log takes ${mb.toFixed(0)} MB, goal ${GOALS.mb}`,
  ].filter((x) => x !== false);
  for (const line of short) console.log(`short of its goal: ${line}`);
  return given.has("check") && short.length ? 1 : 0;
}

/** Time and memory of a log of ten hours at ten rows a second, with speed and position. */
function longLog(): { ms: number; mb: number } {
  const rows = ["time,speed (km/h),latitude,longitude"];
  const start = Date.UTC(2026, 5, 3, 8);
  let metres = 0;
  for (let i = 0; i < 360_000; i++) {
    const kmh = Math.max(0, 60 + 50 * Math.sin(i / 3000));
    metres += kmh / 36;
    rows.push(
      `${new Date(start + i * 100).toISOString()},${kmh.toFixed(1)},${(48 + metres / 111_195).toFixed(6)},9.000000`,
    );
  }
  const text = rows.join("\n");
  rows.length = 0;
  globalThis.gc?.();
  const before = process.memoryUsage().rss;
  const begin = performance.now();
  const read = readLog(text);
  if ("fault" in read) throw new Error(read.fault);
  ridesIn(read.log, { seconds: 600, above: { kmh: 80, seconds: 300 }, rides: 3 });
  return { ms: performance.now() - begin, mb: Math.max(0, process.memoryUsage().rss - before) / 1e6 };
}
