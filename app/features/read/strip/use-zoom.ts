import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from "react";

const LEAST = 0.5;
const MOST = 8;
const clampZoom = (z: number): number => Math.min(MOST, Math.max(LEAST, z));

/** What is to stay where while the zoom changes. */
interface Anchor {
  /** Zoom at which the frame is drawn: it may come after the one that was asked for. */
  drawnAt: number;
  /** A place in the drawing, at zoom 1, and px from the frame's left edge. */
  held: { place: number; x: number } | null;
}

/** Zoom of what scrolls in a frame: two fingers, the wheel with Ctrl, or set from outside; what lies under the fingers stays there. */
export function useZoom(frame: RefObject<HTMLElement | null>): {
  zoom: number;
  setZoom: (z: number) => void;
  anchor: RefObject<Anchor>;
} {
  const [zoom, set] = useState(1);
  const now = useRef(1);
  const anchor = useRef<Anchor>({ drawnAt: 1, held: null });
  const setZoom = (z: number, at?: number) => {
    const own = frame.current;
    const next = clampZoom(z);
    if (own) {
      const x = at ?? own.clientWidth / 2;
      anchor.current.held = { place: (own.scrollLeft + x) / anchor.current.drawnAt, x };
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
  return { zoom, setZoom, anchor };
}

/** Holds the anchor in its place once the frame is drawn at another zoom. */
export function useAnchor(frame: RefObject<HTMLElement | null>, anchorRef: RefObject<Anchor>, drawnAt: number): void {
  useLayoutEffect(() => {
    const { held } = anchorRef.current;
    if (held) frame.current?.scrollTo({ left: held.place * drawnAt - held.x });
    anchorRef.current = { drawnAt, held };
  }, [frame, anchorRef, drawnAt]);
}
