import { memoriesOf, type Dialect, type Faults, type GroupMeaning, type Memory, type Phase } from "./dialect";
import { runsOf, type Run } from "./digits";
import { onceFor } from "./once";

/** A thing that the lamp says: a code shown once, a group of flashes, a lamp test. Everything on the strip belongs to one. */
export interface Unit {
  kind: "code" | "fixed" | "group" | "steady" | "even";
  /** For `code` and `fixed`. */
  code?: string;
  /** For `fixed` and `group`. */
  means?: "mode" | "end" | "pass" | GroupMeaning;
  /** For `code`. */
  memory?: Memory;
  /** Index of the phase in the dialect. */
  phase: number;
  /** How often this code was already shown in a row in this phase, from 0. */
  repeat: number;
}

/** One flash of the show: the lamp leaves its rest at `at` (ms from the start of the section) for `ms`. */
export interface Flash {
  at: number;
  ms: number;
  unit: Unit;
  /** Index of the digit in its unit, from 0. */
  digit: number;
  long: boolean;
}

export interface Section {
  flashes: Flash[];
  /** Length, with the rest that stands before whatever follows. */
  ms: number;
}

/** What a unit would show, at the nominal tempo: `lead` once, then `loop` without end. */
export interface Show {
  lead: Section;
  loop: Section | null;
  /** What the lamp does after `lead` when there is no loop. */
  ends: "rest" | "opposite";
}

/**
 * Probability that watching begins with the show rather than somewhere in it: a show that goes round may be come upon, one that comes
 * once is made to happen.
 */
export function fromStart(loops: boolean): number {
  return loops ? 0.55 : 0.97;
}

interface Block {
  unit: Unit;
  flashes: { ms: number; digit: number; long: boolean; restAfter: number }[];
  /** Rest that a group asks for around it. */
  around?: { before: number; after: number };
  /** Stands for a `stored` phase (a fault, or the pass code of an empty memory). */
  slot: boolean;
}

/**
 * The show of a dialect for the faults in its memories.
 * Rules: the format's own (see `docs/formats/dialect.md`).
 * @param cylinders of the engine; needed where the dialect counts them, else ignored
 * @throws RangeError where the dialect cannot show one of the codes
 */
export function showOf(dialect: Dialect, faults: Faults, cylinders = 4): Show {
  const starts: number[] = [];
  const blocks: (Block | { hold: number })[] = [];
  let ends: Show["ends"] = "rest";
  let endless: { on: number; off: number; phase: number } | null = null;

  for (const [index, phase] of dialect.phases.entries()) {
    starts[index] = blocks.length;
    const list = phase.kind === "stored" ? ordered(dialect, faults[phase.memory] ?? []) : [];
    const real: Phase | null = phase.kind === "stored" && list.length === 0 ? dialect.empty : phase;
    if (!real) continue;
    const slot = phase.kind === "stored";
    if (real.kind === "stored") {
      for (const code of list)
        for (let repeat = 0; repeat < real.times; repeat++)
          blocks.push(
            codeBlock(dialect, code, { kind: "code", code, memory: real.memory, phase: index, repeat }, slot),
          );
    } else if (real.kind === "code") {
      for (let repeat = 0; repeat < real.times; repeat++)
        blocks.push(
          codeBlock(
            dialect,
            real.code,
            { kind: "fixed", code: real.code, means: real.means, phase: index, repeat },
            slot,
          ),
        );
    } else if (real.kind === "group") {
      const n = real.flashes === "cylinders/2" ? Math.max(1, Math.round(cylinders / 2)) : real.flashes;
      blocks.push({
        unit: { kind: "group", means: real.means, phase: index, repeat: 0 },
        flashes: run(dialect, 0, n, 0),
        around: { before: real.beforeMs, after: real.afterMs },
        slot,
      });
    } else if (real.kind === "steady") {
      const opposite = (real.lamp === "lit") !== (dialect.rest === "lit");
      if (real.ms === 0) {
        ends = opposite ? "opposite" : "rest";
        endless = { on: 0, off: 0, phase: index };
        break;
      }
      if (opposite)
        blocks.push({
          unit: { kind: "steady", phase: index, repeat: 0 },
          flashes: [{ ms: real.ms, digit: 0, long: false, restAfter: 0 }],
          slot,
        });
      else blocks.push({ hold: real.ms });
    } else {
      endless = { on: real.onMs, off: real.offMs, phase: index };
      break;
    }
  }

  const loopStart = endless || dialect.loopFrom === null ? blocks.length : starts[dialect.loopFrom];
  const lead = lay(dialect, blocks.slice(0, loopStart), null);
  let loop: Section | null = null;
  if (endless && endless.on > 0) {
    const unit: Unit = { kind: "even", phase: endless.phase, repeat: 0 };
    loop = { flashes: [{ at: 0, ms: endless.on, unit, digit: 0, long: false }], ms: endless.on + endless.off };
  } else if (!endless && loopStart < blocks.length) {
    loop = lay(dialect, blocks.slice(loopStart), "wrap");
    if (loop.flashes.length === 0) loop = null;
  }
  // The rest between the lead and what follows belongs to the lead.
  const last = blocks.slice(0, loopStart).at(-1);
  const first = blocks[loopStart];
  if (last && first && loop) lead.ms += restBetween(dialect, last, first, false);
  else if (last && loop) lead.ms += dialect.gaps.code;
  else if (first && "around" in first && first.around && loop) lead.ms += first.around.before;
  return { lead, loop, ends };
}

