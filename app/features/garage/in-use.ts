import type { Face } from "@core/job/card";
import { unsaved } from "@core/record/saved";
import type { Vehicle } from "@core/record/types";
import { clock, today } from "~/store/clock";
import { seedDemo } from "~/store/demo";
import { marksIn, readGarage } from "~/store/records";
import { emptyRemoved, putBack, readRemoved } from "~/store/removed";
import { savedAt } from "~/store/saved-at";
import type { FleetRow } from "./Fleet";

/** All that a garage shows that is in use. @param demo it is one to look around in, and has its fleet from the start */
export async function readInUse(demo: boolean) {
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
  return { demo, rows, locked, reminder, removed, today: today() };
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

/** What changes records from the garage: the demo fleet is taken in, what was removed comes back, or goes for good. */
export async function carryOut(intent: unknown): Promise<void> {
  if (intent === "demo") await seedDemo();
  if (intent === "put-back") await putBack();
  if (intent === "let-go") await emptyRemoved();
}
