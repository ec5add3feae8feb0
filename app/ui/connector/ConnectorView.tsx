import { useId } from "react";
import styled from "styled-components";
import type { Cavity, Connector } from "@core/pack/pack";
import { isForbidden } from "@core/procedure/bridge";
import { hidden, mono } from "../theme";

export type Side = "socket" | "wire";

const Svg = styled.svg`
  display: block;
  width: 100%;
  max-width: 620px;
  height: auto;
  text {
    ${mono}
    font-weight: 700;
    font-size: 21px;
    text-anchor: middle;
    dominant-baseline: central;
    fill: var(--ink);
  }
`;

const List = styled.ul`
  ${hidden}
`;

const SIZE = 46;

const ROLE_WORDS: Record<Cavity["role"], string> = {
  ground: "ground",
  test: "test line",
  power: "battery or ignition, never bridge",
  airbag: "airbag, never bridge",
  signal: "signal",
  empty: "empty",
};

/** Where a cavity is drawn: data gives the socket face; the wire side is its mirror image. */
function place(connector: Connector, cavity: Cavity, side: Side): [number, number] {
  const [x, y] = cavity.at;
  return side === "socket" ? [x, y] : [connector.size[0] - x, y];
}

/** A connector drawn from pack data: shape, notch, cavities, the forbidden ones hatched, and a wire between two. */
export function ConnectorView({
  connector,
  side,
  wire,
  bare = false,
  onCavity,
}: {
  connector: Connector;
  side: Side;
  wire?: readonly [string, string] | null;
  /** Shows only what the eye sees on the vehicle: no roles, nothing hatched. */
  bare?: boolean;
  /** Makes the cavities answer to a touch (keys get buttons beside the drawing). */
  onCavity?: (id: string) => void;
}) {
  const id = useId();
  const [w, h] = connector.size;
  const [pad, top] = [24, 50];
  const ends = wire?.map((c) => connector.cavities.find((x) => x.id === c)).filter((c) => c !== undefined) ?? [];
  return (
    <figure>
      <Svg viewBox={`${-pad} ${-top} ${w + 2 * pad} ${h + top + pad}`} role="img" aria-labelledby={`${id}-title`}>
        <title id={`${id}-title`}>
          {connector.name}, {side === "socket" ? "looking into the socket" : "from the wire side"}, notch{" "}
          {connector.notch}
          {ends.length === 2 ? `, wire from ${ends[0].id} to ${ends[1].id}` : ""}
        </title>
        <defs>
          <pattern
            id={`${id}-hatch`}
            width="10"
            height="10"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="10" height="10" fill="var(--sheet)" />
            <rect width="5" height="10" fill="var(--danger)" />
          </pattern>
        </defs>
        <path
          d={outline(connector, side)}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="3"
          strokeLinejoin="round"
        />
        {connector.cavities.map((c) => {
          const [x, y] = place(connector, c, side);
          const forbidden = !bare && isForbidden(connector, c.id);
          const joined = wire?.includes(c.id);
          return (
            <g key={c.id} onPointerDown={onCavity && (() => onCavity(c.id))} style={onCavity && { cursor: "pointer" }}>
              <rect
                x={x - SIZE / 2}
                y={y - SIZE / 2}
                width={SIZE}
                height={SIZE}
                rx="8"
                fill={forbidden ? `url(#${id}-hatch)` : "var(--paper)"}
                stroke={joined ? "var(--petrol)" : "var(--ink)"}
                strokeWidth={joined ? 4 : 2}
                strokeDasharray={!bare && c.role === "empty" ? "5 5" : undefined}
              />
              {forbidden && <circle cx={x} cy={y} r="15" fill="var(--sheet)" />}
              <text x={x} y={y + 1} style={forbidden ? { fill: "var(--danger)" } : undefined}>
                {c.id}
              </text>
            </g>
          );
        })}
        {ends.length === 2 && (
          <WireBetween from={place(connector, ends[0], side)} to={place(connector, ends[1], side)} />
        )}
      </Svg>
      <List aria-label={`Cavities of the ${connector.name}`}>
        {connector.cavities.map((c) => (
          <li key={c.id}>
            {c.id}
            {!bare && `: ${ROLE_WORDS[c.role]}`}
            {c.wire ? `, ${c.wire} wire` : ""}
          </li>
        ))}
      </List>
    </figure>
  );
}

/** The wire goes over the top, and down between the columns to a lower row, so that it hides no letter. */
function WireBetween({ from, to }: { from: [number, number]; to: [number, number] }) {
  const [high, low] = from[1] <= to[1] ? [from, to] : [to, from];
  const half = SIZE / 2;
  const sameRow = high[1] === low[1];
  const [startX, startY] = [high[0], high[1] - half + 6];
  const lift = startY - (sameRow ? 44 : 70);
  const [endX, endY] = sameRow ? [low[0], low[1] - half + 6] : [low[0] - half + 5, low[1]];
  const lane = low[0] - SIZE;
  const middle = (startY + endY) / 2;
  const d = sameRow
    ? `M ${startX} ${startY} C ${startX} ${lift}, ${endX} ${lift}, ${endX} ${endY}`
    : `M ${startX} ${startY} C ${startX} ${lift}, ${lane} ${lift}, ${lane} ${middle} C ${lane} ${(middle + endY) / 2}, ${lane} ${endY}, ${endX} ${endY}`;
  return (
    <g fill="none" stroke="var(--petrol)" strokeWidth="7" strokeLinecap="round" pointerEvents="none">
      <path d={d} />
      <circle cx={startX} cy={startY} r="5" fill="var(--petrol)" />
      <circle cx={endX} cy={endY} r="5" fill="var(--petrol)" />
    </g>
  );
}

/** The shell with its notch; a notch at the side moves over when seen from behind. */
function outline({ size: [w, h], shape, notch }: Connector, side: Side): string {
  const r = shape === "round-ended" ? h / 2 : 16;
  const [n, d] = [40, 16];
  const flipped =
    side === "wire" ? { left: "right", right: "left", top: "top", bottom: "bottom", none: "none" }[notch] : notch;
  const top = flipped === "top" ? `H ${w / 2 - n} v ${-d} h ${2 * n} v ${d}` : "";
  const right = flipped === "right" ? `V ${h / 2 - n / 2} h ${d} v ${n} h ${-d}` : "";
  const bottom = flipped === "bottom" ? `H ${w / 2 + n} v ${d} h ${-2 * n} v ${-d}` : "";
  const left = flipped === "left" ? `V ${h / 2 + n / 2} h ${-d} v ${-n} h ${d}` : "";
  return `M ${r} 0 ${top} H ${w - r} A ${r} ${r} 0 0 1 ${w} ${r} ${right} V ${h - r} A ${r} ${r} 0 0 1 ${w - r} ${h} ${bottom} H ${r} A ${r} ${r} 0 0 1 0 ${h - r} ${left} V ${r} A ${r} ${r} 0 0 1 ${r} 0 Z`;
}
