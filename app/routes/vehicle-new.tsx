import { useState } from "react";
import { Form, Link, redirect, useNavigation, useSearchParams } from "react-router";
import { outside } from "@core/pack/scope";
import { newJob } from "@core/record/job";
import { newVehicle } from "@core/record/vehicle";
import { systemsOf } from "@core/pack/scope";
import { allPacks, packById, packsReady } from "~/store/packs";
import { nowIso } from "~/store/clock";
import { newId, write } from "~/store/records";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { Main, Opening, TopBar } from "~/ui/Frame";
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
  const text = (name: string) => {
    const value = form.get(name);
    return typeof value === "string" ? value.trim() : "";
  };
  const pack = packById(text("pack"));
  const plate = text("plate").toUpperCase();
  const year = Number(text("year"));
  const errors: { plate?: string; year?: string; model?: string } = {};
  if (!plate) errors.plate = "Write what you call it: the plate, or a name.";
  if (plate.length > 16) errors.plate = "Keep it to 16 characters.";
  if (!Number.isInteger(year) || year < 1950 || year > 2035)
    errors.year = "Write the model year with four digits, such as 1991.";
  if (!pack) errors.model = "Pick the make first.";
  const now = nowIso();
  const vehicle = newVehicle(
    {
      id: newId(),
      plate,
      pack: pack?.id ?? "",
      variant: text("variant"),
      year,
      engine: text("engine"),
      market: text("market") || "home",
    },
    now,
  );
  if (pack && !errors.year) {
    const why = outside(pack, vehicle);
    if (why) errors[why.includes("covers") ? "year" : "model"] = why;
  }
  if (Object.keys(errors).length || !pack) return { errors, problem: null };
  try {
    await write(vehicle);
  } catch (error) {
    if (error instanceof StoreProblem) return { errors, problem: error.message };
    throw error;
  }
  const system = systemsOf(pack, vehicle)[0]?.system;
  if (text("intent") !== "job" || !system) return redirect("/");
  const job = newJob(vehicle, system, newId(), now);
  await write(job);
  return redirect(jobPath(job.id, "story"));
}

export default function NewVehicle({ loaderData: { packs }, actionData }: Route.ComponentProps) {
  const errors = actionData?.errors;
  const [params] = useSearchParams();
  const [packId, setPack] = useState<string>(params.get("make") ?? "");
  const pack = packs.find((p) => p.id === packId) ?? packs[0];
  const [variantId, setVariant] = useState<string>(params.get("model") ?? pack.variants[0].id);
  const variant = pack.variants.find((v) => v.id === variantId) ?? pack.variants[0];
  const [engine, setEngine] = useState<string>(params.get("engine") ?? "");
  const [market, setMarket] = useState<string>("");
  const engineId = variant.engines.some((e) => e.id === engine) ? engine : variant.engines[0].id;
  const marketId = variant.markets.includes(market) ? market : variant.markets[0];
  const busy = useNavigation().state !== "idle";
  return (
    <>
      <TopBar />
      <Main id="work" style={{ maxWidth: 820 }}>
        <h1>Which vehicle is it?</h1>
        <Form method="post" noValidate style={{ display: "contents" }}>
          <Sheet>
            <Field label="Plate or name" name="plate" error={errors?.plate} autoFocus />
            <Choice
              label="Make"
              value={pack.id}
              onChange={setPack}
              options={packs.map((p) => ({ value: p.id, label: p.make }))}
            />
            <Soft>
              <Link to="/makes/new">My make is not here</Link>: build it from its manual&apos;s page.
            </Soft>
            <Choice
              label="Model"
              value={variant.id}
              onChange={setVariant}
              options={pack.variants.map((v) => ({ value: v.id, label: v.model }))}
            />
            <Field
              label="Model year"
              name="year"
              defaultValue={params.get("year") ?? ""}
              inputMode="numeric"
              error={errors?.year}
              description={`This pack covers ${variant.years[0]} to ${variant.years[1]}.`}
            />
            <Choice
              label="Engine"
              value={engineId}
              onChange={setEngine}
              options={variant.engines.map((e) => ({ value: e.id, label: e.name }))}
            />
            {variant.markets.length > 1 && (
              <Choice
                label="Market"
                value={marketId}
                onChange={setMarket}
                options={variant.markets.map((m) => ({ value: m, label: m }))}
              />
            )}
            <input type="hidden" name="pack" value={pack.id} />
            <input type="hidden" name="variant" value={variant.id} />
            <input type="hidden" name="engine" value={engineId} />
            <input type="hidden" name="market" value={marketId} />
            {errors?.model && <Caution>{errors.model}</Caution>}
            <Soft>
              Not sure, or not in the list? <Link to="/find">Find it by what you see.</Link> A code from another
              make&apos;s table would mislead.
            </Soft>
          </Sheet>
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
