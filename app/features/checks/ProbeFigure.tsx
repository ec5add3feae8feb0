import styled from "styled-components";
import type { Check } from "@core/diagnosis/checks";
import type { CircuitKind } from "@core/pack/circuit";
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
const PINS: Readonly<Partial<Record<CircuitKind, readonly string[]>>> = {
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

/** Where the meter's two leads go, on a plug as such parts mostly have it. */
export function ProbeFigure({ check }: { check: Check }) {
  const pins = (check.circuit && PINS[check.circuit.kind]) || [];
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
  const says = bridge
    ? `A thin wire joins ${ends[0]} and ${ends[1]} on the loom's side of the plug.`
    : `The meter sits between ${ends[0]} and ${ends[1]}.`;
  return (
    <figure>
      <Svg viewBox={`0 0 ${width} 226`} role="img" aria-label={says}>
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
        {pins.map((pin, i) => (
          <g key={i}>
            <rect
              x={i * step + 38}
              y="150"
              width="20"
              height="24"
              rx="3"
              fill="var(--rule)"
              stroke="var(--ink)"
              strokeWidth="2"
            />
            <text x={i * step + 48} y="204" textAnchor="middle">
              {pin}
            </text>
          </g>
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
              {check.limit?.unit === "ohm" ? "Ω" : check.limit?.unit === "%" ? "%" : "V"}
            </text>
          </g>
        )}
      </Svg>
      <figcaption style={{ fontSize: "0.85rem", color: "var(--ink-soft)" }}>
        {says} Which pin is which: by wire colour, in the manual.
      </figcaption>
    </figure>
  );
}
