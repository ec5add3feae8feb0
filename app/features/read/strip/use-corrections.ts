import { useCallback, useState } from "react";
import type { Mark } from "@core/record/types";
import type { StripLine } from "./layout";
import type { StripProps } from "./props";

/** What a mark becomes that is taken for the other length; null where there is but one, or the key already says it. */
function turnOf(mark: Mark | undefined, lengths: StripProps["lengths"]): { to: "long" | "short"; ms: number } | null {
  if (!mark || !lengths || (mark.up === undefined && !mark.kind)) return null;
  const long = mark.kind ? mark.kind === "l" : mark.up! - mark.t > Math.sqrt(lengths.short * lengths.long);
  return long ? { to: "short", ms: Math.round(lengths.short) } : { to: "long", ms: Math.round(lengths.long) };
}

/** Which mark or place is picked, and all that can be done to it. */
export function useCorrections(
  { marks, period, lengths, onEdit, onSeek }: Pick<StripProps, "marks" | "period" | "lengths" | "onEdit" | "onSeek">,
  order: StripLine["marks"],
) {
  const [picked, setPicked] = useState<number | null>(null);
  const [spot, setSpot] = useState<number | null>(null);
  const current = order.find((m) => m.id === picked) ?? null;
  const original = marks.find((m) => m.id === picked);
  const pick = (i: number | undefined) => {
    setSpot(null);
    setPicked(i ?? null);
    const mark = order.find((m) => m.id === i);
    if (mark) onSeek?.(mark.t);
  };
  const step = (by: number) => {
    const i = order.findIndex((m) => m.id === picked);
    const next = i < 0 ? (by > 0 ? 0 : order.length - 1) : Math.min(order.length - 1, Math.max(0, i + by));
    pick(order[next]?.id);
  };
  const drop = () => {
    if (!current) return;
    const i = order.indexOf(current);
    onEdit({ kind: "remove", id: current.id });
    setPicked(order[i + 1]?.id ?? order[i - 1]?.id ?? null);
  };
  const add = (direction: 1 | -1) => {
    if (!original) return;
    const t = Math.max(0, original.t + direction * period);
    const length = original.up !== undefined ? original.up - original.t : undefined;
    onEdit({
      kind: "add",
      t,
      ...(length !== undefined ? { up: t + length } : {}),
      ...(original.kind ? { mark: original.kind } : {}),
    });
  };
  const addAt = (t: number) => {
    const like = marks[0];
    const length = like?.up === undefined ? undefined : period / 2;
    onEdit({
      kind: "add",
      t: Math.max(0, Math.round(t)),
      ...(length !== undefined ? { up: t + length } : {}),
      ...(like?.kind && like.kind !== "p" ? { mark: "s" } : {}),
    });
    setSpot(null);
  };
  const move = (by: number) => current && onEdit({ kind: "move", id: current.id, by });
  const stretch = (by: number) => current && onEdit({ kind: "stretch", id: current.id, by });
  const onPick = useCallback(
    (i: number | null, at: number) => {
      setPicked(i);
      setSpot(i === null && at >= 0 ? at : null);
      onSeek?.(at);
    },
    [onSeek],
  );
  const onDrag = useCallback((i: number, by: number) => onEdit({ kind: "move", id: i, by: Math.round(by) }), [onEdit]);
  return {
    picked,
    spot,
    current,
    timed: original?.up !== undefined,
    turns: turnOf(original, lengths),
    leave: () => setSpot(null),
    first: () => pick(order[0]?.id),
    last: () => pick(order.at(-1)?.id),
    ...{ pick, step, drop, add, addAt, move, stretch, onPick, onDrag },
  };
}

export type Corrections = ReturnType<typeof useCorrections>;
