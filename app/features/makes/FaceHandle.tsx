import { useRef } from "react";
import styled from "styled-components";
import type { Point } from "@core/pack/make/face";
import { mono } from "~/ui/theme";

/** Width of what answers to a touch, and half of that of what is seen, px. */
const ROOM = 48;
const SEEN = 15;
/** A finger that is put down shakes so much, px. */
const SHAKES = 4;

const Handle = styled.button`
  position: absolute;
  display: grid;
  place-items: center;
  width: ${ROOM}px;
  height: ${ROOM}px;
  margin: ${-ROOM / 2}px 0 0 ${-ROOM / 2}px;
  padding: 0;
  border: 0;
  background: transparent;
  cursor: grab;
  touch-action: none;
  > span {
    ${mono}
    display: grid;
    place-items: center;
    min-width: 16px;
    height: 16px;
    border: 3px solid var(--petrol);
    border-radius: 50%;
    background: var(--sheet);
    pointer-events: none;
  }
  &[data-named] > span {
    min-width: 34px;
    height: 34px;
    padding: 0 4px;
    border-radius: 8px;
    border-width: 2px;
    font-weight: 700;
  }
  &:disabled {
    pointer-events: none;
    > span {
      opacity: 0.55;
    }
  }
  &:focus-visible {
    outline: none;
    > span {
      outline: 3px solid var(--petrol);
      outline-offset: 3px;
    }
  }
`;

/** A press of an arrow, as a share of the sheet. */
const STEP = 0.005;
const within = (x: number): number => Math.min(1, Math.max(0, x));

/** A point of a drawing that is moved by dragging, or by keys. */
export function FaceHandle({
  label,
  text,
  at,
  quiet,
  onMove,
  onRemove,
  onTouch,
}: {
  label: string;
  text?: string;
  at: Point;
  /** It is seen, and is not what is touched at the moment. */
  quiet: boolean;
  onMove: (to: Point) => void;
  onRemove: () => void;
  /** The room around it was touched, which is larger than what is seen: another one may be meant. */
  onTouch: (at: Point) => void;
}) {
  /** Where it was taken hold of, px from its middle; null while nobody does. */
  const held = useRef<{ x: number; y: number; moved: boolean } | null>(null);
  /** Where the pointer is, in shares of the sheet. @param off px */
  const on = (e: React.PointerEvent<HTMLElement>, off: { x: number; y: number }): Point => {
    const box = e.currentTarget.parentElement!.getBoundingClientRect();
    return [within((e.clientX - off.x - box.left) / box.width), within((e.clientY - off.y - box.top) / box.height)];
  };
  return (
    <Handle
      type="button"
      aria-label={`${label}: arrows move it, Delete takes it out`}
      data-named={text ? true : undefined}
      disabled={quiet}
      style={{ left: `${at[0] * 100}%`, top: `${at[1] * 100}%` }}
      onPointerDown={(e) => {
        const { left, top } = e.currentTarget.getBoundingClientRect();
        held.current = { x: e.clientX - left - ROOM / 2, y: e.clientY - top - ROOM / 2, moved: false };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        if (!held.current) return;
        const to = on(e, held.current);
        const { width, height } = e.currentTarget.parentElement!.getBoundingClientRect();
        held.current.moved ||= Math.hypot((to[0] - at[0]) * width, (to[1] - at[1]) * height) > SHAKES;
        if (held.current.moved) onMove(to);
      }}
      onPointerUp={(e) => {
        const was = held.current;
        held.current = null;
        if (was && !was.moved && Math.hypot(was.x, was.y) > SEEN) onTouch(on(e, { x: 0, y: 0 }));
      }}
      onPointerCancel={() => (held.current = null)}
      onKeyDown={(e) => {
        const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
        const far = STEP * (e.shiftKey ? 6 : 1);
        if (by) onMove([within(at[0] + far * by[0]), within(at[1] + far * by[1])]);
        else if (e.key === "Delete" || e.key === "Backspace") {
          // The keys stay on the sheet.
          const { previousElementSibling: before, nextElementSibling: after } = e.currentTarget;
          for (const beside of [after, before]) if (beside instanceof HTMLButtonElement) beside.focus();
          onRemove();
        } else return;
        e.preventDefault();
      }}
    >
      <span>{text}</span>
    </Handle>
  );
}
