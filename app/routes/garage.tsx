import { startTransition, useMemo, useState } from "react";
import type { Face } from "@core/job/card";
import { unsaved, type Unsaved } from "@core/record/saved";
import type { Vehicle } from "@core/record/types";
import { useFetcher, useRevalidator } from "react-router";
import styled from "styled-components";
import { VehicleRow } from "~/features/garage/VehicleRow";
import { marksIn, readGarage, removeLocked } from "~/store/records";
import { clock } from "~/store/clock";
import { seedDemo } from "~/store/demo";
import { savedAt } from "~/store/saved-at";
import { vehicleName } from "~/store/vehicle-name";
import { saveFile } from "~/store/save-file";
import { Button, LinkButton } from "~/ui/Button";
import { Field } from "~/ui/Field";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Caution, Empty, Row, Sheet, Soft, Stack } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/garage";

export async function clientLoader() {
  const demo = document.documentElement.dataset.demo === "yes";
  let garage = await readGarage();
  if (demo && !garage.vehicles.length && !garage.locked.length) {
    await seedDemo();
    garage = await readGarage();
  }
  const { vehicles, faces, locked } = garage;
  const rows = await Promise.all(vehicles.map((v) => rowOf(v, faces.get(v.id)!)));
  // Those that were touched last come first.
  rows.sort((a, b) => b.face.touched.localeCompare(a.face.touched) || a.vehicle.plate.localeCompare(b.vehicle.plate));
  // Of a made-up fleet there is nothing to lose.
  const told = vehicles.map((v) => ({ createdAt: v.createdAt, touched: touchedAt(faces.get(v.id)!) }));
  const reminder = demo ? null : unsaved(await savedAt(), told, clock.now());
  return { demo, rows, locked, reminder };
}

/** When something of its jobs was recorded last, as far as the garage knows. */
const touchedAt = ({ touched, last, open }: Face): string =>
  [touched, last?.closedAt ?? "", ...open.flatMap((j) => j.readings.map((r) => r.startedAt))].sort().at(-1)!;

/** Of a reading that was broken off it says how far it came: only the reading itself knows. */
async function rowOf(vehicle: Vehicle, face: Face) {
  const job = face.open.at(-1);
  const last = job?.readings.findLast((r) => !r.withdrawn);
  const begun = job && last && !last.recordedAt ? await marksIn(job.id, last.id) : 0;
  return { vehicle, face, begun };
}
clientLoader.hydrate = true as const;

/** The one thing to do here that changes records: take the demo fleet in. */
export async function clientAction() {
  await seedDemo();
  return null;
}

export function HydrateFallback() {
  return <Opening what="the garage" />;
}

export const meta: Route.MetaFunction = () => [{ title: "Garage · Klinko" }];

const List = styled.ul`
  display: grid;
  gap: 10px;
`;

const Head = styled(Row)`
  justify-content: space-between;
`;

/** So many rows stand at once; of more, the rest is asked for. */
const AT_ONCE = 60;
/** From so many vehicles on one looks for a name rather than going through them. */
const MANY = 12;

/** Does a vehicle answer to all words that were typed? */
function answers(words: string, { vehicle }: { vehicle: Vehicle }): boolean {
  const name = `${vehicle.plate} ${vehicleName(vehicle)}`.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => name.includes(word));
}

const WORDS = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten"];

export default function Garage({ loaderData }: Route.ComponentProps) {
  const { rows, locked, demo, reminder } = loaderData;
  const [words, setWords] = useState("");
  const [all, setAll] = useState(false);
  const found = useMemo(() => (words.trim() ? rows.filter((r) => answers(words.trim(), r)) : rows), [rows, words]);
  const shown = all ? found : found.slice(0, AT_ONCE);
  const fetcher = useFetcher();
  const revalidator = useRevalidator();
  const open = rows.reduce((n, r) => n + r.face.open.length, 0);
  return (
    <>
      <TopBar />
      <Main id="work">
        <Head>
          <Stack $gap={2}>
            <h1>
              {rows.length === 0
                ? "The garage is empty."
                : `${WORDS[open] ?? open} ${open === 1 ? "job is" : "jobs are"} open.`}
            </h1>
            {demo && rows.length > 0 && <Soft>Saltmarsh Ferry &amp; Tramway Trust, a made-up fleet</Soft>}
          </Stack>
          <Row>
            <LinkButton to="/vehicles/new">Add a vehicle</LinkButton>
            <LinkButton to="/buying">Look at one to buy</LinkButton>
          </Row>
        </Head>
        {reminder && <SaveReminder {...reminder} onSaved={() => void revalidator.revalidate()} />}
        {locked.map((l) => (
          <Caution key={l.key}>
            <strong>{l.key}</strong> is read only here. {l.message}{" "}
            <Button
              $look="quiet"
              onPress={() => saveFile(`${l.key.replace("/", "-")}.json`, JSON.stringify(l.raw, null, 1))}
            >
              Save it as a file
            </Button>
            <ConfirmButton
              label="Remove it"
              of={l.key}
              question="Remove it from this device for good?"
              sure="Remove for good"
              onConfirm={() => void removeLocked(l.key).then(() => revalidator.revalidate())}
            />
          </Caution>
        ))}
        {rows.length === 0 ? (
          <Empty title="Put in the first vehicle">
            <p>Klinko watches its lamp with you, says what the codes mean on it, and keeps the notebook.</p>
            <Row>
              <LinkButton $look="primary" to="/vehicles/new">
                Add a vehicle
              </LinkButton>
              <Button
                isPending={fetcher.state !== "idle"}
                onPress={() =>
                  void fetcher.submit(null, { method: "post", action: "/?index" }).then(() => revalidator.revalidate())
                }
              >
                Look around with a demo fleet
              </Button>
            </Row>
          </Empty>
        ) : (
          <>
            {rows.length > MANY && (
              <Field label={`Find among ${rows.length}`} type="search" value={words} onChange={setWords} />
            )}
            <List aria-label="Vehicles">
              {shown.map(({ vehicle, face, begun }) => (
                <VehicleRow key={vehicle.id} vehicle={vehicle} name={vehicleName(vehicle)} face={face} begun={begun} />
              ))}
            </List>
            <Soft role="status">
              {found.length === 0
                ? `No vehicle is called "${words.trim()}": try its plate, make or model.`
                : shown.length < found.length && `The ${shown.length} touched last of ${found.length}.`}
            </Soft>
            {shown.length < found.length && (
              <Row>
                <Button onPress={() => startTransition(() => setAll(true))}>Show all {found.length}</Button>
              </Row>
            )}
          </>
        )}
      </Main>
    </>
  );
}

/** The records are in this browser alone: who keeps them for years wants a file. */
function SaveReminder({ days, vehicles, onSaved }: Unsaved & { onSaved: () => void }) {
  const [problem, tell] = useState<string | null>(null);
  return (
    <Sheet aria-label="Save your records">
      <Row>
        <p style={{ flex: "1 1 280px" }}>
          {days === null
            ? "These records are in this browser alone. Keep a file of them, too."
            : `Saved as a file ${days} days ago; ${vehicles === 1 ? "one vehicle has" : `${vehicles} vehicles have`} news since.`}
        </p>
        <Button
          onPress={() =>
            // What writes files is only loaded then: a garage that opens does not wait for it.
            void import("~/store/transfer")
              .then(({ saveEverything }) => saveEverything())
              .then(onSaved, (error: Error) => tell(error.message))
          }
        >
          Save all records as a file
        </Button>
      </Row>
      <Trouble problem={problem} />
    </Sheet>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
