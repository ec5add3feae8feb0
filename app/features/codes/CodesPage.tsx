import { useDeferredValue, useState } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { searchCodes } from "@core/pack/search";
import { scopeText } from "@core/pack/scope";
import type { Pack } from "@core/pack/pack";
import { Field } from "~/ui/Field";
import { Empty, Sheet, Soft } from "~/ui/bits";
import { middle, mono } from "~/ui/theme";

const List = styled.ul`
  display: grid;
  gap: 10px;
`;

const Card = styled(Sheet)`
  gap: 4px 18px;
  ${middle} {
    grid-template-columns: 76px minmax(0, 1fr);
    > :not(b) {
      grid-column: 2;
    }
  }
  b {
    ${mono}
    font-size: 1.7rem;
    line-height: 1.2;
    grid-row: span 3;
  }
`;

/** One search over all makes at hand: by number, circuit or word. */
export function CodesPage({ packs }: { packs: readonly Pack[] }) {
  const [params, setParams] = useSearchParams();
  // The address follows a moment later: what is typed does not wait for it.
  const [words, type] = useState(params.get("q") ?? "");
  const { found, all } = searchCodes(packs, useDeferredValue(words));
  return (
    <>
      <h1>Find a code</h1>
      <Field
        label="Number, circuit or word"
        description={`In all ${packs.length} makes at hand. Several words narrow it: "24 norrvik", "coolant low"`}
        value={words}
        onChange={(q) => {
          type(q);
          setParams(q ? { q } : {}, { replace: true, preventScrollReset: true });
        }}
        maxLength={100}
        type="search"
        autoComplete="off"
      />
      <Soft role="status">
        {!words.trim()
          ? "A number means something else on each make: look for the make too."
          : all === 0
            ? ""
            : `${all} ${all === 1 ? "code" : "codes"}${all > found.length ? `, the best ${found.length} of them here` : ""}.`}
      </Soft>
      {words.trim() && all === 0 ? (
        <Empty title={`No table here knows "${words.trim()}".`}>
          <p>
            Try fewer words, or the circuit: "throttle", "coolant", "ground". A make that is not here can be added under
            Makes.
          </p>
        </Empty>
      ) : (
        <List aria-label="Codes found">
          {found.map(({ pack, system, scope, entry }, i) => (
            <li key={`${pack.id} ${system.id} ${entry.code} ${i}`}>
              <Card>
                <b>{entry.code}</b>
                <h2>{entry.title}</h2>
                <p>{entry.circuit}</p>
                <Soft>
                  {pack.make}, {system.name}, {scopeText(scope)}
                  {entry.kind === "status" && ". Status, no fault"}
                </Soft>
              </Card>
            </li>
          ))}
        </List>
      )}
    </>
  );
}
