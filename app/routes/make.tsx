import { useEffect, useRef, useState } from "react";
import { Outlet, redirect, useLocation, useSubmit } from "react-router";
import styled from "styled-components";
import { missingIn } from "@core/pack/make/missing";
import type { Pack } from "@core/pack/pack";
import { newJob } from "@core/record/job";
import { newVehicle } from "@core/record/vehicle";
import { systemsOf } from "@core/pack/scope";
import { standInId } from "@packs/demo-faults";
import { MakePath } from "~/features/makes/MakePath";
import { partsOf } from "~/features/makes/parts";
import { keptLamps } from "~/store/lamps";
import { dropPage } from "~/store/pages";
import { freeId, packById, packsReady, removePack, ships, writePack } from "~/store/packs";
import { copyNotes } from "~/store/code-notes";
import { idIn, jobPath, MAKE_PARTS, makePath } from "~/store/paths";
import { newId, readGarage, write } from "~/store/records";
import { editIntents, makeAction, makeIntent, useEdit, type MakeData } from "~/store/use-make";
import { object, text as words } from "@core/schema/rule";
import { Button } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Opening, TopBar } from "~/ui/Frame";
import { Soft, Stack } from "~/ui/bits";
import { wide } from "~/ui/theme";
import { useFocusOn } from "~/ui/use-focus-on";
import type { Route } from "./+types/make";

export async function clientLoader({ params, request }: Route.ClientLoaderArgs): Promise<MakeData> {
  const id = idIn(params.packId);
  await packsReady();
  const pack = packById(id);
  if (!pack)
    throw new Response("This make is not on this device: it was removed, or never brought in.", { status: 404 });
  // One that ships is looked at, and not changed.
  if (ships(id) && new URL(request.url).pathname !== makePath(id)) throw redirect(makePath(id));
  const [{ vehicles }, lamps] = await Promise.all([readGarage(), keptLamps()]);
  return { pack, ships: ships(id), usedBy: vehicles.filter((v) => v.pack === id).map((v) => v.plate), lamps };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <Opening what="the make" />;
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.pack.make ?? "A make"} · Klinko` },
];

const needed = (id: string): Pack => {
  const pack = packById(id);
  if (!pack) throw new RangeError("this make is not on this device any more");
  return pack;
};

export const clientAction = makeAction({
  ...editIntents,
  remove: makeIntent(object({}), async (_, { id }) => {
    await removePack(id);
    await dropPage(id);
    return redirect("/makes");
  }),
  /** A copy under a name of its own, to be changed. */
  copy: makeIntent(object({}), async (_, { id, now }) => {
    await packsReady();
    const pack = needed(id);
    const copy: Pack = {
      ...pack,
      id: freeId(pack.id),
      title: `${pack.title}, changed`,
      revision: now,
      own: { assumed: [], ...pack.own },
    };
    await writePack(copy);
    await copyNotes(id, copy.id);
    return redirect(makePath(copy.id, "vehicle"));
  }),
  /** A stand-in of the make, with a job, to go through it once before a wire goes in. */
  rehearse: makeIntent(object({ system: words(60) }), async ({ system }, { id, now }) => {
    await packsReady();
    const pack = needed(id);
    const [variant] = pack.variants;
    const vehicle = newVehicle(
      {
        id: standInId(newId()),
        plate: "REHEARSAL",
        pack: id,
        variant: variant.id,
        year: variant.years[1],
        engine: variant.engines[0].id,
        market: variant.markets[0],
      },
      now,
    );
    const all = systemsOf(pack, vehicle);
    const access = all.find((s) => s.system === system) ?? all[0];
    await write(vehicle);
    const job = newJob(vehicle, access.system, newId(), now);
    await write(job);
    return redirect(jobPath(job.id));
  }),
});

const Grid = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px 22px;
  padding: 0 clamp(12px, 2vw, 24px) 40px;
  max-width: 1280px;
  margin: 0 auto;
  ${wide} {
    grid-template-columns: 190px minmax(0, 1fr);
  }
`;

const Work = styled.main`
  display: grid;
  gap: 18px;
  align-content: start;
  min-width: 0;
`;

const Title = styled.strong`
  font-size: 1.1rem;
`;

/** So many changes can be taken back. */
const UNDO_MOST = 50;

/** One make: its parts in the order of the job, and the part that is open. */
export default function Make({ loaderData }: Route.ComponentProps) {
  const { pack, ships, usedBy } = loaderData;
  const { pathname } = useLocation();
  const part = MAKE_PARTS.find((p) => pathname.endsWith(`/${p}`)) ?? null;
  useFocusOn(part ?? "", "#work h1");
  return (
    <>
      <TopBar>
        <Title>{pack.make}</Title>
        {!ships && <Soft as="span">saved on this device</Soft>}
      </TopBar>
      <Grid>
        {ships ? <span /> : <Side {...loaderData} part={part} usedBy={usedBy} />}
        <Work id="work">
          <Outlet context={loaderData} />
        </Work>
      </Grid>
    </>
  );
}

function Side({ pack, part, usedBy }: MakeData & { part: (typeof MAKE_PARTS)[number] | null }) {
  const { edit, busy } = useEdit(pack);
  const submit = useSubmit();
  const [before, setBefore] = useState<Pack[]>([]);
  const last = useRef(pack);
  const going = useRef(false);
  useEffect(() => {
    const old = last.current;
    if (old.id === pack.id && old.revision !== pack.revision && !going.current)
      setBefore((b) => [...b.slice(1 - UNDO_MOST), old]);
    if (old.id !== pack.id) setBefore([]);
    going.current = false;
    last.current = pack;
  }, [pack]);
  const undo = () => {
    const to = before.at(-1);
    // What is taken back is told from the page as it stands: the one before has to be there first.
    if (!to || busy) return;
    going.current = true;
    setBefore(before.slice(0, -1));
    edit(() => to);
  };
  return (
    <Stack $gap={12} style={{ gridTemplateColumns: "minmax(0, 1fr)" }}>
      <MakePath pack={pack.id} parts={partsOf(pack)} at={part} missing={missingIn(pack)} />
      <Button isDisabled={!before.length} onPress={undo}>
        Undo last change
      </Button>
      <ConfirmButton
        label="Remove this make"
        question={
          usedBy.length
            ? `${usedBy.slice(0, 3).join(", ")}${usedBy.length > 3 ? " and more" : ""} could not be read any more. Remove it?`
            : `Remove ${pack.make}?`
        }
        sure="Remove for good"
        onConfirm={() =>
          void submit({ intent: "remove" }, { method: "post", action: makePath(pack.id), encType: "application/json" })
        }
      />
    </Stack>
  );
}

export { PageProblem as ErrorBoundary } from "~/ui/Problem";
