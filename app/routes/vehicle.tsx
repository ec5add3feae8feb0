import { Form, Link, redirect, useSubmit } from "react-router";
import styled from "styled-components";
import { systemsOf } from "@core/pack/scope";
import { isCondition } from "@core/diagnosis/conditions";
import { END_WORDS } from "@core/job/end";
import { newJob } from "@core/record/job";
import type { Vehicle } from "@core/record/types";
import { archived, withoutWork, withTold, withWork } from "@core/record/vehicle";
import { workToldRule } from "@core/record/types";
import { holds, rulesReady } from "@core/schema/rule";
import { packById } from "~/store/packs";
import { nowIso, today } from "~/store/clock";
import { kmOf } from "~/store/distance";
import { dropPhoto } from "~/store/photos";
import { readSettings } from "~/store/settings";
import { readVehicle } from "~/store/opening";
import { changeVehicle, newId, readCard, write } from "~/store/records";
import { KEPT_DAYS, takeAway } from "~/store/removed";
import { shortDate } from "~/store/format";
import { vehicleName } from "~/store/vehicle-name";
import { Changes } from "~/features/vehicle/Changes";
import { VehiclePhoto } from "~/features/vehicle/VehiclePhoto";
import { WorkLog } from "~/features/vehicle/WorkLog";
import { WhenItComes } from "~/features/conditions/WhenItComes";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Mono, Plate, Row, Sheet, Soft, Stack, Ruled } from "~/ui/bits";
import { Main, Opening, TopBar } from "~/ui/Frame";
import { middle } from "~/ui/theme";
import type { Route } from "./+types/vehicle";
import { historyPath, idIn, jobPath, vehicleEditPath } from "~/store/paths";
import { StoreProblem } from "~/store/box";
import { InspectionDay } from "~/ui/InspectionDay";
import { IMMOBILISER, RADIO } from "~/ui/keep-alive";
import { Trouble } from "~/ui/Trouble";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const vehicle = await readVehicle(idIn(params.vehicleId));
  const { jobs } = await readCard(vehicle.id);
  const { speed } = await readSettings();
  return { vehicle, jobs: [...jobs].reverse(), speed };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the vehicle" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.vehicle.plate ?? "Vehicle"} · Klinko` },
];

/** Beside which part of the page it stands that something could not be stored. */
const PLACES: Partial<Record<string, "out" | "work">> = {
  remove: "out",
  archive: "out",
  work: "work",
  "work-back": "work",
};

/** What cannot be stored comes back as words, and what was typed stays. */
export async function clientAction(
  args: Route.ClientActionArgs,
): Promise<Response | { error?: string; wrong?: string; problem?: string; of?: string } | null> {
  const intent = (await args.request.clone().formData()).get("intent");
  try {
    return await act(args);
  } catch (error) {
    if (error instanceof StoreProblem)
      return { problem: error.message, of: typeof intent === "string" ? PLACES[intent] : undefined };
    throw error;
  }
}

