import { Printer } from "lucide-react";
import styled, { createGlobalStyle } from "styled-components";
import type { ReactNode } from "react";
import { Button } from "./Button";
import { Row } from "./bits";

const PageStyle = createGlobalStyle`
  @media print {
    @page { size: A4; margin: 12mm; }
    html { font-size: 11px; }
    [data-screen] { display: none !important; }
  }
`;

const Main = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  max-width: 860px;
  margin: 0 auto;
  padding: 20px 16px 40px;
  overflow-wrap: break-word;
  > p {
    overflow-wrap: anywhere;
  }
  section {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 6px;
    break-inside: avoid;
  }
  figure {
    max-width: 320px;
  }
  ol {
    list-style: decimal;
    padding-left: 1.4em;
  }
  ul {
    display: grid;
    gap: 3px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    padding: 3px 8px;
    border-bottom: 1px solid var(--line);
    text-align: left;
    vertical-align: top;
  }
  @media print {
    padding: 0;
  }
`;

/** A page that is made to be printed. @param more what stands beside the button on the screen, and not on paper */
export function Paper({ more, children }: { more: ReactNode; children: ReactNode }) {
  return (
    <Main id="work">
      <PageStyle />
      <Row data-screen>
        <Button $look="primary" onPress={() => window.print()}>
          <Printer size={20} aria-hidden /> Print this page
        </Button>
        {more}
      </Row>
      {children}
    </Main>
  );
}
