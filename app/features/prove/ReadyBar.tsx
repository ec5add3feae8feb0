import { addDays, format } from "date-fns";
import styled from "styled-components";
import { inspectionLies, type ReadyDays } from "@core/proving/ready";
import { clock } from "~/store/clock";
import { figures } from "~/ui/theme";

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  max-width: 640px;
  text {
    ${figures}
    font-size: 13px;
    fill: var(--ink);
  }
`;

const [WIDTH, HEIGHT, TOP, THICK] = [640, 92, 34, 22];
/** Words at the ends stay on the sheet. */
const EDGE = 36;

/** Days from today to the last likely one: not ready, perhaps, ready; and where the inspection lies. */
export function ReadyBar({ days: { first, last }, inspectionIn }: { days: ReadyDays; inspectionIn: number | null }) {
  const shown = inspectionIn !== null && inspectionIn >= 0 && inspectionIn <= 3 * last ? inspectionIn : null;
  const end = Math.max(last * 1.15, (shown ?? 0) * 1.05, 1);
  const x = (day: number) => EDGE + ((WIDTH - 2 * EDGE) * day) / end;
  const date = (day: number) => format(addDays(clock.now(), day), "d MMM");
  const says = `Today not ready. From ${date(first)} it may be, from ${date(last)} it most likely is.${
    shown === null
      ? ""
      : ` Inspection ${date(shown)}, ${inspectionLies(shown, { first, last }) === "late" ? "after that" : "before that"}.`
  }`;
  return (
    <Svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={says}>
      <defs>
        <pattern id="perhaps" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="8" height="8" fill="var(--rule)" />
          <rect width="4" height="8" fill="var(--petrol)" />
        </pattern>
      </defs>
      <rect x={x(0)} y={TOP} width={x(end) - x(0)} height={THICK} rx="6" fill="var(--rule)" />
      <rect x={x(first)} y={TOP} width={x(last) - x(first)} height={THICK} fill="url(#perhaps)" />
      <rect x={x(last)} y={TOP} width={x(end) - x(last)} height={THICK} rx="6" fill="var(--petrol)" />
      <text x={x(0)} y={TOP + THICK + 18} textAnchor="middle">
        today
      </text>
      {first > 0 && x(first) - x(0) > 60 && (
        <text x={x(first)} y={TOP + THICK + 18} textAnchor="middle">
          {date(first)}
        </text>
      )}
      <text x={x(last)} y={TOP + THICK + 18} textAnchor="middle">
        {date(last)}
      </text>
      {shown !== null && (
        <>
          <path d={`M${x(shown)} ${TOP - 8}v${THICK + 14}`} stroke="var(--danger)" strokeWidth="4" />
          <text
            x={x(shown)}
            y={TOP - 14}
            textAnchor={x(shown) > WIDTH - 90 ? "end" : x(shown) < 90 ? "start" : "middle"}
          >
            inspection {date(shown)}
          </text>
        </>
      )}
    </Svg>
  );
}
