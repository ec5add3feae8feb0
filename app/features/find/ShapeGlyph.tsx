import type { Connector } from "@core/pack/pack";
import { outline } from "~/ui/connector/outline";

/** The outline of a kind of plug, small. */
export function ShapeGlyph({ shape }: { shape: Connector["shape"] }) {
  const size: [number, number] = shape === "round" ? [90, 90] : [150, 80];
  const d = outline({ size, shape, notch: "none" } as Connector, "socket");
  return (
    <svg viewBox={`-6 -6 ${size[0] + 12} ${size[1] + 12}`} height="44" aria-hidden>
      <path d={d} fill="var(--paper)" stroke="currentColor" strokeWidth="6" strokeLinejoin="round" />
    </svg>
  );
}
