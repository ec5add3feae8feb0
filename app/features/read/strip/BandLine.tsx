import { memo, useRef } from "react";
import styled from "styled-components";
import { mono } from "~/ui/theme";
import type { StripLine, StripMark } from "./layout";

const Band = styled.div`
  position: relative;
  touch-action: pan-x pan-y;
`;

/** A finger on the picked mark takes it along; elsewhere it scrolls. Parts of a drawing cannot say so. */
const Handle = styled.div`
  position: absolute;
  top: 0;
  touch-action: none;
  cursor: grab;
`;

const Svg = styled.svg`
  display: block;
  cursor: pointer;
  text {
    ${mono}
    font-weight: 700;
    font-size: 20px;
    text-anchor: middle;
    fill: var(--ink);
  }
  text.fixed {
    fill: var(--ink-soft);
    font-weight: 400;
  }
`;

const BAND = 54;
const MARK_TOP = 12;
const MARK_H = 28;
export const PAD = 14;
/** A second reading lies under the marks, thinner. */
const SECOND_TOP = 43;
const SECOND_H = 6;
/** A finger that moves less than this has not dragged, px; and reaches this far for a mark. */
const STILL = 7;
const REACH = 30;

export function describe(m: StripMark): string {
  const at = `${(m.t / 1000).toFixed(1)} s`;
  const faint = m.faint ? ", hardly seen" : "";
  const name = m.kind === "l" ? "Long flash" : m.kind === "s" ? "Short flash" : "Flash";
  if (!m.place) return m.spurious ? `${name} at ${at}, taken for a slip` : `${name} at ${at}${faint}`;
  const { unit, flash, digit, pass } = m.place;
  const of =
    unit.kind === "code"
      ? `code ${unit.code}`
      : unit.kind === "fixed"
        ? `${unit.code}, ${unit.means === "mode" ? "lead-in" : "mark"}`
        : unit.kind;
  return `${name} ${flash + 1} of digit ${digit + 1}, ${of}, round ${pass + 1}, at ${at}${faint}`;
}

interface BandProps {
  line: StripLine;
  id: string;
  width: number;
  pxPerMs: number;
  /** The picked mark, where it is in this line. */
  picked: number | null;
  /** Where a flash could be added, or the film stands, ms, where it is in this line. */
  spot: number | null;
  playhead: number | null;
  onPick: (id: number | null, at: number) => void;
  onDrag: (id: number, by: number) => void;
}

/** One dark band with its marks and, below it, their brackets. Drawn again only when something in it changed. */
export const BandLine = memo(function BandLine({
  line,
  id,
  width,
  pxPerMs,
  picked,
  spot,
  playhead,
  onPick,
  onDrag,
}: BandProps) {
  const x = (t: number) => PAD + (t - line.from) * pxPerMs;
  /** Where a flash stands in the drawing; the shortest can still be seen. */
  const span = (t: number, ms: number) => ({ x: x(t), width: Math.max(5, ms * pxPerMs) });
  // Before the first mark there is no room: the film then stands at the line's beginning.
  const head = playhead === null ? null : Math.max(8, x(playhead));
  const own = line.marks.find((m) => m.id === picked);
  const touch = useTouch({ line, pxPerMs, own, x, onPick, onDrag });
  return (
    <Band role="presentation" {...touch}>
      <Svg role="presentation" width={width} height={BAND + 34}>
        <rect width="100%" height={BAND} rx="8" fill="var(--band)" />
        <path d={ticks(width, pxPerMs)} stroke="var(--band-line)" strokeWidth="1.5" />
        {line.begins === "round" && (
          <path d={`M 3 6 v ${BAND - 12}`} stroke="#fff" strokeWidth="2" strokeDasharray="4 4" aria-hidden />
        )}
        {line.ghosts.map((g, k) => (
          <rect
            key={k}
            {...span(g.at, g.ms)}
            y={MARK_TOP}
            height={MARK_H}
            rx="3"
            fill="none"
            stroke="var(--lit)"
            strokeDasharray="3 3"
          />
        ))}
        {line.second.map((s, k) => (
          <rect
            key={k}
            {...span(s.at, s.ms)}
            y={SECOND_TOP}
            height={SECOND_H}
            rx="2"
            fill={s.alone ? "none" : "#9fb4bc"}
            stroke={s.alone ? "#fff" : "none"}
            strokeWidth="2"
            aria-hidden
          />
        ))}
        {line.marks.map((m) => (
          <OneMark
            key={m.id}
            mark={m}
            id={`${id}-${m.id}`}
            at={span(m.t, m.ms)}
            left={x(m.t)}
            picked={m.id === picked}
          />
        ))}
        {spot !== null && (
          <path d={`M ${x(spot)} 2 v ${BAND - 4}`} stroke="#fff" strokeWidth="2" strokeDasharray="2 3" aria-hidden />
        )}
        {head !== null && (
          <path
            className="playhead"
            d={`M ${head - 6} 0 h 12 l -6 8 z M ${head} 4 v ${BAND - 4}`}
            fill="#fff"
            stroke="#fff"
            strokeWidth="2"
            aria-hidden
          />
        )}
        <Brackets line={line} x={x} />
      </Svg>
      {own && (
        <Handle style={{ left: x(own.t) - REACH / 2, width: own.ms * pxPerMs + REACH, height: BAND }} aria-hidden />
      )}
    </Band>
  );
}, sameBand);

