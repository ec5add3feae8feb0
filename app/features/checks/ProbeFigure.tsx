import styled from "styled-components";
import type { Check } from "@core/diagnosis/checks";
import type { CircuitKind, Measured, Pin, PinCarries } from "@core/pack/circuit";
import { figures } from "~/ui/theme";

const Svg = styled.svg`
  display: block;
  width: 100%;
  max-width: 360px;
  height: auto;
  text {
    ${figures}
    font-size: 15px;
    fill: var(--ink);
    dominant-baseline: central;
  }
`;

/** What the pins of a part's plug carry, as such parts mostly have it. */
const USUAL: Readonly<Partial<Record<CircuitKind, readonly PinCarries[]>>> = {
  thermistor: ["signal", "ground"],
  position: ["5 V", "signal", "ground"],
  pressure: ["5 V", "signal", "ground"],
  recirculation: ["5 V", "signal", "ground"],
  pickup: ["signal", "signal"],
  knock: ["signal", "shield"],
  actuator: ["feed", "control"],
  valve: ["feed", "control"],
  "air-flow": ["feed", "signal", "ground"],
  oxygen: ["signal", "ground"],
};

/** What the meter shows; nothing where no figure is known, so that whoever measures decides. */
const SIGNS: Readonly<Record<Measured, string>> = { V: "V", ohm: "Ω", "%": "%", bar: "" };

const BATTERY = "battery −";

/** Between which points the meter sits, by names of pins. */
function leads(check: Check, pins: readonly string[]): [string, string] | null {
  const has = (pin: string) => (pins.includes(pin) ? pin : null);
  switch (check.kind) {
    case "sensor-ground":
      return has("ground") ? [has("ground")!, BATTERY] : null;
    case "reference":
      return has("5 V") ? [has("5 V")!, has("ground") ?? BATTERY] : null;
    case "duty":
      return has("control") ? ["control", BATTERY] : null;
    case "feed":
      return has("feed") ? [has("feed")!, BATTERY] : null;
    case "part":
      if (check.limit?.unit === "V") return has("signal") ? ["signal", has("ground") ?? BATTERY] : null;
      return pins.length === 2 ? [pins[0], pins[1]] : null;
    case "bridge-plug":
      return pins.length === 2 ? [pins[0], pins[1]] : null;
    default:
      return null;
  }
}

/** The pins of a check's plug: as the make tells them, else as such parts mostly have them, without names. */
function pinsOf({ circuit }: Check): (Pick<Pin, "carries"> & Partial<Pin>)[] {
  if (!circuit) return [];
  return circuit.pins ?? (USUAL[circuit.kind] ?? []).map((carries) => ({ carries }));
}

/** Where the meter's two leads go: on the plug of this vehicle where its make tells it, else on one as such parts mostly have it. */
export function ProbeFigure({ check }: { check: Check }) {
  const told = pinsOf(check);
  const pins: readonly string[] = told.map((p) => p.carries);
  const ends = leads(check, pins);
  if (!ends) return null;
  const step = 84;
  const width = Math.max(2, pins.length) * step + 110;
  const at = (end: string, from: 0 | 1): [number, number] => {
    if (end === BATTERY) return [pins.length * step + 58, 158];
    // Two pins of the same name: one lead on each.
    const k = from === 0 ? pins.indexOf(end) : pins.lastIndexOf(end);
    return [k * step + 48, 160];
  };
  const bridge = check.kind === "bridge-plug";
  const meter: [number, number] = [width / 2 - 20, 40];
  const [a, b] = [at(ends[0], 0), at(ends[1], 1)];
  const wire = (to: [number, number], side: -1 | 1) =>
    `M${meter[0] + side * 30},${meter[1] + 18} C${meter[0] + side * 46},110 ${to[0]},96 ${to[0]},${to[1] - 12}`;
  const nameOf = (end: string, from: 0 | 1) => {
    const { name } = told[from === 0 ? pins.indexOf(end) : pins.lastIndexOf(end)] ?? {};
    return name ? `pin ${name} (${end})` : end;
  };
  const [one, other] = [nameOf(ends[0], 0), nameOf(ends[1], 1)];
  const says = bridge
    ? `A thin wire joins ${one} and ${other} on the loom's side of the plug.`
    : `The meter sits between ${one} and ${other}.`;
  const own = told.some((p) => p.name);
  return (
    <figure>
      <Svg viewBox={`0 0 ${width} ${own ? 246 : 226}`} role="img" aria-label={says}>
        <rect
          x="14"
          y="138"
          width={pins.length * step - 16}
          height="48"
          rx="10"
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="2.5"
        />
        {told.map((_, i) => (
          <PinDrawn key={i} at={i * step + 48} {...told[i]} />
        ))}
        {ends.includes(BATTERY) && (
          <g>
            <circle
              cx={pins.length * step + 58}
              cy="162"
              r="16"
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth="2.5"
            />
            <path d={`M${pins.length * step + 50},162 h16`} stroke="var(--ink)" strokeWidth="3" />
            <text x={pins.length * step + 58} y="204" textAnchor="middle">
              {BATTERY}
            </text>
          </g>
        )}
        {bridge ? (
          <path
            d={`M${a[0]},150 C${a[0]},70 ${b[0]},70 ${b[0]},150`}
            fill="none"
            stroke="var(--petrol)"
            strokeWidth="4"
          />
        ) : (
          <g>
            <path
              d={wire(a[0] <= b[0] ? a : b, -1)}
              fill="none"
              stroke="var(--danger)"
              strokeWidth="4"
              strokeLinecap="round"
            />
            <path
              d={wire(a[0] <= b[0] ? b : a, 1)}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="4"
              strokeLinecap="round"
            />
            <rect
              x={meter[0] - 52}
              y="10"
              width="104"
              height="52"
              rx="10"
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth="2.5"
            />
            <text x={meter[0]} y="37" textAnchor="middle" style={{ fontSize: 22, fontWeight: 700 }}>
              {SIGNS[check.limit?.unit ?? (check.kind === "part" ? "bar" : "V")]}
            </text>
          </g>
        )}
      </Svg>
      <figcaption style={{ fontSize: "0.85rem", color: "var(--ink-soft)" }}>
        {says}{" "}
        {own
          ? "Seen looking into the loom's half. Compare the wire colours before you probe."
          : "Which pin is which: by wire colour, in the manual."}
      </figcaption>
    </figure>
  );
}

/** One pin of a plug: its name, what it carries, the colour of its wire. @param at its middle */
function PinDrawn({
  at,
  name,
  carries,
  wire,
}: {
  at: number;
  carries: string;
  name?: string;
  wire?: string | undefined;
}) {
  return (
    <g>
      <rect x={at - 10} y="150" width="20" height="24" rx="3" fill="var(--rule)" stroke="var(--ink)" strokeWidth="2" />
      {name && (
        <text x={at} y="163" textAnchor="middle" fontWeight="700">
          {name}
        </text>
      )}
      <text x={at} y="204" textAnchor="middle">
        {carries}
      </text>
      {wire && (
        <text x={at} y="226" textAnchor="middle" style={{ fontSize: 12 }}>
          {wire}
        </text>
      )}
    </g>
  );
}
