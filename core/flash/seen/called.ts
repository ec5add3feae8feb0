import type { Dialect } from "../dialect/dialect";
import type { Called } from "./evidence";

/** Numbers that somebody called out, as the decoder takes them, and what could not be understood. */
export interface CalledText {
  counts: Called["counts"];
  /** How each was understood, in order: "1", "10", "2 long, 3 short". */
  understood: string[];
  wrong: string[];
}

/** More flashes than this in a row nobody counts. */
const MOST = 99;
/** What is typed for flashing that goes on evenly and is not counted, and the number that stands for it. */
export const EVEN = "even";
const MANY = 50;
/** So many numbers are taken; a list is over long before. */
const MOST_NUMBERS = 500;

/**
 * Reads called-out counts as somebody types them, in any spacing. Where a digit is a run of its own, `13` is a one and a three, and
 * only the number that stands for a zero (or a large even flashing, which ends in 0) is taken whole; where one run is the whole code,
 * every number is; where long flashes are tens, `23`, `2-3` and `2/3` are two long and three short. `even` is flashing without end.
 */
export function calledOf(text: string, dialect: Pick<Dialect, "digits">): CalledText {
  const { style, zero } = dialect.digits;
  const counts: CalledText["counts"][number][] = [];
  const understood: string[] = [];
  const wrong: string[] = [];
  const put = (n: number, token: string) => {
    if (n < 1 || n > MOST) return wrong.push(token);
    understood.push(String(n));
    return counts.push(n);
  };
  for (const [token] of text.toLowerCase().matchAll(style === "long-short" ? /even|[\d/+-]+/g : /even|\d+/g)) {
    if (counts.length >= MOST_NUMBERS) continue;
    if (token === EVEN) {
      counts.push(style === "long-short" ? [0, MANY] : MANY);
      understood.push("even flashing");
    } else if (style === "total") put(Number(token), token);
    else if (style === "counted") {
      if (Number(token) === zero || /0$/.test(token)) put(Number(token), token);
      else for (const digit of token) put(Number(digit), token);
    } else {
      const pair = /^(\d)[/+-]?(\d)$/.exec(token);
      const [long, short] = pair
        ? [Number(pair[1]), Number(pair[2])]
        : /^\d$/.test(token)
          ? [0, Number(token)]
          : [0, 0];
      if (long + short === 0) wrong.push(token);
      else {
        counts.push([long, short]);
        understood.push([long ? `${long} long` : "", short ? `${short} short` : ""].filter(Boolean).join(", "));
      }
    }
  }
  return { counts, understood, wrong };
}