/** A tick a second along the lower edge. */
function ticks(width: number, pxPerMs: number): string {
  const seconds = Math.max(0, Math.floor((width - 2 * PAD) / pxPerMs / 1000));
  return Array.from(
    { length: seconds + 1 },
    (_, s) => `M ${(PAD + s * 1000 * pxPerMs).toFixed(1)} ${BAND - 6} v 6`,
  ).join(" ");
}

function sameBand(a: BandProps, b: BandProps): boolean {
  return (
    a.id === b.id &&
    a.width === b.width &&
    a.pxPerMs === b.pxPerMs &&
    a.picked === b.picked &&
    a.spot === b.spot &&
    a.playhead === b.playhead &&
    (a.line === b.line || JSON.stringify(a.line) === JSON.stringify(b.line))
  );
}

type Place = (t: number) => number;
type BandMark = StripLine["marks"][number];

/** A finger on the band: it picks what it comes down on, and takes along what was picked before. */
function useTouch({
  line,
  pxPerMs,
  own,
  x,
  onPick,
  onDrag,
}: Pick<BandProps, "line" | "pxPerMs" | "onPick" | "onDrag"> & { own: BandMark | undefined; x: Place }) {
  /** Where a finger came down, and the mark that it takes along. */
  const pressed = useRef<{ from: number; id: number | null } | null>(null);
  const at = (e: React.PointerEvent<HTMLDivElement>) => e.clientX - e.currentTarget.getBoundingClientRect().left;
  const near = (px: number) => {
    const by = line.marks
      .map((m) => ({ m, d: Math.max(0, x(m.t) - px, px - x(m.t + m.ms)) }))
      .sort((a, b) => a.d - b.d)[0];
    return by && by.d < REACH / 2 ? by.m : null;
  };
  const onPointerDown = (e: React.PointerEvent<HTMLDivElement>) => {
    const px = at(e);
    pressed.current = null;
    // A second finger zooms.
    if (!e.isPrimary) return;
    // A picked mark is taken along; any other is picked first, so that scrolling moves none.
    const along = own && near(px) === own;
    pressed.current = { from: px, id: along ? own.id : null };
    if (along) e.currentTarget.setPointerCapture(e.pointerId);
  };
  const onPointerUp = (e: React.PointerEvent<HTMLDivElement>) => {
    const px = at(e);
    const began = pressed.current;
    pressed.current = null;
    if (!began) return;
    const by = px - began.from;
    if (Math.abs(by) > STILL) return began.id === null ? undefined : onDrag(began.id, by / pxPerMs);
    onPick(near(px)?.id ?? null, line.from + (px - PAD) / pxPerMs);
  };
  return { onPointerDown, onPointerUp };
}

/** A mark on the band: a flash, a faint one, or one that does not belong. */
function OneMark({
  mark: m,
  id,
  at,
  left,
  picked,
}: {
  mark: BandMark;
  id: string;
  at: { x: number; width: number };
  left: number;
  picked: boolean;
}) {
  const w = at.width;
  return (
    <g id={id} role="option" aria-selected={picked} aria-label={describe(m)}>
      {m.spurious ? (
        <path
          d={`M ${left} ${MARK_TOP} l ${w} ${MARK_H} m 0 ${-MARK_H} l ${-w} ${MARK_H}`}
          stroke="var(--lit)"
          strokeWidth="2"
        />
      ) : (
        <rect
          {...at}
          y={MARK_TOP}
          height={MARK_H}
          rx="3"
          fill="var(--lit)"
          fillOpacity={m.faint ? 0.4 : 1}
          stroke={m.faint ? "var(--lit)" : "none"}
          strokeDasharray="2 2"
        />
      )}
      {picked && (
        <rect
          x={left - 5}
          y={MARK_TOP - 6}
          width={w + 10}
          height={MARK_H + 12}
          rx="5"
          fill="none"
          stroke="#fff"
          strokeWidth="2.5"
        />
      )}
    </g>
  );
}

/** What the marks of a line say, below them. */
function Brackets({ line, x }: { line: StripLine; x: Place }) {
  return (
    <>
      {line.brackets.map((b, k) => {
        const x0 = x(b.from);
        const x1 = Math.max(x0 + 6, x(b.to));
        const unsure = b.sure < 0.9;
        return (
          <g key={k} aria-hidden>
            <path
              d={`M ${x0} ${BAND + 4} v 5 H ${x1} v -5`}
              fill="none"
              stroke={b.kind === "code" ? "var(--ink)" : "var(--ink-soft)"}
              strokeWidth="2"
              strokeDasharray={unsure ? "4 3" : undefined}
            />
            <text className={b.kind} x={(x0 + x1) / 2} y={BAND + 29}>
              {unsure ? `${b.text}?` : b.text}
            </text>
          </g>
        );
      })}
    </>
  );
}
