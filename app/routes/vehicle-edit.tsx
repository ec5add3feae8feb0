import { Form, redirect, useNavigation } from "react-router";
import { allPacks, packsReady } from "~/store/packs";
import { readVehicle } from "~/store/opening";
import { changeVehicle, readCard } from "~/store/records";
import { vehicleIn } from "~/store/vehicle-form";
import { Button, LinkButton } from "~/ui/Button";
import { Row, Soft } from "~/ui/bits";
import { Main, Opening, TopBar } from "~/ui/Frame";
import { VehicleFields } from "~/ui/VehicleFields";
import type { Route } from "./+types/vehicle-edit";
import { idIn, vehiclePath } from "~/store/paths";
import { StoreProblem } from "~/store/box";
import { Trouble } from "~/ui/Trouble";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Change ${loaderData?.vehicle.plate ?? "a vehicle"} · Klinko` },
];

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  await packsReady();
  const vehicle = await readVehicle(idIn(params.vehicleId));
  const { jobs } = await readCard(vehicle.id);
  return { vehicle, packs: allPacks(), jobs: jobs.length };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the vehicle" />;
}

export async function clientAction({ request, params }: Route.ClientActionArgs) {
  const told = vehicleIn(await request.formData());
  if ("errors" in told) return { errors: told.errors, problem: null };
  const id = idIn(params.vehicleId);
  try {
    await changeVehicle(id, (v) => ({ ...v, ...told.about }));
  } catch (error) {
    if (error instanceof StoreProblem) return { errors: {}, problem: error.message };
    throw error;
  }
  return redirect(vehiclePath(id));
}

export default function EditVehicle({ loaderData: { vehicle, packs, jobs }, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== "idle";
  return (
    <>
      <TopBar />
      <Main id="work" style={{ maxWidth: 820 }}>
        <h1>What {vehicle.plate} is</h1>
        {jobs > 0 && (
          <Soft>
            {jobs === 1 ? "Its job is" : `Its ${jobs} jobs are`} read by the table of the make, model and year that
            stand here. What was recorded stays as it is.
          </Soft>
        )}
        <Form method="post" noValidate style={{ display: "contents" }}>
          <VehicleFields packs={packs} from={vehicle} errors={actionData?.errors} />
          <Row>
            <Button $look="primary" type="submit" isDisabled={busy}>
              Keep the change
            </Button>
            <LinkButton $look="quiet" to={vehiclePath(vehicle.id)}>
              Leave it as it was
            </LinkButton>
          </Row>
          <Trouble problem={actionData?.problem} />
        </Form>
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
