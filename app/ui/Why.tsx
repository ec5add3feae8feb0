import styled from "styled-components";
import { Fold } from "./Fold";

const Lines = styled.ul`
  display: grid;
  gap: 4px;
  padding: 0 0 8px 28px;
`;

/** What a sentence rests on, and what would make it surer: told to who asks. */
export function Why({
  label = "Why?",
  lines,
  open = false,
}: {
  label?: string;
  lines: readonly string[];
  open?: boolean;
}) {
  if (!lines.length) return null;
  return (
    <Fold label={label} open={open}>
      <Lines>
        {lines.map((l) => (
          <li key={l}>{l}</li>
        ))}
      </Lines>
    </Fold>
  );
}
