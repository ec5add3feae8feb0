import { ProgressBar } from "react-aria-components/ProgressBar";
import { Button } from "./Button";
import { Bar, Row } from "./bits";
import { figures } from "./theme";
import styled from "styled-components";

const Line = styled(ProgressBar)`
  display: grid;
  gap: 6px;
  flex: 1 1 240px;
  span {
    ${figures}
  }
`;

/** Work that takes a while: how far it is, and the way out of it. */
export function LongWork({
  what,
  done,
  of,
  onCancel,
}: {
  what: string;
  done: number;
  of: number;
  onCancel: () => void;
}) {
  const value = of ? Math.min(100, (100 * done) / of) : 0;
  return (
    <Row>
      <Line aria-label={what} value={value}>
        <span>
          {what} … {of > 0 && `${done} of ${of}`}
        </span>
        <Bar>
          <i style={{ width: `${value}%` }} />
        </Bar>
      </Line>
      <Button $look="quiet" onPress={onCancel}>
        Cancel
      </Button>
    </Row>
  );
}
