import { useFetcher, useRevalidator } from "react-router";
import styled from "styled-components";
import { VehicleRow } from "~/features/garage/VehicleRow";
import { readEverything } from "~/store/db";
import { seedDemo } from "~/store/demo";
import { vehicleName } from "~/store/vehicle-name";
import { saveFile } from "~/store/save-file";
import { Button, LinkButton } from "~/ui/Button";
import { Caution, Empty, Row, Soft, Stack } from "~/ui/bits";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/garage";

export async function clientLoader() {
  const demo = document.documentElement.dataset.demo === "yes";
  if (demo) await seedDemo();
  return { demo, ...(await readEverything()) };
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

const WORDS = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten"];

export default function Garage({ loaderData }: Route.ComponentProps) {
  const { vehicles, jobs, readings, locked, demo } = loaderData;
  const fetcher = useFetcher();
  const revalidator = useRevalidator();
  const open = jobs.filter((j) => !j.closedAt);
  const lastTouched = (id: string) =>
    jobs.filter((j) => j.vehicle === id).reduce((t, j) => (j.openedAt > t ? j.openedAt : t), "");
  const sorted = [...vehicles].sort(
    (a, b) => lastTouched(b.id).localeCompare(lastTouched(a.id)) || a.plate.localeCompare(b.plate),
  );
  return (
    <>
      <TopBar />
      <Main id="work">
        <Head>
          <Stack $gap={2}>
            <h1>
              {vehicles.length === 0
                ? "The garage is empty."
                : `${WORDS[open.length] ?? open.length} ${open.length === 1 ? "job is" : "jobs are"} open.`}
            </h1>
            {demo && vehicles.length > 0 && <Soft>Saltmarsh Ferry &amp; Tramway Trust, a made-up fleet</Soft>}
          </Stack>
          <LinkButton to="/vehicles/new">Add a vehicle</LinkButton>
        </Head>
        {locked.map((l) => (
          <Caution key={l.key}>
            <strong>{l.key}</strong> is read only here. {l.message}{" "}
            <Button
              $look="quiet"
              onPress={() => saveFile(`${l.key.replace("/", "-")}.json`, JSON.stringify(l.raw, null, 1))}
            >
              Save it as a file
            </Button>
          </Caution>
        ))}
        {vehicles.length === 0 ? (
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
          <List aria-label="Vehicles">
            {sorted.map((v) => (
              <VehicleRow
                key={v.id}
                vehicle={v}
                name={vehicleName(v)}
                jobs={jobs.filter((j) => j.vehicle === v.id).sort((a, b) => a.openedAt.localeCompare(b.openedAt))}
                readings={readings
                  .filter((r) => r.vehicle === v.id)
                  .sort((a, b) => a.startedAt.localeCompare(b.startedAt))}
              />
            ))}
          </List>
        )}
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
