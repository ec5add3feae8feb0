import { memoriesOf, type Dialect, type Faults, type Memory } from "../flash/dialect/dialect";
import type { State } from "../flash/answer";
import { runsOf } from "../flash/dialect/digits";
import { isEmpty, ordered, type Unit } from "../flash/dialect/show";
import type { Played } from "./lamp";

/** What a case's answer is held against (format: `truth`). */
export interface Truth {
  state: State;
  codes: string[];
  shown: string[];
  memories?: Faults;
  cylinders: number | null;
  complete: boolean;
}

/** Units that lay in the watch whole, with rest enough on both sides to know that they began and ended there. */
function unitsInFull(dialect: Dialect, { flashes, until }: Played, speed: number): Unit[] {
  const { gaps } = dialect;
  const between = [gaps.code, gaps.repeat].filter((g) => g > 0);
  const enough = ((gaps.digit + Math.min(...between, Infinity)) / 2) * speed;
  const rest = Number.isFinite(enough) ? enough : 0;
  const full: Unit[] = [];
  for (let i = 0; i < flashes.length;) {
    const { unit } = flashes[i].flash;
    let j = i;
    while (
      j + 1 < flashes.length &&
      flashes[j + 1].flash.unit === unit &&
      flashes[j + 1].flash.at > flashes[j].flash.at
    )
      j++;
    const before = flashes[i].start - (i > 0 ? flashes[i - 1].end : 0);
    const after = (j + 1 < flashes.length ? flashes[j + 1].start : until) - flashes[j].end;
    const runs = unit.kind === "code" ? runsOf(dialect, unit.code!) : null;
    const whole = !runs || runs.reduce((n, r) => n + r.long + r.short, 0) === j - i + 1;
    if (before >= rest && after >= rest && whole) full.push(unit);
    i = j + 1;
  }
  return full;
}

/** The truth of a watch, by the rules of the format. */
export function truthOf(
  dialect: Dialect,
  faults: Faults,
  played: Played,
  speed: number,
  cylinders: number | null,
): Truth {
  const memories = memoriesOf(dialect);
  const full = unitsInFull(dialect, played, speed);
  const codes: string[] = [];
  for (const m of memories) for (const c of ordered(dialect, faults[m] ?? [])) if (!codes.includes(c)) codes.push(c);
  const seen = (memory: Memory, code: string) =>
    full.some((u) => u.kind === "code" && u.memory === memory && u.code === code);
  const shown = codes.filter((c) => memories.some((m) => seen(m, c)));
  const two = memories.length > 1;
  const passSeen = (memory: Memory) =>
    full.some((u) => {
      const phase = dialect.phases[u.phase];
      return u.kind === "fixed" && u.means === "pass" && phase.kind === "stored" && phase.memory === memory;
    });
  const complete = memories.every((m) => {
    const list = faults[m] ?? [];
    return list.length ? list.every((c) => seen(m, c)) : !two || dialect.empty === null || passSeen(m);
  });
  const base = { codes, shown, cylinders, ...(two ? { memories: { ...faults } } : {}) };
  if (!isEmpty(dialect, faults)) return { ...base, state: shown.length ? "codes" : "unclear", complete };
  const tells = played.flashes.some((f) => f.flash.unit.kind !== "steady");
  const lit = (played.edges.at(-1)?.[1] ?? 0) === 1;
  return { ...base, state: tells ? "none" : lit ? "steady" : "dark", complete: true };
}
