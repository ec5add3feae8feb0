import { CircleCheck, OctagonX, TriangleAlert } from "lucide-react";
import styled from "styled-components";
import { DRIVE_WORDS, type DriveAdvice } from "@core/diagnosis/drive";
import { listOf } from "@core/job/say";
import { Soft } from "~/ui/bits";

const Box = styled.section`
  display: grid;
  grid-template-columns: 36px minmax(0, 1fr);
  gap: 4px 14px;
  align-items: start;
  padding: 14px 18px;
  border-radius: 12px;
  background: var(--sheet);
  > svg {
    grid-row: span 3;
  }
  &[data-drive="stop"] {
    background: var(--danger-tint);
  }
`;

const ICONS = { on: CircleCheck, gently: TriangleAlert, stop: OctagonX };
const COLOURS = { on: "var(--done)", gently: "var(--ink)", stop: "var(--danger)" };

/** Whether it can be driven, and by which code's word. */
export function DriveSays({ advice }: { advice: DriveAdvice }) {
  const Icon = ICONS[advice.drive];
  const told = advice.because.filter((e) => e.affects).slice(0, 3);
  return (
    <Box data-drive={advice.drive} aria-label="Can it be driven">
      <Icon size={34} aria-hidden color={COLOURS[advice.drive]} />
      <h2>{DRIVE_WORDS[advice.drive]}</h2>
      <p>{told.map((e) => `${e.code}: ${e.affects}`).join(" ")}</p>
      {advice.untold.length > 0 && (
        <Soft>
          Of {listOf(advice.untold)} {advice.untold.length === 1 ? "its" : "their"} table does not say it: go by how it
          runs.
        </Soft>
      )}
    </Box>
  );
}
