import { redirect, useSubmit } from "react-router";
import { inputOf } from "@core/record/inputs";
import type { Reading } from "@core/record/types";
import { dropFilms } from "~/store/films";
import { dropPhotos } from "~/store/photos";
import { exportJob } from "~/store/save-records";
import { shortTime } from "~/store/format";
import { isReadable } from "~/store/job-data";
import { idIn, jobPath, vehiclePath } from "~/store/paths";
import { readJob, readVehicle } from "~/store/opening";
import { readingsOf, removeJob } from "~/store/records";
import { saveFile } from "~/store/save-file";
import { Button, LinkButton } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Caution, Mono, Plate, Row, Sheet, Soft, Stack } from "~/ui/bits";
import { Main, Opening, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/job-kept";

/** A job whose make is not known here: it is kept as it was written, and can be read, saved and removed. */
export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  const job = await readJob(idIn(params.jobId));
  const [vehicle, readings] = await Promise.all([readVehicle(job.vehicle), readingsOf(job)]);
  if (isReadable(vehicle)) throw redirect(jobPath(job.id));
  return { job, vehicle, readings };
}
clientLoader.hydrate = true as const;

/** The one thing that can be done to it here. */
export async function clientAction({ params }: Route.ClientActionArgs) {
  const job = await readJob(idIn(params.jobId));
  for (const reading of await removeJob(job)) await dropFilms({ reading });
  await dropPhotos({ job: job.id });
  return redirect(vehiclePath(job.vehicle));
}

export function HydrateFallback() {
  return <Opening what="the job" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.vehicle.plate ?? "Job"} · Klinko` },
];

/** What was recorded, without what a table would make of it. */
function told({ result, lists }: Reading): string {
  if (lists)
    return Object.entries(lists)
      .map(([system, l]) => `${system} ${l.codes.join(", ") || l.state}`)
      .join("; ");
  if (!result) return "nothing";
  return result.codes.length ? result.codes.join(", ") : result.state === "none" ? "nothing stored" : result.state;
}

export default function KeptJob({ loaderData: { job, vehicle, readings } }: Route.ComponentProps) {
  const submit = useSubmit();
  const save = () =>
    void exportJob(vehicle, job, readings).then((file) => saveFile(`${vehicle.plate || "job"}.json`, file));
  return (
    <>
      <TopBar />
      <Main id="work">
        <Row $gap={18}>
          <Plate>{vehicle.plate}</Plate>
          <h1>{job.title}</h1>
        </Row>
        <Caution>
          Klinko has no table for this vehicle (&quot;{vehicle.pack}&quot;, {vehicle.variant}). What was written is kept
          and shown below; open it where that make is known to go on.
        </Caution>
        <Sheet>
          <h2>Readings</h2>
          {readings.length === 0 && <Soft>None.</Soft>}
          <ul>
            {readings.map((r) => (
              <li key={r.id}>
                {shortTime(r.startedAt)}, {r.system}, {inputOf(r.input).said}: <Mono>{told(r)}</Mono>
              </li>
            ))}
          </ul>
        </Sheet>
        <Sheet>
          <h2>Notebook</h2>
          <Stack as="ol" $gap={4} aria-label="Lines of the notebook">
            {job.notebook.map((n, i) => (
              <li key={i}>
                {shortTime(n.at)} {n.text}
              </li>
            ))}
          </Stack>
        </Sheet>
        <Row>
          <Button $look="primary" onPress={save}>
            Save it as a file
          </Button>
          <LinkButton to={vehiclePath(vehicle.id)}>To the vehicle</LinkButton>
          <ConfirmButton
            label="Remove this job"
            question="Remove it from this device for good?"
            sure="Remove for good"
            onConfirm={() => void submit({}, { method: "post" })}
          />
        </Row>
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
