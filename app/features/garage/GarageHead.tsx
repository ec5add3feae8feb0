import type { ReactNode } from "react";
import styled from "styled-components";
import { LinkButton } from "~/ui/Button";
import { Row, Stack } from "~/ui/bits";

const Head = styled(Row)`
  justify-content: space-between;
`;

/** What the garage is asked most: how much is open, and what is new. */
export function GarageHead({ title, children, across }: { title: string; children?: ReactNode; across: boolean }) {
  return (
    <Head>
      <Stack $gap={2}>
        <h1>{title}</h1>
        {children}
      </Stack>
      <Row>
        <LinkButton to="/vehicles/new">Add a vehicle</LinkButton>
        <LinkButton to="/buying">Look at one to buy</LinkButton>
        {across && <LinkButton to="/across">Across the garage</LinkButton>}
      </Row>
    </Head>
  );
}
