import { useId, useRef, useState } from "react";
import styled from "styled-components";
import type { Cavity, Connector } from "@core/pack/pack";
import { isForbidden } from "@core/procedure/bridge";
import { hidden, mono } from "../theme";
import { outline, place, SIZE, type Side } from "./outline";

export type { Side };

const Svg = styled.svg`
  display: block;
  width: 100%;
  max-width: 620px;
  height: auto;
  touch-action: pan-y;
  text {
    ${mono}
    font-weight: 700;
    font-size: 21px;
    text-anchor: middle;
    dominant-baseline: central;
    fill: var(--ink);
    user-select: none;
    -webkit-user-select: none;
  }
`;

const List = styled.ul`
  ${hidden}
`;

const ROLE_WORDS: Record<Cavity["role"], string> = {
  ground: "ground",
  test: "test line",
  power: "battery or ignition, never bridge",
  airbag: "airbag, never bridge",
  signal: "signal",
  empty: "empty",
  unknown: "not known, never bridge",
};

/** A connector drawn from pack data: shape, notch, cavities, the forbidden ones hatched, and a wire between two. */
export function ConnectorView({
  connector,
  side,
  wire,
  leads,
  bare = false,
  zoom = 1,
  onCavity,
  onWire,
}: {
  connector: Connector;
  side: Side;
  wire?: readonly [string, string] | null;
  /** Ends of leads, by cavity. */
  leads?: Readonly<Record<string, string>>;
  /** Shows only what the eye sees on the vehicle: no roles, nothing hatched. */
  bare?: boolean;
  zoom?: number;
  /** Makes the cavities answer to a touch (keys get buttons beside the drawing). */
  onCavity?: (id: string) => void;
  /** A wire was dragged from one cavity to another. */
  onWire?: (from: string, to: string) => void;
}) {
  const id = useId();
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ from: string; at: [number, number] } | null>(null);
  const [w, h] = connector.size;
  const [pad, top] = [24, 50];
  const find = (name: string) => connector.cavities.find((x) => x.id === name);
  const ends = wire?.map(find).filter((c) => c !== undefined) ?? [];
  const toDrawing = (e: React.PointerEvent): [number, number] => {
    const box = svg.current!.getBoundingClientRect();
    const scale = (w + 2 * pad) / box.width;
    return [(e.clientX - box.left) * scale - pad, (e.clientY - box.top) * scale - top];
  };
  const under = ([x, y]: [number, number]): string | null => {
    const hit = connector.cavities.find((c) => {
      const [cx, cy] = place(connector, c, side);
      return Math.abs(cx - x) < SIZE * 0.7 && Math.abs(cy - y) < SIZE * 0.7;
    });
    return hit?.id ?? null;
  };
  const touch = (cavity: string, e: React.PointerEvent) => {
    onCavity?.(cavity);
    if (!onWire) return;
    svg.current?.setPointerCapture(e.pointerId);
    setDrag({ from: cavity, at: toDrawing(e) });
  };
  // One string: a title takes no other children.
  const says = `${connector.name}, ${side === "socket" ? "looking into the socket" : "from the wire side"}, notch ${connector.notch}${ends.length === 2 ? `, wire from ${ends[0].id} to ${ends[1].id}` : ""}`;
  const from = drag ? find(drag.from) : undefined;
  return (
    <figure style={zoom > 1 ? { overflow: "auto" } : undefined}>
      <Svg
        ref={svg}
        viewBox={`${-pad} ${-top} ${w + 2 * pad} ${h + top + pad}`}
        role="img"
        aria-labelledby={`${id}-title`}
        style={{
          ...(zoom > 1 ? { width: `${zoom * 100}%` } : {}),
          // A small plug is not blown up to the width of a large one.
          maxWidth: `${zoom * Math.min(620, (w + 2 * pad) * 1.25)}px`,
          ...(onWire ? { touchAction: "none" } : {}),
        }}
        onPointerMove={(e) => drag && setDrag({ ...drag, at: toDrawing(e) })}
        onPointerUp={(e) => {
          if (!drag) return;
          const to = under(toDrawing(e));
          if (to && to !== drag.from) onWire?.(drag.from, to);
          setDrag(null);
        }}
        onPointerCancel={() => setDrag(null)}
      >
        <title id={`${id}-title`}>{says}</title>
        <Hatch id={`${id}-hatch`} />
        <path
          {...outline(connector, side)}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="3"
          strokeLinejoin="round"
        />
        {connector.cavities.map((c) => (
          <OneCavity
            key={c.id}
            cavity={c}
            at={place(connector, c, side)}
            bare={bare}
            hatch={!bare && isForbidden(connector, c.id) ? `url(#${id}-hatch)` : null}
            joined={wire?.includes(c.id) || drag?.from === c.id}
            lead={leads?.[c.id]}
            touched={onCavity || onWire ? (e) => touch(c.id, e) : undefined}
          />
        ))}
        {ends.length === 2 && (
          <WireBetween from={place(connector, ends[0], side)} to={place(connector, ends[1], side)} />
        )}
        {drag && from && (
          <line
            x1={place(connector, from, side)[0]}
            y1={place(connector, from, side)[1]}
            x2={drag.at[0]}
            y2={drag.at[1]}
            stroke="var(--petrol)"
            strokeWidth="7"
            strokeLinecap="round"
            pointerEvents="none"
          />
        )}
      </Svg>
      <CavityList connector={connector} bare={bare} leads={leads} />
    </figure>
  );
}

