import styled from "styled-components";
import type { Face, Point } from "@core/pack/make/face";
import { FaceHandle } from "./FaceHandle";

const Stage = styled.div`
  position: relative;
  width: 100%;
  overflow: hidden;
  border: 2px solid var(--line);
  border-radius: 10px;
  background: var(--paper);
  touch-action: none;
  cursor: crosshair;
  user-select: none;
  img,
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }
`;

/** What a face is drawn on: the photo beneath, the shell, and a handle for each corner and cavity. */
export function FaceSheet({
  face: { corners, places },
  tall,
  url,
  what,
  onTouch,
  onFace,
}: {
  face: Face;
  /** Height by width. */
  tall: number;
  /** Of the photo beneath. */
  url: string | null;
  /** What is touched in at the moment. */
  what: "shell" | "cavities";
  /** A free place was touched. */
  onTouch: (at: Point) => void;
  onFace: (face: Face) => void;
}) {
  const shell = (to: readonly Point[]) => onFace({ corners: to, places });
  return (
    <Stage
      style={{ aspectRatio: `1 / ${tall}` }}
      onPointerDown={(e) => {
        if (e.target !== e.currentTarget) return;
        const box = e.currentTarget.getBoundingClientRect();
        onTouch([(e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height]);
      }}
    >
      {url && <img src={url} alt="" />}
      <svg viewBox={`0 0 1 ${tall}`} preserveAspectRatio="none" aria-hidden="true">
        <polygon
          points={corners.map(([x, y]) => `${x},${y * tall}`).join(" ")}
          fill="var(--petrol)"
          fillOpacity={url ? 0.12 : 0.06}
          stroke="var(--petrol)"
          strokeWidth="3"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      {corners.map((at, i) => (
        <FaceHandle
          key={i}
          label={`Corner ${i + 1}`}
          at={at}
          quiet={what !== "shell"}
          onMove={(to) => shell(corners.map((c, k) => (k === i ? to : c)))}
          onRemove={() => shell(corners.filter((_, k) => k !== i))}
          onTouch={onTouch}
        />
      ))}
      {Object.entries(places).map(([name, at]) => (
        <FaceHandle
          key={name}
          label={`Cavity ${name}`}
          text={name}
          at={at}
          quiet={what !== "cavities"}
          onMove={(to) => onFace({ corners, places: { ...places, [name]: to } })}
          onRemove={() => {
            const { [name]: _, ...rest } = places;
            onFace({ corners, places: rest });
          }}
          onTouch={onTouch}
        />
      ))}
    </Stage>
  );
}
