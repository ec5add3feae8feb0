import type { Cavity, Connector } from "@core/pack/pack";

export type Side = "socket" | "wire";

/** Width of a cavity, in the drawing's units. */
export const SIZE = 46;

/** Where a cavity is drawn: data gives the socket face; the wire side is its mirror image. */
export function place(connector: Connector, cavity: Cavity, side: Side): [number, number] {
  const [x, y] = cavity.at;
  return side === "socket" ? [x, y] : [connector.size[0] - x, y];
}

/** How the shell is drawn: its path, and how that is turned for the side that is looked at. */
export interface Drawn {
  d: string;
  transform?: string;
}

type Shell = Pick<Connector, "size" | "shape" | "notch" | "outline">;

/** A shell that the pack draws is mirrored whole when seen from behind; of a ready one the notch moves over. */
export function outline(shell: Shell, side: Side): Drawn {
  if (!shell.outline) return { d: ready(shell, side) };
  const { path } = shell.outline;
  return side === "socket" ? { d: path } : { d: path, transform: `translate(${shell.size[0]} 0) scale(-1 1)` };
}

function ready({ size: [w, h], shape, notch }: Shell, side: Side): string {
  const [n, d] = [Math.min(40, w / 6), 16];
  const flipped =
    side === "wire" ? { left: "right", right: "left", top: "top", bottom: "bottom", none: "none" }[notch] : notch;
  if (shape === "round") {
    const r = Math.min(w, h) / 2;
    const [cx, cy] = [w / 2, h / 2];
    const turn = { top: 0, right: 90, bottom: 180, left: 270, none: 0 }[flipped as "top"];
    const at = (deg: number, radius = r) => {
      const a = ((deg + turn - 90) * Math.PI) / 180;
      return `${(cx + radius * Math.cos(a)).toFixed(1)} ${(cy + radius * Math.sin(a)).toFixed(1)}`;
    };
    if (flipped === "none") return `M ${cx - r} ${cy} a ${r} ${r} 0 1 1 ${2 * r} 0 a ${r} ${r} 0 1 1 ${-2 * r} 0 Z`;
    return `M ${at(12)} A ${r} ${r} 0 1 1 ${at(-12)} L ${at(-9, r + d)} L ${at(9, r + d)} Z`;
  }
  const r = shape === "round-ended" ? h / 2 : 16;
  // The lower side of a trapezoid is the narrower one.
  const inset = shape === "trapezoid" ? 22 : 0;
  const top = flipped === "top" ? `H ${w / 2 - n} v ${-d} h ${2 * n} v ${d}` : "";
  const bottom = flipped === "bottom" ? `H ${w / 2 + n} v ${d} h ${-2 * n} v ${-d}` : "";
  if (inset) {
    const right = flipped === "right" ? `L ${w - inset / 2 + 4} ${h / 2 - 20} h ${d} v 40 h ${-d - 6}` : "";
    const left = flipped === "left" ? `L ${inset / 2 - 4} ${h / 2 + 20} h ${-d} v -40 h ${d + 2}` : "";
    return `M ${r} 0 ${top} H ${w - r} A ${r} ${r} 0 0 1 ${w} ${r} ${right} L ${w - inset} ${h - r} A ${r} ${r} 0 0 1 ${w - inset - r} ${h} ${bottom} H ${inset + r} A ${r} ${r} 0 0 1 ${inset} ${h - r} ${left} L 0 ${r} A ${r} ${r} 0 0 1 ${r} 0 Z`;
  }
  const right = flipped === "right" ? `V ${h / 2 - n / 2} h ${d} v ${n} h ${-d}` : "";
  const left = flipped === "left" ? `V ${h / 2 + n / 2} h ${-d} v ${-n} h ${d}` : "";
  return `M ${r} 0 ${top} H ${w - r} A ${r} ${r} 0 0 1 ${w} ${r} ${right} V ${h - r} A ${r} ${r} 0 0 1 ${w - r} ${h} ${bottom} H ${r} A ${r} ${r} 0 0 1 0 ${h - r} ${left} V ${r} A ${r} ${r} 0 0 1 ${r} 0 Z`;
}
