import { memo, useEffect, useId, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import type { Decoded } from "@core/flash/decode";
import type { MarkEdit } from "@core/record/edit";
import type { Mark } from "@core/record/types";
import { Button } from "~/ui/Button";
import { Kbd, Row, Soft } from "~/ui/bits";
import { mono } from "~/ui/theme";
import { layStrip, type StripLine, type StripMark } from "./strip-layout";

const Frame = styled.div`
  display: grid;
  gap: 10px;
  min-width: 0;
  outline-offset: 4px;
  max-height: max(200px, calc(100dvh - 540px));
  overflow-y: auto;
  scrollbar-width: thin;
`;

const Line = styled.div`
  display: grid;
  gap: 2px;
  > span {
    font-size: 0.85rem;
    color: var(--ink-soft);
  }
`;

const Svg = styled.svg`
  display: block;
  width: 100%;
  cursor: pointer;
  touch-action: pan-y;
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
const PAD = 14;

function describe(m: StripMark): string {
  const at = `${(m.t / 1000).toFixed(1)} s`;
  if (!m.place) return m.spurious ? `Flash at ${at}, taken for a slip` : `Flash at ${at}`;
  const { unit, flash, digit, pass } = m.place;
  const of =
    unit.kind === "code"
      ? `code ${unit.code}`
      : unit.kind === "fixed"
        ? `${unit.code}, ${unit.means === "mode" ? "lead-in" : "mark"}`
        : unit.kind;
  return `Flash ${flash + 1} of digit ${digit + 1}, ${of}, round ${pass + 1}, at ${at}`;
}

/** The lamp strip: what was seen, to true time, gathered into digits and codes; each mark can be corrected. */
export function Strip({
  marks,
  decoded,
  period,
  follow,
  onEdit,
}: {
  marks: readonly Mark[];
  decoded: Decoded | null;
  /** Onset to onset of two flashes of a digit, ms, for adding one. */
  period: number;
  /** Keeps the newest marks in view. */
  follow: boolean;
  onEdit: (edit: MarkEdit) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(600);
  const [picked, setPicked] = useState<number | null>(null);
  const id = useId();
  useEffect(() => {
    const watch = new ResizeObserver(([e]) => setWidth(Math.max(240, e.contentRect.width)));
    if (frame.current) watch.observe(frame.current);
    return () => watch.disconnect();
  }, []);
  const { lines, pxPerMs } = useMemo(
    () => layStrip(marks, decoded, { width: width - 2 * PAD, perSecond: 30 }),
    [marks, decoded, width],
  );
  useEffect(() => {
    if (follow) frame.current?.scrollTo({ top: frame.current.scrollHeight });
  }, [follow, lines]);
  const order = useMemo(() => lines.flatMap((l) => l.marks), [lines]);
  const current = order.find((m) => m.id === picked) ?? null;
  const original = marks.find((m) => m.id === picked);

  const step = (by: number) => {
    const i = order.findIndex((m) => m.id === picked);
    const next = i < 0 ? (by > 0 ? 0 : order.length - 1) : Math.min(order.length - 1, Math.max(0, i + by));
    setPicked(order[next]?.id ?? null);
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
  const move = (by: number) => current && onEdit({ kind: "move", id: current.id, by });
  const onKeyDown = (e: React.KeyboardEvent) => {
    const does: Record<string, () => void> = {
      ArrowRight: () => (e.altKey ? move(50) : step(1)),
      ArrowLeft: () => (e.altKey ? move(-50) : step(-1)),
      Home: () => setPicked(order[0]?.id ?? null),
      End: () => setPicked(order.at(-1)?.id ?? null),
      Delete: drop,
      Backspace: drop,
      Insert: () => add(1),
      "+": () => add(1),
      Escape: () => setPicked(null),
    };
    if (!Object.hasOwn(does, e.key)) return;
    e.preventDefault();
    e.stopPropagation();
    does[e.key]();
  };
  return (
    <>
      <Frame
        ref={frame}
        role="listbox"
        aria-label="Lamp strip: marks as they were seen. Arrow keys pick one, Delete removes it, plus adds one after it."
        tabIndex={0}
        aria-activedescendant={current ? `${id}-${current.id}` : undefined}
        onKeyDown={onKeyDown}
      >
        {lines.map((line, i) => (
          <Line key={i} role="presentation">
            {line.pass !== null && line.pass !== lines[i - 1]?.pass && <span aria-hidden>Round {line.pass}</span>}
            <BandLine
              line={line}
              id={id}
              width={width}
              pxPerMs={pxPerMs}
              picked={line.marks.some((m) => m.id === picked) ? picked : null}
              onPick={setPicked}
            />
          </Line>
        ))}
      </Frame>
      {current ? (
        <Row role="toolbar" aria-label="Correct this mark" $gap={6}>
          <Soft style={{ flexBasis: "100%" }}>{describe(current)}</Soft>
          <Button onPress={() => step(-1)} aria-label="Mark before">
            ‹
          </Button>
          <Button onPress={() => step(1)} aria-label="Mark after">
            ›
          </Button>
          <Button onPress={drop}>
            Remove <Kbd>Del</Kbd>
          </Button>
          <Button onPress={() => add(-1)}>Add before</Button>
          <Button onPress={() => add(1)}>
            Add after <Kbd>+</Kbd>
          </Button>
          <Button onPress={() => move(-50)}>Earlier</Button>
          <Button onPress={() => move(50)}>Later</Button>
          {original?.kind && (
            <Button onPress={() => onEdit({ kind: "turn", id: current.id })}>
              {original.kind === "s" ? "Make it long" : "Make it short"}
            </Button>
          )}
        </Row>
      ) : (
        !follow && order.length > 0 && <Soft>Touch a mark to correct it.</Soft>
      )}
    </>
  );
}

interface BandProps {
  line: StripLine;
  id: string;
  width: number;
  pxPerMs: number;
  /** The picked mark, where it is in this line. */
  picked: number | null;
  onPick: (id: number | null) => void;
}

/** One dark band with its marks and, below it, their brackets. Drawn again only when something in it changed. */
const BandLine = memo(function BandLine({ line, id, width, pxPerMs, picked, onPick }: BandProps) {
  const x = (t: number) => PAD + (t - line.from) * pxPerMs;
  const pick = (e: React.PointerEvent<SVGSVGElement>) => {
    const at = e.clientX - e.currentTarget.getBoundingClientRect().left;
    const near = line.marks.map((m) => ({ m, d: Math.abs(x(m.t + m.ms / 2) - at) })).sort((a, b) => a.d - b.d)[0];
    onPick(near && near.d < 30 ? near.m.id : null);
  };
  return (
    <Svg role="presentation" height={BAND + 34} onPointerDown={pick}>
      <rect width="100%" height={BAND} rx="8" fill="var(--band)" />
      <path d={ticks(width, pxPerMs)} stroke="var(--band-line)" strokeWidth="1.5" />
      {line.ghosts.map((g, k) => (
        <rect
          key={k}
          x={x(g.at)}
          y={MARK_TOP}
          width={Math.max(5, g.ms * pxPerMs)}
          height={MARK_H}
          rx="3"
          fill="none"
          stroke="var(--lit)"
          strokeDasharray="3 3"
        />
      ))}
      {line.marks.map((m) => {
        const w = Math.max(5, m.ms * pxPerMs);
        return (
          <g key={m.id} id={`${id}-${m.id}`} role="option" aria-selected={m.id === picked} aria-label={describe(m)}>
            {m.spurious ? (
              <path
                d={`M ${x(m.t)} ${MARK_TOP} l ${w} ${MARK_H} m 0 ${-MARK_H} l ${-w} ${MARK_H}`}
                stroke="var(--lit)"
                strokeWidth="2"
              />
            ) : (
              <rect x={x(m.t)} y={MARK_TOP} width={w} height={MARK_H} rx="3" fill="var(--lit)" />
            )}
            {m.id === picked && (
              <rect
                x={x(m.t) - 5}
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
      })}
      {line.brackets.map((b, k) => {
        const x0 = x(b.from);
        const x1 = Math.max(x0 + 6, x(b.to));
        return (
          <g key={k} aria-hidden>
            <path
              d={`M ${x0} ${BAND + 4} v 5 H ${x1} v -5`}
              fill="none"
              stroke={b.kind === "code" ? "var(--ink)" : "var(--ink-soft)"}
              strokeWidth="2"
            />
            <text className={b.kind} x={(x0 + x1) / 2} y={BAND + 29}>
              {b.text}
            </text>
          </g>
        );
      })}
    </Svg>
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
    JSON.stringify(a.line) === JSON.stringify(b.line)
  );
}
