import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { turned, type Box } from "@core/lamp/patch";
import { Button } from "~/ui/Button";
import { Row, Soft } from "~/ui/bits";
import type { PictureWatch } from "./picture-watch";
import { offered } from "./ranking";
import { usePicture } from "./use-picture";

const Stage = styled.div`
  position: relative;
  width: 100%;
  background: var(--band);
  border-radius: 10px;
  overflow: hidden;
  video {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
`;

const Patch = styled.button`
  position: absolute;
  min-width: 24px;
  min-height: 24px;
  padding: 0;
  border: 2px dashed #fff;
  border-radius: 6px;
  background: none;
  cursor: pointer;
  box-shadow: 0 0 0 2px #000a;
  span {
    position: absolute;
    left: 50%;
    top: calc(100% + 4px);
    translate: -50% 0;
    padding: 0 7px;
    border-radius: 5px;
    background: #000c;
    color: #fff;
    font-size: 0.8rem;
    font-weight: 700;
    white-space: nowrap;
  }
  &[data-above] span {
    top: auto;
    bottom: calc(100% + 4px);
  }
  &[data-chosen] {
    border-style: solid;
    border-width: 3px;
  }
`;

const Canvas = styled.div`
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
  > div {
    position: absolute;
    border: 3px solid #fff;
    border-radius: 6px;
    box-shadow: 0 0 0 2000px #0007;
    pointer-events: none;
  }
`;

const percent = ({ x, y, w, h }: Box) => ({
  left: `${x * 100}%`,
  top: `${y * 100}%`,
  width: `${w * 100}%`,
  height: `${h * 100}%`,
});
/** The patch is drawn a little wider than the lamp, so that the lamp stays in view. */
const around = ({ x, y, w, h }: Box): Box => ({
  x: x - 0.3 * w - 0.01,
  y: y - 0.3 * h - 0.01,
  w: 1.6 * w + 0.02,
  h: 1.6 * h + 0.02,
});

/** A name stands below its patch; above it where another patch lies there, or the picture ends. */
const namedAbove = (own: Box, all: readonly Box[]): boolean =>
  own.y + own.h > 0.86 ||
  all.some((o) => o.y > own.y && o.y - own.y - own.h < 0.2 && Math.abs(o.x + o.w / 2 - own.x - own.w / 2) < 0.25);

/** The film or the camera's picture with the lamps in it; the person picks one, or draws a box around it. */
export function Preview({ picture, names, wide }: { picture: PictureWatch; names: readonly string[]; wide: boolean }) {
  const film = usePicture(picture, (s) => s.film);
  const url = usePicture(picture, (s) => s.url);
  const stream = usePicture(picture, (s) => s.stream);
  const seen = usePicture(picture, (s) => s.seen);
  const quiet = usePicture(picture, (s) => s.quiet);
  const lamps = offered(seen, quiet);
  const chosen = usePicture(picture, (s) => s.chosen);
  const phase = usePicture(picture, (s) => s.phase);
  const source = usePicture(picture, (s) => s.source);
  const [drawing, setDrawing] = useState(false);
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    picture.show(video.current);
    return () => picture.show(null);
  }, [picture]);
  useEffect(() => {
    if (video.current && video.current.srcObject !== stream) video.current.srcObject = stream;
  }, [stream]);
  const sideways = film?.rotation === 90 || film?.rotation === 270;
  const boxes = lamps.map((l) => around(turned(l.box, film?.rotation ?? 0)));
  const [w, h] = film ? (sideways ? [film.height, film.width] : [film.width, film.height]) : [16, 9];
  const canDraw =
    film !== null && (source === "film" ? phase === "ended" || phase === "watching" : phase === "watching");
  return (
    <div style={{ display: "grid", gap: 8, alignContent: "start" }}>
      <Stage
        style={{
          aspectRatio: `${w} / ${h}`,
          maxHeight: wide ? 340 : 300,
          maxWidth: `calc(${wide ? 340 : 300}px * ${w / h})`,
        }}
      >
        <video
          ref={video}
          src={url ?? undefined}
          muted
          playsInline
          autoPlay={stream !== null}
          // While the film is read, its playing must not take the decoder's time.
          preload={phase === "ended" ? "auto" : "metadata"}
          aria-label={source === "film" ? "The film" : "What the camera sees"}
        />{" "}
        {!drawing &&
          lamps.map((l, i) => {
            const at = chosen.indexOf(l.id);
            const name = at < 0 ? `Lamp ${i + 1}?` : names.length > 1 ? names[at] : "Lamp";
            return (
              <Patch
                key={l.id}
                type="button"
                data-lamp={l.id}
                data-chosen={at >= 0 || undefined}
                data-above={namedAbove(boxes[i], boxes) || undefined}
                style={percent(boxes[i])}
                aria-label={at >= 0 ? `${name}: this patch is watched` : `Watch the patch ${i + 1}`}
                aria-pressed={at >= 0}
                onClick={() => picture.choose(at >= 0 ? at : 0, l.id)}
              >
                <span>{name}</span>
              </Patch>
            );
          })}
        {drawing && (
          <Draw
            onBox={(box) => {
              setDrawing(false);
              picture.draw(box);
            }}
            onCancel={() => setDrawing(false)}
          />
        )}
      </Stage>
      {drawing ? (
        <Row $gap={8}>
          <Soft style={{ flex: "1 1 220px" }}>
            Touch the lamp, or drag a box around it. Keys: arrows move it, Shift and arrows size it, Enter takes it, Esc
            leaves.
          </Soft>
          <Button onPress={() => setDrawing(false)}>Leave it</Button>
        </Row>
      ) : (
        canDraw && (
          <Row $gap={8}>
            <Button onPress={() => setDrawing(true)}>Draw the lamp myself</Button>
          </Row>
        )
      )}
    </div>
  );
}

