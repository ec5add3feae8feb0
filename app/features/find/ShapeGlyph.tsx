import type { PlugShape } from "@core/pack/find";
import { outline } from "~/ui/connector/outline";

/** The outline of a kind of plug, small: from the same data as its drawing. */
export function ShapeGlyph({ shape }: { shape: PlugShape }) {
  const size =
    shape.size ?? (shape.shape === "round" ? ([90, 90] as [number, number]) : ([150, 80] as [number, number]));
  const { d } = outline({ ...shape, size, notch: "none" }, "socket");
  return (
    <svg viewBox={`-6 -6 ${size[0] + 12} ${size[1] + 18}`} height="44" aria-hidden>
      <path
        d={d}
        fill="var(--paper)"
        stroke="currentColor"
        strokeWidth="2.5"
        vectorEffect="non-scaling-stroke"
        strokeLinejoin="round"
      />
    </svg>
  );
}
