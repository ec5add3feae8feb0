import styled from "styled-components";
import type { ReactNode } from "react";
import { Button } from "./Button";
import { Soft } from "./bits";

/** Lines of what was done, each with its sign and the way to take it back. */
export const DoneLines = styled.ul`
  display: grid;
  gap: 6px;
  li {
    display: grid;
    grid-template-columns: 24px minmax(0, 1fr) max-content;
    gap: 4px 10px;
    align-items: center;
  }
  svg {
    flex: none;
  }
`;

/** @param of what it is, for who hears the button and does not see the line */
export function DoneLine({
  icon,
  of,
  more,
  onTakeBack,
  children,
}: {
  icon: ReactNode;
  of: string;
  more: ReactNode;
  onTakeBack: () => void;
  children: ReactNode;
}) {
  return (
    <li>
      {icon}
      <div>
        <p>{children}</p>
        <Soft>{more}</Soft>
      </div>
      <Button $look="quiet" aria-label={`Take back: ${of}`} onPress={onTakeBack}>
        Take back
      </Button>
    </li>
  );
}
