import type { Mark } from "./types";

/** Corrections of marks. Each returns a new list, in order of time. */
export type MarkEdit =
  | { kind: "add"; t: number; up?: number; mark?: Mark["kind"] }
  | { kind: "remove"; id: number }
  | { kind: "move"; id: number; by: number }
  /** Moves its end. */
  | { kind: "stretch"; id: number; by: number }
  /** Short becomes long and the other way; a mark whose length was seen takes that of `ms`. */
  | { kind: "turn"; id: number; ms?: number };

const SHORTEST = 60;

/** A number that no mark has yet. */
export const nextId = (marks: readonly Mark[]): number => marks.reduce((most, m) => Math.max(most, m.id), 0) + 1;

export function editMarks(marks: readonly Mark[], edit: MarkEdit): Mark[] {
  if (edit.kind === "add") {
    const id = nextId(marks);
    const mark: Mark = { id, t: Math.max(0, edit.t) };
    if (edit.up !== undefined) mark.up = Math.max(mark.t + SHORTEST, edit.up);
    if (edit.mark) mark.kind = edit.mark;
    return inOrder([...marks, mark]);
  }
  if (edit.kind === "remove") return marks.filter((m) => m.id !== edit.id);
  return inOrder(
    marks.map((m) => {
      if (m.id !== edit.id) return m;
      if (edit.kind === "turn") {
        const kind = m.kind === "s" ? "l" : m.kind === "l" ? "s" : m.kind;
        return {
          ...m,
          ...(kind && { kind }),
          ...(m.up !== undefined && edit.ms && { up: ending(marks, m, m.t + edit.ms) }),
        };
      }
      if (edit.kind === "stretch") return m.up === undefined ? m : { ...m, up: ending(marks, m, m.up + edit.by) };
      const by = Math.max(-m.t, edit.by);
      return { ...m, t: m.t + by, ...(m.up !== undefined ? { up: m.up + by } : {}) };
    }),
  );
}

/** An end for a mark: not before it has begun, nor after the next one has. */
function ending(marks: readonly Mark[], { t }: Mark, up: number): number {
  const next = marks.find((m) => m.t > t)?.t ?? Infinity;
  return Math.max(t + SHORTEST, Math.min(up, next - SHORTEST));
}

function inOrder(marks: Mark[]): Mark[] {
  return marks.sort((a, b) => a.t - b.t);
}