/** The faults of a memory in the order in which the dialect shows them. */
export function ordered(dialect: Dialect, codes: readonly string[]): string[] {
  return dialect.order === "ascending" ? [...codes].sort((a, b) => Number(a) - Number(b)) : [...codes];
}

/** True where no memory holds a fault. */
export function isEmpty(dialect: Dialect, faults: Faults): boolean {
  return memoriesOf(dialect).every((m) => (faults[m] ?? []).length === 0);
}

function run(dialect: Dialect, long: number, short: number, digit: number): Block["flashes"] {
  const { marks, gaps } = dialect;
  return [
    ...Array.from({ length: long }, (_, i) => ({
      ms: marks.long ?? marks.short,
      digit,
      long: true,
      // Between the tens and the units some lamps rest longer than between two flashes.
      restAfter: i === long - 1 && short > 0 ? gaps.digit : gaps.flash,
    })),
    ...Array.from({ length: short }, () => ({ ms: marks.short, digit, long: false, restAfter: gaps.flash })),
  ];
}

function codeBlock(dialect: Dialect, code: string, unit: Unit, slot: boolean): Block {
  const shown = shownOf(dialect);
  let flashes = shown.get(code);
  if (!flashes) {
    const runs = runsOf(dialect, code);
    if (!runs) throw new RangeError(`dialect "${dialect.id}" cannot show code ${code}`);
    shown.set(code, (flashes = flashesOfRuns(dialect, runs)));
  }
  return { unit, flashes, slot };
}

/** Lists that are tried are made of the same codes again and again. */
const shownOf = onceFor((_: Dialect) => new Map<string, Block["flashes"]>());

function flashesOfRuns(dialect: Dialect, runs: readonly Run[]): Block["flashes"] {
  return runs.flatMap((r, digit) => {
    const row = run(dialect, r.long, r.short, digit);
    row[row.length - 1].restAfter = dialect.gaps.digit;
    return row;
  });
}

/** Runs alone, the first flash at `before` ms, as a section. */
export function runSection(dialect: Dialect, runs: readonly Run[], before: number): Section {
  const unit: Unit = { kind: "code", phase: 0, repeat: 0 };
  let t = before;
  const flashes = flashesOfRuns(dialect, runs).map(({ ms, digit, long, restAfter }): Flash => {
    const flash = { at: t, ms, unit, digit, long };
    t += ms + restAfter;
    return flash;
  });
  return { flashes, ms: t };
}

function restBetween(
  dialect: Dialect,
  a: Block | { hold: number },
  b: Block | { hold: number },
  wrap: boolean,
): number {
  const { gaps } = dialect;
  if ("hold" in a || "hold" in b) return 0;
  if (a.around || b.around) return Math.max(a.around?.after ?? 0, b.around?.before ?? 0);
  if (a.unit.kind === "steady" || b.unit.kind === "steady") return gaps.code;
  if (wrap) return gaps.pass;
  if (a.unit.phase !== b.unit.phase) return a.slot && b.slot ? gaps.pass : gaps.code;
  return a.unit.code === b.unit.code ? gaps.repeat : gaps.code;
}

function lay(dialect: Dialect, blocks: (Block | { hold: number })[], end: "wrap" | null): Section {
  const flashes: Flash[] = [];
  let t = 0;
  const first = blocks[0];
  if (first && "around" in first && first.around && end === null) t = first.around.before;
  for (const [i, block] of blocks.entries()) {
    if ("hold" in block) t += block.hold;
    else
      for (const [k, f] of block.flashes.entries()) {
        flashes.push({ at: t, ms: f.ms, unit: block.unit, digit: f.digit, long: f.long });
        t += f.ms + (k < block.flashes.length - 1 ? f.restAfter : 0);
      }
    const next = blocks[i + 1];
    if (next) t += restBetween(dialect, block, next, false);
    else if (end === "wrap") t += restBetween(dialect, block, blocks[0], true);
  }
  return { flashes, ms: t };
}
