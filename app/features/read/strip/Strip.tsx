import { ZoomIn, ZoomOut } from "lucide-react";
import { useCallback, useDeferredValue, useEffect, useId, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import type { Decoded } from "@core/flash/decode";
import type { MarkEdit } from "@core/record/edit";
import type { Mark } from "@core/record/types";
import { Button } from "~/ui/Button";
import { Kbd, Row, Soft } from "~/ui/bits";
import { BandLine, describe, PAD } from "./BandLine";
import { layStrip, type Second, type StripLine } from "./layout";
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

/** What a mark becomes that is taken for the other length; null where there is but one, or the key already says it. */
function turnOf(mark: Mark | undefined, lengths: StripProps["lengths"]): { to: "long" | "short"; ms: number } | null {
  if (!mark || !lengths || (mark.up === undefined && !mark.kind)) return null;
  const long = mark.kind ? mark.kind === "l" : mark.up! - mark.t > Math.sqrt(lengths.short * lengths.long);
  return long ? { to: "short", ms: Math.round(lengths.short) } : { to: "long", ms: Math.round(lengths.long) };
}

export interface StripProps {
  marks: readonly Mark[];
  decoded: Decoded | null;
  /** Onset to onset of two flashes of a digit, ms, for adding one. */
  period: number;
  /** How long a short and a long flash last, ms, where there are both. */
  lengths: { short: number; long: number } | null;
  /** Keeps the newest marks in view. */
  follow: boolean;
  onEdit: (edit: MarkEdit) => void;
  /** Where a film stands, ms; touching the band goes there. */
  playhead?: number | null;
  onSeek?: (ms: number) => void;
  second?: Second | null;
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
  const [picked, setPicked] = useState<number | null>(null);
  const [spot, setSpot] = useState<number | null>(null);
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
  const current = order.find((m) => m.id === picked) ?? null;
  const original = marks.find((m) => m.id === picked);
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
    onEdit({ kind: "add", t: Math.max(0, Math.round(t)), ...(length !== undefined ? { up: t + length } : {}), ...(like?.kind && like.kind !== "p" ? { mark: "s" } : {}) }); // prettier-ignore
    setSpot(null);
  };
  const move = (by: number) => current && onEdit({ kind: "move", id: current.id, by });
  const stretch = (by: number) => current && onEdit({ kind: "stretch", id: current.id, by });
  const timed = original?.up !== undefined;
  const turns = turnOf(original, lengths);
  const onPick = useCallback(
    (i: number | null, at: number) => {
      setPicked(i);
      setSpot(i === null && at >= 0 ? at : null);
      onSeek?.(at);
    },
    [onSeek],
  );
  const onDrag = useCallback((i: number, by: number) => onEdit({ kind: "move", id: i, by: Math.round(by) }), [onEdit]);
  const onKeyDown = (e: React.KeyboardEvent) => {
    const pan = (x: number, y: number) => frame.current?.scrollBy({ left: x, top: y });
    const does: Record<string, () => void> = {
      ArrowRight: () => (e.altKey ? move(50) : e.shiftKey ? pan(120, 0) : step(1)),
      ArrowLeft: () => (e.altKey ? move(-50) : e.shiftKey ? pan(-120, 0) : step(-1)),
      ArrowDown: () => pan(0, 112),
      ArrowUp: () => pan(0, -112),
      Home: () => pick(order[0]?.id),
      End: () => pick(order.at(-1)?.id),
      Delete: drop,
      Backspace: drop,
      Insert: () => add(1),
      "+": () => (current ? add(1) : setZoom(zoom * 1.5)),
      "]": () => setZoom(zoom * 1.5),
      "[": () => setZoom(zoom / 1.5),
      "0": () => setZoom(1),
      Escape: () => pick(undefined),
    };
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
              onPick={onPick}
              onDrag={onDrag}
            />
          </Line>
        ))}
      </Frame>
      {current ? (
        <Row role="toolbar" aria-label="Correct this mark" $gap={6}>
          <Soft style={{ flexBasis: "100%" }}>{describe(current)}. Drag it along the strip, or use the buttons.</Soft>
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
          {timed && (
            <>
              <Button onPress={() => stretch(-100)}>Shorter</Button>
              <Button onPress={() => stretch(100)}>Longer</Button>
            </>
          )}
          {turns && (
            <Button onPress={() => onEdit({ kind: "turn", id: current.id, ms: turns.ms })}>Make it {turns.to}</Button>
          )}
        </Row>
      ) : spot !== null ? (
        <Row role="toolbar" aria-label="Here" $gap={6}>
          <Button onPress={() => addAt(spot)}>Add a flash at {(spot / 1000).toFixed(1)} s</Button>
          <Button $look="quiet" onPress={() => setSpot(null)}>
            Leave it
          </Button>
        </Row>
      ) : (
        !follow &&
        order.length > 0 && (
          <Row $gap={6}>
            <Soft style={{ flex: "1 1 200px" }}>Touch a mark to correct it, or an empty place to add one.</Soft>
            <Row $gap={6}>
              <Button aria-label="Smaller" onPress={() => setZoom(zoom / 1.5)}>
                <ZoomOut size={20} aria-hidden />
              </Button>
              <Button aria-label="Larger" onPress={() => setZoom(zoom * 1.5)}>
                <ZoomIn size={20} aria-hidden />
              </Button>
            </Row>
          </Row>
        )
      )}
    </>
  );
}
