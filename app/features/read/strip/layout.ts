import type { Assigned, Decoded } from "@core/flash/decode";
import type { Overlay } from "@core/record/overlay";
import type { Mark } from "@core/record/types";

/** The lamp strip: marks at true time, in lines; a line never mixes two rounds of the list. */
export interface StripLine {
  /** Round of the list, from 1; null while it is not known. */
  pass: number | null;
  from: number;
  to: number;
  marks: StripMark[];
  ghosts: { at: number; ms: number }[];
  brackets: Bracket[];
  /** Marks of a second reading, at the times of this one; `alone` where this one has none. */
  second: { at: number; ms: number; alone: boolean }[];
  /** Why a new line begins, where there is more to it than room. */
  begins: "watch" | "round" | null;
}

export interface StripMark {
  id: number;
  t: number;
  ms: number;
  /** What it belongs to; null: taken for spurious or not decoded yet. */
  place: Assigned | null;
  spurious: boolean;
  /** The picture did not show it clearly. */
  faint: boolean;
  /** Short or long, where a key told. */
  kind?: Mark["kind"];
}

export interface Bracket {
  from: number;
  to: number;
  text: string;
  kind: "code" | "fixed" | "other";
  /** How sure the code is, 0 to 1. */
  sure: number;
}

export interface StripScale {
  /** Width of the band in px, and how many px a second should have at most. */
  width: number;
  perSecond: number;
}

interface Item {
  t: number;
  ms: number;
  place: Assigned | null;
  mark: StripMark | null;
}

/** Marks of a second reading, laid over this one. */
export interface Second {
  marks: readonly Mark[];
  overlay: Overlay;
}

/** Up to this probability a mark is faint. */
const FAINT = 0.9;

/** Length drawn for a tap, which has none. */
const TAP_MS = 260;

/** Lays a reading out in lines for a given width. */
export function layStrip(
  marks: readonly Mark[],
  decoded: Decoded | null,
  scale: StripScale,
  second: Second | null = null,
): { lines: StripLine[]; pxPerMs: number } {
  const placeOf = new Map<number, Assigned | null>();
  decoded?.onsets.forEach((t, i) => placeOf.set(t, decoded.assignment[i]));
  const items: Item[] = marks.map((m) => {
    const ms = m.up !== undefined ? m.up - m.t : m.kind === "l" ? 2.5 * TAP_MS : TAP_MS;
    const place = placeOf.get(m.t) ?? null;
    const spurious = Boolean(decoded && !decoded.misfit && placeOf.has(m.t) && !place);
    return {
      t: m.t,
      ms,
      place,
      mark: { id: m.id, t: m.t, ms, place, spurious, faint: (m.p ?? 1) < FAINT, kind: m.kind },
    };
  });
  for (const ghost of decoded?.missed ?? []) items.push({ t: ghost.at, ms: ghost.ms, place: ghost, mark: null });
  items.sort((a, b) => a.t - b.t);

  // A showing must fit into a line, or the scale gives way.
  const spans = new Map<number, [number, number]>();
  for (const i of items) {
    if (!i.place) continue;
    const span = spans.get(i.place.showing);
    spans.set(i.place.showing, [Math.min(span?.[0] ?? i.t, i.t), Math.max(span?.[1] ?? 0, i.t + i.ms)]);
  }
  const longest = Math.max(1000, ...[...spans.values()].map(([a, b]) => b - a));
  const pxPerMs = Math.min(scale.perSecond / 1000, scale.width / (longest + 800));
  const lineMs = scale.width / pxPerMs - 600;

  const lines: StripLine[] = [];
  let line: StripLine | null = null;
  let pass: number | null = null;
  for (const [k, item] of items.entries()) {
    const before = items[k - 1];
    const showing = item.place?.showing;
    const starts = !before || showing === undefined || before.place?.showing !== showing;
    const end = showing !== undefined ? spans.get(showing)![1] : item.t + item.ms;
    const newPass = item.place !== null && pass !== null && item.place.pass !== pass;
    if (!line || newPass || (starts && end - line.from > lineMs) || item.t + item.ms - line.from > lineMs + 600) {
      line = {
        pass: item.place ? item.place.pass + 1 : null,
        from: item.t,
        to: item.t,
        marks: [],
        ghosts: [],
        brackets: [],
        second: [],
        begins: !before ? "watch" : newPass ? "round" : null,
      };
      lines.push(line);
    }
    if (item.place) {
      pass = item.place.pass;
      line.pass ??= pass + 1;
    }
    line.to = Math.max(line.to, item.t + item.ms);
    if (item.mark) line.marks.push(item.mark);
    else line.ghosts.push({ at: item.t, ms: item.ms });
    bracket(line, item, before, decoded);
  }
  if (second) laySecond(lines, second);
  return { lines, pxPerMs };
}

/** Opens or widens the bracket that an item belongs to; its text counts as it grows. */
function bracket(line: StripLine, item: Item, before: Item | undefined, decoded: Decoded | null): void {
  const { place } = item;
  if (!place || place.unit.kind === "steady" || place.unit.kind === "even") return;
  const { unit } = place;
  const last = line.brackets.at(-1);
  const same = before?.place?.showing === place.showing && before.place.digit === place.digit && last;
  if (same) last.to = item.t + item.ms;
  else {
    const code = unit.code ?? "";
    const text = unit.code === undefined ? "·" : place.counted ? code[place.digit] : code;
    line.brackets.push({
      from: item.t,
      to: item.t + item.ms,
      text,
      kind: unit.kind === "code" ? "code" : unit.kind === "fixed" ? "fixed" : "other",
      sure: unit.kind === "code" ? (decoded?.codeConfidence[code] ?? decoded?.confidence ?? 0) : 1,
    });
  }
}

function laySecond(lines: readonly StripLine[], { marks, overlay }: Second): void {
  const alone = new Set(overlay.onlySecond);
  for (const m of marks) {
    const at = m.t + overlay.offset;
    // In the line that it falls into, or the one before where it falls between two.
    const line = lines.findLast((l) => l.from - 300 <= at);
    if (!line || m.kind === "p") continue;
    const ms = m.up !== undefined ? m.up - m.t : TAP_MS;
    line.second.push({ at, ms, alone: alone.has(m.id) });
    if (at + ms > line.to && lines.at(-1) !== line) continue;
    line.to = Math.max(line.to, at + ms);
  }
}