/** Fill of a cavity that nothing may go into. */
function Hatch({ id }: { id: string }) {
  return (
    <defs>
      <pattern id={id} width="10" height="10" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="10" height="10" fill="var(--sheet)" />
        <rect width="5" height="10" fill="var(--danger)" />
      </pattern>
    </defs>
  );
}

/** The same in words. */
function CavityList({
  connector,
  bare,
  leads,
}: {
  connector: Connector;
  bare: boolean;
  leads?: Readonly<Record<string, string>>;
}) {
  return (
    <List aria-label={`Cavities of the ${connector.name}`}>
      {connector.cavities.map((c) => (
        <li key={c.id}>
          {c.id}
          {!bare && `: ${ROLE_WORDS[c.role]}`}
          {c.wire ? `, ${c.wire} wire` : ""}
          {leads?.[c.id] ? `, ${leads[c.id]} lead` : ""}
        </li>
      ))}
    </List>
  );
}

function OneCavity({
  cavity: c,
  at: [x, y],
  bare,
  hatch,
  joined,
  lead,
  touched,
}: {
  cavity: Cavity;
  at: [number, number];
  bare: boolean;
  /** Fill of one that nothing may go into. */
  hatch: string | null;
  joined: boolean | undefined;
  lead: string | undefined;
  touched: ((e: React.PointerEvent) => void) | undefined;
}) {
  return (
    <g data-cavity={c.id} onPointerDown={touched} style={touched ? { cursor: "pointer" } : undefined}>
      <rect
        x={x - SIZE / 2}
        y={y - SIZE / 2}
        width={SIZE}
        height={SIZE}
        rx="8"
        fill={hatch ?? "var(--paper)"}
        stroke={joined || lead ? "var(--petrol)" : "var(--ink)"}
        strokeWidth={joined || lead ? 4 : 2}
        strokeDasharray={!bare && c.role === "empty" ? "5 5" : undefined}
      />
      {hatch && <circle cx={x} cy={y} r="15" fill="var(--sheet)" />}
      <text
        x={x}
        y={y + 1}
        style={{
          ...(hatch ? { fill: "var(--danger)" } : {}),
          ...(c.id.length > 2 ? { fontSize: "15px" } : {}),
        }}
      >
        {c.id}
      </text>
      {lead && (
        <text x={x} y={y + SIZE / 2 + 12} style={{ fontSize: "13px", fill: "var(--petrol)" }}>
          {lead}
        </text>
      )}
    </g>
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
