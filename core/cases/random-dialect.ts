import type { Dialect, Phase } from "../flash/dialect/dialect";

/**
 * A dialect such as the format allows, at random: style, rests, lead-in, repeats, groups, two memories, one code a press, ways of
 * ending. Rests are at least so far apart that an eye could tell them; nothing else is kept from being odd.
 */
export function randomDialect(random: () => number): Dialect {
  const between = (a: number, b: number) => Math.round((a + (b - a) * random()) / 10) * 10;
  const one = <T>(...list: T[]): T => list[Math.floor(random() * list.length)];
  const times = (ms: number, from: number, to: number) => Math.round(ms * (from + (to - from) * random()));
  const button = random() < 0.2;
  const style = one<Dialect["digits"]["style"]>("counted", "counted", "long-short", "total");
  const short = Math.round(200 * 5 ** random());
  const flash = times(short, 0.8, 1.25);
  const digit =
    style === "counted" ? times(flash, 2.4, 4) : style === "long-short" ? one(flash, times(flash, 1.6, 2)) : flash;
  const code = Math.round(Math.max(digit, flash) * (1.8 + 1.2 * random()));
  const count = style === "counted" ? one([2], [2], [3], [4], [1, 2]) : style === "long-short" ? [1, 2] : [1];
  const digits = Math.max(...count);
  const max = style === "total" ? between(20, 30) : style === "counted" ? 10 ** digits - 1 : 99;
  const base = {
    id: `random-${Math.floor(random() * 1e9)}`,
    title: "A dialect at random",
    rest: random() < 0.8 ? ("dark" as const) : ("lit" as const),
    marks: style === "long-short" ? { short, long: times(short, 2.6, 3.4) } : { short },
    digits: { style, count, zero: style === "counted" ? one(null, 10) : null },
    max,
    order: one("ascending" as const, "stored" as const),
  };
  const clear = { kind: "group" as const, flashes: 1, means: "clear" as const };
  if (button)
    return {
      ...base,
      gaps: { flash, digit, repeat: 0, code: 0, pass: 0 },
      phases: [{ kind: "stored", times: 1, memory: "stored" }],
      loopFrom: 0,
      advance: "button",
      empty: { ...clear, beforeMs: between(800, 1800), afterMs: 0 },
    };
  const fixed = style === "total" ? "19" : "5".repeat(digits);
  const ends = one("round", "round", "once");
  const phases: Phase[] = [];
  if (random() < 0.5)
    phases.push({ kind: "steady", lamp: base.rest === "dark" ? "lit" : "dark", ms: between(1500, 3000) });
  const leads = random() < 0.4;
  if (leads) phases.push({ kind: "code", code: fixed, times: one(1, 2), means: "mode" });
  const two = !leads && ends === "once" && random() < 0.3;
  const wait = { beforeMs: times(code, 1.3, 1.8), afterMs: times(code, 1.3, 1.8) };
  phases.push({ kind: "stored", times: two ? 1 : one(1, 1, 2, 3), memory: two ? "live" : "stored" });
  if (two)
    phases.push(
      { kind: "group", flashes: 1, means: "separator", ...wait },
      { kind: "stored", times: 1, memory: "stored" },
    );
  else if (ends === "once" && random() < 0.5) phases.push({ kind: "stored", times: 1, memory: "stored" });
  const pass: Phase = { kind: "code", code: fixed, times: 1, means: "pass" };
  const empty = two
    ? pass
    : one<Phase | null>(
        null,
        { kind: "even", onMs: 250, offMs: 250 },
        pass,
        { kind: "steady", lamp: "lit", ms: 0 },
        { ...clear, ...wait },
      );
  if (!leads && !two && random() < 0.4) phases.push({ kind: "code", code: fixed, times: 1, means: "end" });
  return {
    ...base,
    gaps: { flash, digit, repeat: one(code, times(code, 0.75, 0.95)), code, pass: one(code, times(code, 1.4, 1.9)) },
    phases,
    loopFrom: ends === "round" ? (phases[0].kind === "steady" ? 1 : 0) : null,
    advance: "self",
    empty,
  };
}
