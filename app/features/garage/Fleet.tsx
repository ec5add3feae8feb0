import { startTransition, useMemo, useState } from "react";
import { useLocation, useSearchParams } from "react-router";
import styled from "styled-components";
import type { Face } from "@core/job/card";
import { inOrder, isDue, isShown, ORDERS, SHOWN, type Order, type Shown } from "@core/job/fleet";
import type { Vehicle } from "@core/record/types";
import { alike, wordsOf } from "@core/search/alike";
import { vehicleName } from "~/store/vehicle-name";
import { Button } from "~/ui/Button";
import { Field } from "~/ui/Field";
import { SEARCH_HASH } from "~/ui/Keys";
import { Select } from "~/ui/Select";
import { Row, Soft } from "~/ui/bits";
import { FoundList } from "./FoundList";
import { VehicleRow } from "./VehicleRow";

export interface FleetRow {
  vehicle: Vehicle;
  face: Face;
  /** Marks of a reading that was broken off. */
  begun: number;
}

const List = styled.ul`
  display: grid;
  gap: 10px;
`;

const Tools = styled.div`
  display: grid;
  gap: 10px 16px;
  align-items: end;
  grid-template-columns: repeat(auto-fit, minmax(min(150px, 100%), 1fr));
  > :first-child:nth-last-child(3) {
    grid-column: span 2;
  }
`;

/** So many rows stand at once; of more, the rest is asked for. */
const AT_ONCE = 60;
/** Fewer are seen at a glance: nothing to sort. */
const SOME = 4;

const SHOWN_NAMES: Record<Shown, string> = {
  here: "All",
  open: "With an open job",
  due: "Inspection due",
  archived: "In the archive",
};
const ORDER_NAMES: Record<Order, string> = {
  touched: "Touched last",
  plate: "Plate",
  due: "Next inspection",
};
const NONE: Record<Shown, string> = {
  here: "All vehicles are in the archive.",
  open: "No vehicle has an open job.",
  due: "No inspection is due in the next 60 days, as far as their days are written down.",
  archived: "Nothing is in the archive. A vehicle's own page puts it there.",
};

/** Does a vehicle answer to all words that were typed? */
function answers(words: string, { vehicle }: FleetRow): boolean {
  const name = alike(`${vehicle.plate} ${vehicleName(vehicle)}`);
  return wordsOf(words).every((word) => name.includes(word));
}

const oneOf = <V extends string>(all: readonly V[], value: string | null): V => all.find((v) => v === value) ?? all[0];

/** The vehicles of a garage: those that are asked for, in the order that is asked for. */
export function Fleet({ rows, today }: { rows: readonly FleetRow[]; today: string }) {
  const [asked, ask] = useSearchParams();
  const { hash } = useLocation();
  const show = oneOf(SHOWN, asked.get("show"));
  const order = oneOf(ORDERS, asked.get("order"));
  const [words, setWords] = useState("");
  const [all, setAll] = useState(false);
  const change = (name: string, value: string, usual: string) =>
    ask(
      (params) => {
        if (value === usual) params.delete(name);
        else params.set(name, value);
        return params;
      },
      { replace: true, preventScrollReset: true },
    );
  const kept = useMemo(
    () =>
      inOrder(
        rows.filter((r) => isShown(r, show, today)),
        order,
      ),
    [rows, show, order, today],
  );
  const found = useMemo(() => (words.trim() ? kept.filter((r) => answers(words.trim(), r)) : kept), [kept, words]);
  const shown = all ? found : found.slice(0, AT_ONCE);
  const count = (of: Shown) => rows.filter((r) => isShown(r, of, today)).length;
  return (
    <>
      {(rows.length >= SOME || rows.some((r) => r.face.touched)) && (
        <Tools>
          <Field
            label="Search: a plate, a code, a word"
            type="search"
            value={words}
            onChange={setWords}
            autoFocus={hash === SEARCH_HASH}
          />
          {rows.length >= SOME && (
            <>
              <Select
                label="Show"
                value={show}
                options={SHOWN.map((value) => ({ value, label: `${SHOWN_NAMES[value]} (${count(value)})` }))}
                onChange={(value) => change("show", value, SHOWN[0])}
              />
              <Select
                label="Order"
                value={order}
                options={ORDERS.map((value) => ({ value, label: ORDER_NAMES[value] }))}
                onChange={(value) => change("order", value, ORDERS[0])}
              />
            </>
          )}
        </Tools>
      )}
      <List aria-label="Vehicles">
        {shown.map(({ vehicle, face, begun }) => (
          <VehicleRow
            key={vehicle.id}
            vehicle={vehicle}
            name={vehicleName(vehicle)}
            face={face}
            begun={begun}
            due={isDue(vehicle, today)}
          />
        ))}
      </List>
      <Soft role="status">
        {kept.length === 0
          ? NONE[show]
          : found.length === 0
            ? `No vehicle is called "${words.trim()}".`
            : shown.length < found.length && `The first ${shown.length} of ${found.length}.`}
      </Soft>
      {shown.length < found.length && (
        <Row>
          <Button onPress={() => startTransition(() => setAll(true))}>Show all {found.length}</Button>
        </Row>
      )}
      {words.trim() && <FoundList words={words} besides={found.length > 0} />}
    </>
  );
}
