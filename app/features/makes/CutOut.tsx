import { useEffect, useRef } from "react";
import styled from "styled-components";
import type { Place } from "@core/table/photo/read";

const Canvas = styled.canvas`
  display: block;
  max-width: 100%;
  border-radius: 4px;
  background: #fff;
`;

/** Room around a row, as a share of its height. */
const ROOM = 0.5;
/** So much of a row is shown at most, by its height: its number and the words behind it. */
const WIDE = 26;

/** The part of a page that a row was read from. */
export function CutOut({ page, at, says }: { page: ImageBitmap; at: Place; says: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const room = ROOM * (at.y1 - at.y0);
  const [left, top] = [Math.max(0, at.x0 - room), Math.max(0, at.y0 - room)];
  const width = Math.max(1, Math.min(page.width - left, at.x1 - left + room, WIDE * (at.y1 - at.y0)));
  const height = Math.max(1, Math.min(page.height - top, at.y1 - top + room));
  useEffect(() => {
    canvas.current?.getContext("2d")?.drawImage(page, left, top, width, height, 0, 0, width, height);
  }, [page, left, top, width, height]);
  return <Canvas ref={canvas} width={Math.round(width)} height={Math.round(height)} role="img" aria-label={says} />;
}
