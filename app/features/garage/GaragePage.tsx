import { useRevalidator } from "react-router";
import { removeLocked } from "~/store/records";
import { saveFile } from "~/store/save-file";
import { Button } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Caution, Soft } from "~/ui/bits";
import { FirstVehicle } from "./FirstVehicle";
import { Fleet } from "./Fleet";
import { GarageHead } from "./GarageHead";
import type { readInUse } from "./in-use";
import { justRemoved, RemovedLine } from "./RemovedLine";
import { SaveReminder } from "./SaveReminder";

const WORDS = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine", "Ten"];

/** A garage that is in use. */
export function GaragePage({ rows, locked, demo, reminder, removed, today }: Awaited<ReturnType<typeof readInUse>>) {
  const revalidator = useRevalidator();
  const open = rows.reduce((n, r) => (r.vehicle.archivedAt ? n : n + r.face.open.length), 0);
  const just = removed !== null && justRemoved(removed);
  return (
    <>
      <GarageHead
        title={
          rows.length === 0
            ? "The garage is empty."
            : `${WORDS[open] ?? open} ${open === 1 ? "job is" : "jobs are"} open.`
        }
        across={rows.length > 1}
      >
        {demo && rows.length > 0 && <Soft>Saltmarsh Ferry &amp; Tramway Trust, a made-up fleet</Soft>}
      </GarageHead>
      {just && <RemovedLine removed={removed} />}
      {reminder && <SaveReminder {...reminder} onSaved={() => void revalidator.revalidate()} />}
      {locked.map((l) => (
        <Caution key={l.key}>
          <strong>{l.key}</strong> is read only here. {l.message}{" "}
          <Button
            $look="quiet"
            onPress={() => saveFile(`${l.key.replace("/", "-")}.json`, JSON.stringify(l.raw, null, 1))}
          >
            Save it as a file
          </Button>
          <ConfirmButton
            label="Remove it"
            of={l.key}
            question="Remove it from this device for good?"
            sure="Remove for good"
            onConfirm={() => void removeLocked(l.key).then(() => revalidator.revalidate())}
          />
        </Caution>
      ))}
      {rows.length === 0 ? <FirstVehicle /> : <Fleet rows={rows} today={today} />}
      {removed && !just && <RemovedLine removed={removed} />}
    </>
  );
}
