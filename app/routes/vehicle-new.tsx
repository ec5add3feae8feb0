import { Form, redirect, useNavigation, useSearchParams } from "react-router";
import { systemsOf } from "@core/pack/scope";
import { newJob } from "@core/record/job";
import { newVehicle } from "@core/record/vehicle";
import { allPacks, packById, packsReady } from "~/store/packs";
import { nowIso } from "~/store/clock";
import { newId, write } from "~/store/records";
import { vehicleIn } from "~/store/vehicle-form";
import { Button, LinkButton } from "~/ui/Button";
import { Row } from "~/ui/bits";
import { Main, Opening, TopBar } from "~/ui/Frame";
import { VehicleFields } from "~/ui/VehicleFields";
import type { Route } from "./+types/vehicle-new";
import { jobPath } from "~/store/paths";
import { StoreProblem } from "~/store/box";
import { Trouble } from "~/ui/Trouble";

export const meta: Route.MetaFunction = () => [{ title: "Add a vehicle · Klinko" }];

export async function clientLoader() {
  await packsReady();
  return { packs: allPacks() };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the makes" />;
}

export async function clientAction({ request }: Route.ClientActionArgs) {
  const form = await request.formData();
  const told = vehicleIn(form);
  if ("errors" in told) return { errors: told.errors, problem: null };
  const now = nowIso();
  const vehicle = newVehicle({ id: newId(), ...told.about }, now);
  try {
    await write(vehicle);
  } catch (error) {
    if (error instanceof StoreProblem) return { errors: {}, problem: error.message };
    throw error;
  }
  const pack = packById(vehicle.pack);
  const system = pack && systemsOf(pack, vehicle)[0]?.system;
  if (form.get("intent") !== "job" || !system) return redirect("/");
  const job = newJob(vehicle, system, newId(), now);
  await write(job);
  return redirect(jobPath(job.id, "story"));
}

export default function NewVehicle({ loaderData: { packs }, actionData }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const asked = (name: string) => params.get(name) ?? undefined;
  const make = asked("make");
  const busy = useNavigation().state !== "idle";
  return (
    <>
      <TopBar />
      <Main id="work" style={{ maxWidth: 820 }}>
        <h1>Which vehicle is it?</h1>
        <Form method="post" noValidate style={{ display: "contents" }}>
          <VehicleFields
            packs={packs}
            from={{
              pack: packs.find((p) => p.id === make)?.id,
              variant: asked("model"),
              year: asked("year"),
              engine: asked("engine"),
            }}
            errors={actionData?.errors}
          />
          <Row>
            <Button $look="primary" type="submit" name="intent" value="job" isDisabled={busy}>
              Add and start a job
            </Button>
            <Button type="submit" name="intent" value="add" isDisabled={busy}>
              Add only
            </Button>
            <LinkButton $look="quiet" to="/">
              Back
            </LinkButton>
          </Row>
          <Trouble problem={actionData?.problem} />
        </Form>
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
