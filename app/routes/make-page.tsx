import { GlovePage } from "~/features/makes/GlovePage";
import { packById, packsReady } from "~/store/packs";
import { idIn } from "~/store/paths";
import { Opening } from "~/ui/Frame";
import type { Route } from "./+types/make-page";

export async function clientLoader({ params }: Route.ClientLoaderArgs) {
  await packsReady();
  const pack = packById(idIn(params.packId));
  if (!pack) throw new Response("This make is not on this device.", { status: 404 });
  return { pack };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the page" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.pack.make ?? "A make"} for the glovebox · Klinko` },
];

export default function MakePage({ loaderData }: Route.ComponentProps) {
  return <GlovePage {...loaderData} />;
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
