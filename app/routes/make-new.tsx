import { redirect } from "react-router";
import { newPack } from "@core/pack/make/build";
import { NewMake, type NewMakeFaults } from "~/features/makes/NewMake";
import { StoreProblem } from "~/store/box";
import { nowIso } from "~/store/clock";
import { idFor, packsReady, writePack } from "~/store/packs";
import { makePath } from "~/store/paths";
import { Main, TopBar } from "~/ui/Frame";
import type { Route } from "./+types/make-new";

export const meta: Route.MetaFunction = () => [{ title: "Build a make · Klinko" }];

const YEAR = "Write a model year with four digits, such as 1991.";

export async function clientAction({ request }: Route.ClientActionArgs) {
  const form = await request.formData();
  const text = (name: string) => {
    const value = form.get(name);
    return typeof value === "string" ? value.trim() : "";
  };
  const [make, model] = [text("make"), text("model")];
  const from = Number(text("from"));
  const to = text("to") ? Number(text("to")) : from;
  const good = (year: number) => Number.isInteger(year) && year >= 1950 && year <= 2035;
  const errors: NewMakeFaults["errors"] = {};
  if (!make) errors.make = "Write what the make is called.";
  if (!model) errors.model = "Write what the model is called.";
  if (!good(from)) errors.from = YEAR;
  if (text("to") && !good(to)) errors.to = YEAR;
  else if (good(from) && to < from) errors.to = `The first year is ${from}: mend the one or the other.`;
  const faults = (problem: string | null): NewMakeFaults => ({ errors, problem });
  if (Object.keys(errors).length) return faults(null);
  try {
    await packsReady();
    const id = idFor(make);
    const about = {
      id,
      make,
      model,
      years: [from, to] as [number, number],
      engine: text("engine") || "any",
      cylinders: Number(text("cylinders")) || 4,
    };
    await writePack(newPack(about, nowIso()));
    return redirect(makePath(id, "way"));
  } catch (error) {
    if (error instanceof StoreProblem || error instanceof RangeError) return faults(`Not saved: ${error.message}`);
    throw error;
  }
}

export default function MakeNew({ actionData }: Route.ComponentProps) {
  return (
    <>
      <TopBar />
      <Main id="work" style={{ maxWidth: 900 }}>
        <NewMake faults={actionData} />
      </Main>
    </>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
