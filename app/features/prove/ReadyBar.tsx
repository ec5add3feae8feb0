import { addDays, format } from "date-fns";
import styled from "styled-components";
import { inspectionLies, type ReadyDays } from "@core/proving/ready";
import { clock } from "~/store/clock";
import { figures } from "~/ui/theme";

const Frame = styled.figure`
  position: relative;
  height: 86px;
  max-width: 640px;
  margin: 0 28px;
  ${figures}
  font-size: 0.85rem;
  > * {
    position: absolute;
  }
`;
const Bar = styled.div`
  inset: 28px 0 auto;
  height: 24px;
  display: flex;
  border-radius: 7px;
  overflow: hidden;
  background: var(--rule);
  > i:nth-child(2) {
    background: repeating-linear-gradient(135deg, var(--petrol) 0 5px, var(--rule) 5px 11px);
  }
  > i:nth-child(3) {
    background: var(--petrol);
  }
`;
const Pin = styled.div`
  top: 20px;
  width: 4px;
  height: 40px;
  margin-left: -2px;
  border-radius: 2px;
  background: var(--danger);
`;
const Word = styled.span<{ $high?: boolean }>`
  top: ${({ $high }) => ($high ? 0 : 56)}px;
  transform: translateX(-50%);
  white-space: nowrap;
`;

/** Labels nearer than this share of the bar would cover each other. */
const APART = 22;

/** Days from today to the last likely one: not ready, perhaps, ready; and where the inspection lies. */
export function ReadyBar({ days: { first, last }, inspectionIn }: { days: ReadyDays; inspectionIn: number | null }) {
  const shown = inspectionIn !== null && inspectionIn >= 0 && inspectionIn <= 3 * last ? inspectionIn : null;
  const end = Math.max(last * 1.15, (shown ?? 0) * 1.05, 1);
  const at = (day: number) => (100 * day) / end;
  const date = (day: number) => format(addDays(clock.now(), day), "d MMM");
  const late = shown !== null && inspectionLies(shown, { first, last }) === "late";
  const says = `${first > 0 ? "Most likely not ready today. " : ""}From ${first > 0 ? date(first) : "today"} it may be, from ${date(last)} it most likely is.${
    shown === null ? "" : ` Inspection ${date(shown)}, ${late ? "after" : "before"} that.`
  }`;
  return (
    <Frame role="img" aria-label={says}>
      <Bar>
        <i style={{ width: `${at(first)}%` }} />
        <i style={{ width: `${at(last - first)}%` }} />
        <i style={{ flex: 1 }} />
      </Bar>
      <Word style={{ left: "0%" }}>today</Word>
      {at(first) > APART && at(last - first) > APART && <Word style={{ left: `${at(first)}%` }}>{date(first)}</Word>}
      <Word style={{ left: `${at(last)}%` }}>{date(last)}</Word>
      {shown !== null && (
        <>
          <Pin style={{ left: `${at(shown)}%` }} />
          <Word $high style={{ left: `${Math.min(85, Math.max(15, at(shown)))}%` }}>
            inspection {date(shown)}
          </Word>
        </>
      )}
    </Frame>
  );
}
