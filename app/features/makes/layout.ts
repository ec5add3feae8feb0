import styled from "styled-components";
import { wide } from "~/ui/theme";

export const Columns = styled.div`
  display: grid;
  align-items: start;
  gap: 14px 24px;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 260px), 1fr));
`;

/** What is told on the left, what it makes in the job on the right; under one another where there is no room. */
export const Beside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
  align-items: start;
  ${wide} {
    grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  }
`;

export const Tiles = styled.div`
  display: grid;
  gap: 8px;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 250px), 1fr));
`;