async function act({ request, params }: Route.ClientActionArgs) {
  const vehicle = await readVehicle(idIn(params.vehicleId));
  const form = await request.formData();
  const text = (name: string) => {
    const value = form.get(name);
    return typeof value === "string" ? value.trim() : "";
  };
  const intent = text("intent");
  if (intent === "new-job") {
    const pack = packById(vehicle.pack);
    const system = pack && systemsOf(pack, vehicle)[0]?.system;
    if (!system) throw new Response("No pack knows a way to read this vehicle.", { status: 409 });
    const job = newJob(vehicle, system, newId(), nowIso());
    await write(job);
    return redirect(jobPath(job.id, "story"));
  }
  if (intent === "remove") {
    await takeAway(vehicle);
    return redirect("/");
  }
  if (intent === "archive") await changeVehicle(vehicle.id, (v) => archived(v, v.archivedAt ? undefined : nowIso()));
  if (intent === "immobiliser") {
    const immobiliser = IMMOBILISER.find((r) => r.value === text("immobiliser"))?.value;
    if (immobiliser) await changeVehicle(vehicle.id, (v) => ({ ...v, immobiliser }));
  }
  if (intent === "inspection") {
    const day = text("day");
    await changeVehicle(vehicle.id, (v) => withTold(v, { inspection: /^\d{4}-\d\d-\d\d$/.test(day) ? day : null }));
  }
  if (intent === "radio") {
    const radio = RADIO.find((r) => r.value === text("radio"))?.value;
    if (radio) await changeVehicle(vehicle.id, (v) => ({ ...v, radio }));
  }
  if (intent === "work") {
    const shown = text("shown");
    const { speed } = await readSettings();
    await rulesReady();
    const told = holds(workToldRule, { what: text("what"), ...(shown && { km: kmOf(Number(shown), speed) }) });
    if ("faults" in told) return { wrong: "This is more than an odometer shows." };
    await changeVehicle(vehicle.id, (v) => withWork(v, told.value, atNoonOf(text("day"))));
  }
  if (intent === "work-back")
    await changeVehicle(vehicle.id, (v) => withoutWork(v, { at: text("at"), what: text("what") }, nowIso()));
  if (intent === "photo") {
    const photo = text("photo");
    const before = vehicle.photo;
    await changeVehicle(vehicle.id, ({ photo: _, ...v }) => (photo ? { ...v, photo } : v));
    if (before && before !== photo) await dropPhoto(before);
  }
  if (intent === "drive") {
    const told = text("conditions").split("|").filter(isCondition);
    const drive = { at: nowIso(), cameOn: text("cameOn") === "yes", conditions: told };
    await changeVehicle(vehicle.id, (v) => ({ ...v, drives: [...v.drives, drive] }));
  }
  if (intent === "remove-drive")
    await changeVehicle(vehicle.id, (v) => ({ ...v, drives: v.drives.filter((d) => d.at !== text("at")) }));
  if (intent === "add-change") {
    const what = text("text").slice(0, 200);
    const codes = text("codes").match(/\d{1,4}/g) ?? [];
    if (!what) return { error: "Write what was changed." };
    await changeVehicle(vehicle.id, (v) => ({ ...v, changes: [...v.changes, { text: what, codes: [...codes] }] }));
  }
  if (intent === "remove-change")
    await changeVehicle(vehicle.id, (v) => {
      const gone = v.changes.find((c) => c.text === text("text"));
      return { ...v, changes: v.changes.filter((c) => c !== gone) };
    });
  return null;
}

/** A day that somebody chose; where it is today, just now. */
function atNoonOf(day: string): string {
  const other = /^\d{4}-\d\d-\d\d$/.test(day) && day !== today();
  return other ? new Date(`${day}T12:00:00`).toISOString() : nowIso();
}

const Columns = styled.div`
  display: grid;
  gap: 18px;
  align-items: start;
  ${middle} {
    grid-template-columns: 3fr 2fr;
  }
`;

const Line = styled(Ruled)`
  a {
    display: inline-block;
    padding: 6px 0;
    font-weight: 700;
  }
`;

/** What was done so far, the newest first. */
function History({ vehicle, jobs }: Pick<Route.ComponentProps["loaderData"], "vehicle" | "jobs">) {
  return (
    <Sheet>
      <h2>History</h2>
      {jobs.length === 0 && <Soft>No job yet. Start one when a lamp comes on.</Soft>}
      <ul>
        {jobs.map((j) => {
          const codes = [...new Set(j.readings.filter((r) => !r.withdrawn).flatMap((r) => r.codes))];
          return (
            <Line key={j.id}>
              <span>
                <Link to={jobPath(j.id)}>{j.title}</Link>
                <Soft>
                  {shortDate(j.openedAt)}
                  {codes.length > 0 && (
                    <>
                      {" "}
                      · codes <Mono>{codes.join(", ")}</Mono>
                    </>
                  )}
                </Soft>
                {j.verdict && <p>{j.verdict}</p>}
              </span>
              <strong>{j.closedAt ? (j.end ? END_WORDS[j.end].toLowerCase() : "closed") : "open"}</strong>
            </Line>
          );
        })}
      </ul>
      {(jobs.length > 0 || vehicle.drives.length > 0 || Boolean(vehicle.work?.length)) && (
        <div>
          <LinkButton to={historyPath(vehicle.id)}>All of it by date</LinkButton>
        </div>
      )}
    </Sheet>
  );
}