const FIRST: Box = { x: 0.45, y: 0.44, w: 0.1, h: 0.12 };

function Draw({ onBox, onCancel }: { onBox: (box: Box) => void; onCancel: () => void }) {
  const [box, setBox] = useState(FIRST);
  const start = useRef<{ x: number; y: number } | null>(null);
  const own = useRef<HTMLDivElement>(null);
  useEffect(() => own.current?.focus(), []);
  const at = (e: React.PointerEvent) => {
    const r = e.currentTarget.getBoundingClientRect();
    const within = (x: number) => Math.min(1, Math.max(0, x));
    return { x: within((e.clientX - r.left) / r.width), y: within((e.clientY - r.top) / r.height) };
  };
  const span = (a: { x: number; y: number }, b: { x: number; y: number }): Box => ({
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    w: Math.max(0.01, Math.abs(a.x - b.x)),
    h: Math.max(0.01, Math.abs(a.y - b.y)),
  });
  const onKeyDown = (e: React.KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (e.key === "Escape") onCancel();
    else if (e.key === "Enter" || e.key === " ") onBox(box);
    else if (by) {
      const [dx, dy] = [by[0] * 0.01, by[1] * 0.01];
      setBox((b) =>
        e.shiftKey
          ? { ...b, w: Math.min(0.5, Math.max(0.01, b.w + dx)), h: Math.min(0.5, Math.max(0.01, b.h + dy)) }
          : { ...b, x: Math.min(1 - b.w, Math.max(0, b.x + dx)), y: Math.min(1 - b.h, Math.max(0, b.y + dy)) },
      );
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <Canvas
      ref={own}
      tabIndex={0}
      role="application"
      aria-label="Draw a box around the lamp"
      onKeyDown={onKeyDown}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        start.current = at(e);
      }}
      onPointerMove={(e) => start.current && setBox(span(start.current, at(e)))}
      onPointerUp={(e) => {
        if (!start.current) return;
        const end = at(e);
        const drawn = span(start.current, end);
        // A mere touch means the lamp is here.
        const touch = drawn.w < 0.015 && drawn.h < 0.015;
        start.current = null;
        onBox(touch ? { x: end.x - 0.025, y: end.y - 0.035, w: 0.05, h: 0.07 } : drawn);
      }}
    >
      <div style={percent(box)} />
    </Canvas>
  );
}
