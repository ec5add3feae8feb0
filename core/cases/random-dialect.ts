import type { Dialect, Phase } from "../flash/dialect";

/**
 * A dialect such as the format allows, at random: style, rests, lead-in, repeats, ways of ending. Rests are at least so far
 * apart that an eye could tell them; nothing else is kept from being odd.
 */
export function randomDialect(random: () => number): Dialect {
  const between = (a: number, b: number) => Math.round((a + (b - a) * random()) / 10) * 10;
  const one = <T>(...list: T[]): T => list[Math.floor(random() * list.length)];
  const style = one("counted", "counted", "long-short", "total");
  const short = between(280, 520);
  const flash = between(300, 520);
  const digit = style === "counted" ? Math.round(flash * (2.4 + 1.6 * random())) : flash;
  const code = Math.round(Math.max(digit, flash) * (1.8 + 1.2 * random()));
  const pass = one(code, Math.round(code * 1.7));
  const count = style === "counted" ? one([2], [2], [3]) : style === "long-short" ? [1, 2] : [1];
  const max = style === "total" ? between(20, 30) : count[0] === 3 ? 999 : 99;
  const ends = one("round", "round", "once");
  const fixed = style === "total" ? "19" : count[0] === 3 ? "555" : "55";
  const phases: Phase[] = [];
  if (random() < 0.5) phases.push({ kind: "steady", lamp: "lit", ms: between(1500, 3000) });
  const leads = random() < 0.4;
  if (leads) phases.push({ kind: "code", code: fixed, times: one(1, 2), means: "mode" });
  phases.push({ kind: "stored", times: one(1, 1, 2, 3), memory: "stored" });
  if (ends === "once" && random() < 0.5) phases.push({ kind: "stored", times: 1, memory: "stored" });
  if (!leads && random() < 0.4) phases.push({ kind: "code", code: fixed, times: 1, means: "end" });
  const first = phases[0].kind === "steady" ? 1 : 0;
  return {
    id: `random-${Math.floor(random() * 1e9)}`,
    title: "A dialect at random",
    rest: random() < 0.8 ? "dark" : "lit",
    marks: style === "long-short" ? { short, long: Math.round(short * (2.6 + 0.8 * random())) } : { short },
    gaps: { flash, digit, repeat: code, code, pass },
    digits: { style, count, zero: style === "counted" ? one(null, 10) : null },
    max,
    order: one("ascending", "stored"),
    phases,
    loopFrom: ends === "round" ? first : null,
    advance: "self",
    empty: one<Phase | null>(null, { kind: "even", onMs: 250, offMs: 250 }, { kind: "code", code: fixed, times: 1, means: "pass" }), // prettier-ignore
  };
}