/** What takes it out of the garage: for now, or with all that was recorded. */
function OutOfTheWay({ vehicle, jobs, problem }: { vehicle: Vehicle; jobs: number; problem: string | undefined }) {
  const submit = useSubmit();
  return (
    <Sheet>
      <h2>Out of the way</h2>
      <Soft>
        {vehicle.archivedAt
          ? `In the archive since ${shortDate(vehicle.archivedAt)}. All its records are here.`
          : "In the archive it stays with all its records, and the garage shows it only when asked."}
      </Soft>
      <Row>
        <Button onPress={() => void submit({ intent: "archive" }, { method: "post" })}>
          {vehicle.archivedAt ? "Take it out of the archive" : "Put it in the archive"}
        </Button>
      </Row>
      <Soft>Removed, it can be put back in the garage for {KEPT_DAYS} days, until another one is removed.</Soft>
      <Row>
        <ConfirmButton
          label="Remove this vehicle"
          question={`Remove ${vehicle.plate}${jobs ? ` with ${jobs === 1 ? "its job" : `its ${jobs} jobs`}` : ""}?`}
          sure="Remove it"
          onConfirm={() => void submit({ intent: "remove" }, { method: "post" })}
        />
      </Row>
      <Trouble problem={problem} />
    </Sheet>
  );
}

export default function VehiclePage({ loaderData, actionData }: Route.ComponentProps) {
  const { vehicle, jobs, speed } = loaderData;
  const submit = useSubmit();
  const open = jobs.find((j) => !j.closedAt);
  return (
    <>
      <TopBar />
      <Main id="work">
        <Row $gap={18}>
          <Plate style={{ fontSize: "1.3rem" }}>{vehicle.plate}</Plate>
          <h1>
            {vehicleName(vehicle)}, {vehicle.year}
          </h1>
          <LinkButton $look="quiet" to={vehicleEditPath(vehicle.id)}>
            Change what it is
          </LinkButton>
          <Row style={{ marginLeft: "auto" }}>
            {open ? (
              <>
                <LinkButton $look="primary" to={jobPath(open.id)}>
                  Go on with the open job
                </LinkButton>
                <ConfirmButton
                  label="New job"
                  question="The open one stays open. Start another?"
                  sure="Start another"
                  keep="No"
                  onConfirm={() => void submit({ intent: "new-job" }, { method: "post" })}
                />
              </>
            ) : (
              <Form method="post">
                <Button $look="primary" type="submit" name="intent" value="new-job">
                  New job
                </Button>
              </Form>
            )}
          </Row>
        </Row>
        <Columns>
          <Stack>
            <History vehicle={vehicle} jobs={jobs} />
            <WorkLog
              vehicle={vehicle}
              speed={speed}
              today={today()}
              problem={actionData?.wrong ?? (actionData?.of === "work" ? actionData.problem : undefined)}
              onTold={(told) => void submit({ intent: "work", ...told }, { method: "post" })}
              onTakenBack={({ at, what }) => void submit({ intent: "work-back", at, what }, { method: "post" })}
            />
            <WhenItComes vehicle={vehicle} jobs={jobs} />
          </Stack>
          <Stack>
            <Sheet aria-label="Photo">
              <VehiclePhoto
                vehicle={vehicle}
                onChosen={(photo) => void submit({ intent: "photo", photo: photo ?? "" }, { method: "post" })}
              />
            </Sheet>
            <Changes
              vehicle={vehicle}
              error={actionData?.error}
              problem={actionData?.of ? undefined : actionData?.problem}
            />
            <Sheet>
              <Choice
                label="After a power cut, the radio"
                value={vehicle.radio === "not-asked" ? null : vehicle.radio}
                options={RADIO}
                onChange={(radio) => void submit({ intent: "radio", radio }, { method: "post" })}
              />
              <Choice
                label="After a power cut, the immobiliser"
                value={vehicle.immobiliser === "not-asked" ? null : vehicle.immobiliser}
                options={IMMOBILISER}
                onChange={(immobiliser) => void submit({ intent: "immobiliser", immobiliser }, { method: "post" })}
              />
              <InspectionDay
                key={vehicle.inspection}
                on={vehicle.inspection ?? ""}
                onTold={(day) => void submit({ intent: "inspection", day: day ?? "" }, { method: "post" })}
              />
            </Sheet>
            <OutOfTheWay
              vehicle={vehicle}
              jobs={jobs.length}
              problem={actionData?.of === "out" ? actionData.problem : undefined}
            />
          </Stack>
        </Columns>
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
