import { useDeferredValue, useEffect, useId, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { BandLine, PAD } from "./BandLine";
import { layStrip, type StripLine } from "./layout";
import type { StripProps } from "./props";
import { StripTools } from "./StripTools";
import { useCorrections, type Corrections } from "./use-corrections";
import { useAnchor, useZoom } from "./use-zoom";

const Frame = styled.div`
  display: grid;
  gap: 10px;
  min-width: 0;
  outline-offset: 4px;
  /* Two lines at least, whole. */
  max-height: max(252px, calc(100dvh - 540px));
  overflow: auto;
  scrollbar-width: thin;
  overscroll-behavior-x: contain;
`;

const Line = styled.div`
  display: grid;
  gap: 2px;
  content-visibility: auto;
  contain-intrinsic-height: auto 112px;
  > span {
    position: sticky;
    left: 0;
    justify-self: start;
    font-size: 0.85rem;
    color: var(--ink-soft);
  }
`;

const PER_SECOND = 30;
const NOTHING = { wide: 0, zoom: 1, lines: [] as StripLine[], pxPerMs: 0 };

const clock = (ms: number): string =>
  `${Math.floor(ms / 60_000)}:${String(Math.floor(ms / 1000) % 60).padStart(2, "0")}`;

/** What stands above a line: where watching began, where the list came round, which time it is. */
function heading(line: StripLine, before: StripLine | undefined): string {
  if (line.begins === "watch")
    return `Watching began${line.pass === null ? "" : ` · round ${line.pass}`} · ${clock(line.from)}`;
  if (line.begins === "round") return `The list came round here · round ${line.pass} · ${clock(line.from)}`;
  return line.pass !== null && line.pass !== before?.pass
    ? `Round ${line.pass} · ${clock(line.from)}`
    : clock(line.from);
}

type Does = Record<string, () => void>;
type Pan = (x: number, y: number) => void;

/** What each key does with a strip that has the focus. */
function keysOf(at: Corrections, e: React.KeyboardEvent, pan: Pan, zoom: number, setZoom: (z: number) => void): Does {
  const sideways = (by: 1 | -1) => (e.altKey ? at.move(50 * by) : e.shiftKey ? pan(120 * by, 0) : at.step(by));
  return {
    ArrowRight: () => void sideways(1),
    ArrowLeft: () => void sideways(-1),
    ArrowDown: () => pan(0, 112),
    ArrowUp: () => pan(0, -112),
    Home: at.first,
    End: at.last,
    Delete: at.drop,
    Backspace: at.drop,
    Insert: () => at.add(1),
    "+": () => (at.current ? at.add(1) : setZoom(zoom * 1.5)),
    "]": () => setZoom(zoom * 1.5),
    "[": () => setZoom(zoom / 1.5),
    "0": () => setZoom(1),
    Escape: () => at.pick(undefined),
  };
}

/** The lamp strip: what was seen, to true time, gathered into digits and codes; each mark can be corrected. */
export function Strip({
  marks,
  decoded,
  period,
  lengths,
  follow,
  onEdit,
  playhead = null,
  onSeek,
  second = null,
}: StripProps) {
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(600);
  const { zoom, setZoom, anchor } = useZoom(frame);
  const id = useId();
  useEffect(() => {
    const watch = new ResizeObserver(([e]) => setWidth(Math.max(240, e.contentRect.width)));
    if (frame.current) watch.observe(frame.current);
    return () => watch.disconnect();
  }, []);
  const laid = useMemo(() => {
    const wide = width * Math.max(1, zoom);
    return { wide, zoom, ...layStrip(marks, decoded, { width: wide - 2 * PAD, perSecond: PER_SECOND * zoom }, second) };
  }, [marks, decoded, width, zoom, second]);
  // Ten minutes are some thousand parts of drawings: they are drawn line by line, and give way to whatever the person does next.
  const { lines, pxPerMs, wide, zoom: drawnAt } = useDeferredValue(laid, NOTHING);
  useAnchor(frame, anchor, drawnAt);
  useEffect(() => {
    if (follow) frame.current?.scrollTo({ top: frame.current.scrollHeight });
  }, [follow, lines]);
  const order = useMemo(() => lines.flatMap((l) => l.marks), [lines]);
  const at = useCorrections({ marks, period, lengths, onEdit, onSeek }, order);
  const { picked, spot, current } = at;
  /** The line into which a time falls. */
  const lineAt = (t: number) =>
    Math.max(
      0,
      lines.findLastIndex((l) => l.from <= t + 400),
    );
  const playLine = playhead === null ? -1 : lineAt(playhead);
  useEffect(() => {
    if (playLine < 0) return;
    const own = frame.current;
    const line = own?.children[playLine] as HTMLElement | undefined;
    if (!own || !line) return;
    const [top, bottom] = [line.offsetTop - own.offsetTop, line.offsetTop - own.offsetTop + line.offsetHeight];
    if (top < own.scrollTop || bottom > own.scrollTop + own.clientHeight) own.scrollTo({ top: top - 8 });
  }, [playLine]);

  const onKeyDown = (e: React.KeyboardEvent) => {
    const pan = (x: number, y: number) => frame.current?.scrollBy({ left: x, top: y });
    const does = keysOf(at, e, pan, zoom, setZoom);
    if (e.ctrlKey || e.metaKey || !Object.hasOwn(does, e.key)) return;
    e.preventDefault();
    e.stopPropagation();
    does[e.key]();
  };
  return (
    <>
      <Frame
        ref={frame}
        role="listbox"
        aria-label="Lamp strip: marks as they were seen. Arrow keys pick one, Delete removes it, plus adds one after it; brackets zoom."
        tabIndex={0}
        aria-activedescendant={current ? `${id}-${current.id}` : undefined}
        onKeyDown={onKeyDown}
      >
        {lines.map((line, i) => (
          <Line key={i} role="presentation" style={{ width: wide }}>
            <span aria-hidden>{heading(line, lines[i - 1])}</span>
            <BandLine
              line={line}
              id={id}
              width={wide}
              pxPerMs={pxPerMs}
              picked={line.marks.some((m) => m.id === picked) ? picked : null}
              spot={spot !== null && lineAt(spot) === i ? spot : null}
              playhead={playLine === i ? playhead : null}
              onPick={at.onPick}
              onDrag={at.onDrag}
            />
          </Line>
        ))}
      </Frame>
      <StripTools at={at} quiet={follow || order.length === 0} zoom={zoom} setZoom={setZoom} onEdit={onEdit} />
    </>
  );
}
