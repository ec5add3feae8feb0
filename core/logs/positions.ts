/** Metres of a degree of latitude. */
const DEGREE = 111_195;
/** Half the stretch over which a speed is taken from positions, s. */
const HALF_S = 4;
/** Of very many positions in it some are looked at: their errors hang together, so that more tell no more. */
const MOST = 24;
/** Fewer positions in it tell no speed. */
const FEW = 3;

export const median = (v: readonly number[]): number => [...v].sort((a, b) => a - b)[v.length >> 1] ?? NaN;

/**
 * Speed from positions: the slope of a straight line through the positions of some seconds around each moment (least squares, east
 * and north apart), which a single position that is off by some metres moves little.
 * @returns km/h, NaN where too few positions lie around; and how far noise moves it, km/h
 */
export function slopeSpeed(
  t: Float64Array,
  lat: Float64Array,
  lon: Float64Array,
): { kmh: Float64Array; noise: number } {
  const kmh = new Float64Array(t.length).fill(NaN);
  const east = new Float64Array(t.length);
  const north = new Float64Array(t.length);
  const first = lat.findIndex((x, i) => !Number.isNaN(x + lon[i]));
  if (first < 0) return { kmh, noise: 0 };
  const shrink = Math.cos((lat[first] * Math.PI) / 180);
  for (let i = 0; i < t.length; i++) {
    north[i] = (lat[i] - lat[first]) * DEGREE;
    east[i] = (lon[i] - lon[first]) * DEGREE * shrink;
  }
  const residuals: number[] = [];
  let from = 0;
  let to = 0;
  for (let i = 0; i < t.length; i++) {
    while (t[from] < t[i] - HALF_S) from++;
    while (to < t.length && t[to] <= t[i] + HALF_S) to++;
    const stride = Math.ceil((to - from) / MOST);
    let n = 0;
    let st = 0;
    let se = 0;
    let sn = 0;
    for (let k = from; k < to; k += stride) {
      if (Number.isNaN(east[k] + north[k])) continue;
      n++;
      st += t[k] - t[i];
      se += east[k];
      sn += north[k];
    }
    if (n < FEW) continue;
    const [mt, me, mn] = [st / n, se / n, sn / n];
    let stt = 0;
    let ste = 0;
    let stn = 0;
    for (let k = from; k < to; k += stride) {
      if (Number.isNaN(east[k] + north[k])) continue;
      const d = t[k] - t[i] - mt;
      stt += d * d;
      ste += d * (east[k] - me);
      stn += d * (north[k] - mn);
    }
    // All of them on one side, far from the moment itself, tell nothing of it.
    if (stt < 2 || Math.abs(mt) > HALF_S / 2) continue;
    kmh[i] = 3.6 * Math.hypot(ste / stt, stn / stt);
    if (residuals.length < 4000 && n > FEW && !Number.isNaN(east[i] + north[i])) {
      const off = Math.hypot(east[i] - me - (ste / stt) * -mt, north[i] - mn - (stn / stt) * -mt);
      residuals.push((3.6 * off) / Math.sqrt(stt));
    }
  }
  return { kmh, noise: residuals.length ? median(residuals) : 0 };
}
