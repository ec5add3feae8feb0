import type { Log } from "../logs/log";
import type { RideJudged } from "./rides";

/** A ride as it is drawn: minutes from its start, speed, and the same speed where it counts as above the limit. */
export interface Drawn {
  minute: number[];
  /** km/h; null where nothing is known. */
  kmh: (number | null)[];
  counted: (number | null)[];
}

/** A picture is some hundred points wide. */
const POINTS = 400;

/** A ride in as many points as a picture shows; of each stretch the mean, so that no stop or gap is lost between. */
export function drawn({ t, kmh }: Log, { ride, fast }: RideJudged): Drawn {
  const from = Math.max(ride.from, ride.away - 120);
  const step = Math.max(1, (ride.home - from) / POINTS);
  const out: Drawn = { minute: [], kmh: [], counted: [] };
  let i = t.findIndex((x) => x >= from);
  let k = 0;
  for (let at = from; at <= ride.home + step && i >= 0; at += step) {
    let [sum, n] = [0, 0];
    for (; i < t.length && t[i] < at + step; i++)
      if (!Number.isNaN(kmh[i])) {
        sum += kmh[i];
        n++;
      }
    while (k < fast.length && fast[k][1] <= at) k++;
    const speed = n ? sum / n : null;
    out.minute.push((at - ride.away) / 60);
    out.kmh.push(speed);
    out.counted.push(k < fast.length && fast[k][0] < at + step ? speed : null);
  }
  return out;
}
