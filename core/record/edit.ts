import type { Mark } from "./types";

/** Corrections of marks. Each returns a new list, in order of time. */
export type MarkEdit =
  | { kind: "add"; t: number; up?: number; mark?: Mark["kind"] }
  | { kind: "remove"; id: number }
  | { kind: "move"; id: number; by: number }
  | { kind: "turn"; id: number };

const SHORTEST = 60;

export function editMarks(marks: readonly Mark[], edit: MarkEdit): Mark[] {
  if (edit.kind === "add") {
    const id = Math.max(0, ...marks.map((m) => m.id)) + 1;
    const mark: Mark = { id, t: Math.max(0, edit.t) };
    if (edit.up !== undefined) mark.up = Math.max(mark.t + SHORTEST, edit.up);
    if (edit.mark) mark.kind = edit.mark;
    return inOrder([...marks, mark]);
  }
  if (edit.kind === "remove") return marks.filter((m) => m.id !== edit.id);
  return inOrder(
    marks.map((m) => {
      if (m.id !== edit.id) return m;
      if (edit.kind === "turn") return m.kind ? { ...m, kind: m.kind === "s" ? "l" : "s" } : m;
      const by = Math.max(-m.t, edit.by);
      return { ...m, t: m.t + by, ...(m.up !== undefined ? { up: m.up + by } : {}) };
    }),
  );
}

function inOrder(marks: Mark[]): Mark[] {
  return marks.sort((a, b) => a.t - b.t);
}
