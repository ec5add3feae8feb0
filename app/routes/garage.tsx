import { format } from "date-fns";
import type { Face } from "@core/job/card";
import { unsaved } from "@core/record/saved";
import type { Vehicle } from "@core/record/types";
import { useFetcher, useRevalidator, type ShouldRevalidateFunctionArgs } from "react-router";
import styled from "styled-components";
import { Fleet, type FleetRow } from "~/features/garage/Fleet";
import { justRemoved, RemovedLine } from "~/features/garage/RemovedLine";
import { SaveReminder } from "~/features/garage/SaveReminder";
import { StoreProblem } from "~/store/box";
import { marksIn, readGarage, removeLocked } from "~/store/records";
import { clock } from "~/store/clock";
import { seedDemo } from "~/store/demo";
import { emptyRemoved, putBack, readRemoved } from "~/store/removed";
import { savedAt } from "~/store/saved-at";
import { saveFile } from "~/store/save-file";
import { Button, LinkButton } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Caution, Empty, Row, Soft, Stack } from "~/ui/bits";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/garage";

export async function clientLoader() {
  const demo = document.documentElement.dataset.demo === "yes";
  const removed = await readRemoved();
  let garage = await readGarage();
  // Somebody who has removed all of the demo fleet does not want it back.
  if (demo && !removed && !garage.vehicles.length && !garage.locked.length) {
    await seedDemo();
    garage = await readGarage();
  }
  const { vehicles, faces, locked } = garage;
  const rows = await Promise.all(vehicles.map((v) => rowOf(v, faces.get(v.id)!)));
  // Of a made-up fleet there is nothing to lose.
  const told = vehicles.map((v) => ({ createdAt: v.createdAt, touched: touchedAt(faces.get(v.id)!) }));
  const reminder = demo ? null : unsaved(await savedAt(), told, clock.now());
  return { demo, rows, locked, reminder, removed, today: format(clock.now(), "yyyy-MM-dd") };
}

/** When something of its jobs was recorded last, as far as the garage knows. */
const touchedAt = ({ touched, last, open }: Face): string =>
  [touched, last?.closedAt ?? "", ...open.flatMap((j) => j.readings.map((r) => r.startedAt))].sort().at(-1)!;

/** Of a reading that was broken off it says how far it came: only the reading itself knows. */
async function rowOf(vehicle: Vehicle, face: Face): Promise<FleetRow> {
  const job = face.open.at(-1);
  const last = job?.readings.findLast((r) => !r.withdrawn);
  const begun = job && last && !last.recordedAt ? await marksIn(job.id, last.id) : 0;
  return { vehicle, face, begun };
}
clientLoader.hydrate = true as const;

/** Only what is shown, and in which order, stands in the address: the records are the same. */
export function shouldRevalidate({
  currentUrl,
  nextUrl,
  formMethod,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs) {
  const turned = currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search;
  return turned && !formMethod ? false : defaultShouldRevalidate;
}

/** What changes records here: the demo fleet is taken in, what was removed comes back, or goes for good. */
export async function clientAction({ request }: Route.ClientActionArgs) {
  const intent = (await request.formData()).get("intent");
  try {
    if (intent === "demo") await seedDemo();
    if (intent === "put-back") await putBack();
    if (intent === "let-go") await emptyRemoved();
  } catch (error) {
    if (error instanceof StoreProblem) return { problem: error.message };
    throw error;
  }
  return null;
}

export function HydrateFallback() {
  return <Opening what="the garage" />;
}

export const meta: Route.MetaFunction = () => [{ title: "Garage · Klinko" }];

const Head = styled(Row)`
  justify-content: space-between;
`;

const WORDS = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten"];

export default function Garage({ loaderData }: Route.ComponentProps) {
  const { rows, locked, demo, reminder, removed, today } = loaderData;
  const fetcher = useFetcher();
  const revalidator = useRevalidator();
  const open = rows.reduce((n, r) => (r.vehicle.archivedAt ? n : n + r.face.open.length), 0);
  const just = removed !== null && justRemoved(removed);
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
            {rows.length > 1 && <LinkButton to="/across">Across the garage</LinkButton>}
          </Row>
        </Head>
        {just && <RemovedLine removed={removed} />}
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
                onPress={() => void fetcher.submit({ intent: "demo" }, { method: "post", action: "/?index" })}
              >
                Look around with a demo fleet
              </Button>
            </Row>
          </Empty>
        ) : (
          <Fleet rows={rows} today={today} />
        )}
        {removed && !just && <RemovedLine removed={removed} />}
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
