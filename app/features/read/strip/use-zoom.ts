import { useEffect, useRef, useState, type RefObject } from "react";

const LEAST = 0.5;
const MOST = 8;
export const clampZoom = (z: number): number => Math.min(MOST, Math.max(LEAST, z));

/** Zoom of what scrolls in a frame: two fingers, the wheel with Ctrl, or set from outside; what lies under the fingers stays there. */
export function useZoom(frame: RefObject<HTMLElement | null>): { zoom: number; setZoom: (z: number) => void } {
  const [zoom, set] = useState(1);
  const now = useRef(1);
  const setZoom = (z: number, at?: number) => {
    const own = frame.current;
    const next = clampZoom(z);
    if (own) {
      const x = at ?? own.clientWidth / 2;
      const left = ((own.scrollLeft + x) / now.current) * next - x;
      requestAnimationFrame(() => (own.scrollLeft = left));
    }
    now.current = next;
    set(next);
  };
  const latest = useRef(setZoom);
  useEffect(() => {
    latest.current = setZoom;
  });
  useEffect(() => {
    const own = frame.current;
    if (!own) return;
    const fingers = new Map<number, number>();
    let begun: { apart: number; zoom: number } | null = null;
    const onWheel = (e: WheelEvent) => {
      if (!e.ctrlKey) return;
      e.preventDefault();
      latest.current(now.current * Math.exp(-e.deltaY / 400), e.clientX - own.getBoundingClientRect().left);
    };
    const apart = () => {
      const [a, b] = [...fingers.values()];
      return Math.abs(a - b);
    };
    const onDown = (e: PointerEvent) => {
      if (e.pointerType !== "touch") return;
      fingers.set(e.pointerId, e.clientX);
      begun = fingers.size === 2 ? { apart: Math.max(20, apart()), zoom: now.current } : null;
    };
    const onMove = (e: PointerEvent) => {
      if (!fingers.has(e.pointerId)) return;
      fingers.set(e.pointerId, e.clientX);
      if (begun) latest.current((begun.zoom * apart()) / begun.apart);
    };
    const onUp = (e: PointerEvent) => {
      fingers.delete(e.pointerId);
      begun = null;
    };
    own.addEventListener("wheel", onWheel, { passive: false });
    own.addEventListener("pointerdown", onDown);
    own.addEventListener("pointermove", onMove);
    for (const end of ["pointerup", "pointercancel"] as const) own.addEventListener(end, onUp);
    return () => {
      own.removeEventListener("wheel", onWheel);
      own.removeEventListener("pointerdown", onDown);
      own.removeEventListener("pointermove", onMove);
      for (const end of ["pointerup", "pointercancel"] as const) own.removeEventListener(end, onUp);
    };
  }, [frame]);
  return { zoom, setZoom };
}
