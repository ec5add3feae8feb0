import { useState } from "react";
import { lastKm } from "@core/record/vehicle";
import type { Vehicle, Work } from "@core/record/types";
import { distanceText, unitOf } from "~/store/distance";
import { shortDate } from "~/store/format";
import type { Settings } from "~/store/settings";
import { Button } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Field } from "~/ui/Field";
import { Row, Sheet, Soft, Ruled } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

/** So many stand on the page; all of them in the history. */
const SHOWN = 4;

const said = ({ what, km }: Work, speed: Settings["speed"]): string =>
  [what, km === undefined ? "" : distanceText(km, speed)].filter(Boolean).join(", at ");

/** Mileage, and work that belongs to no job. */
export function WorkLog({
  vehicle,
  speed,
  today,
  problem,
  onTold,
  onTakenBack,
}: {
  vehicle: Vehicle;
  speed: Settings["speed"];
  /** Day of now, as a field of a date has it. */
  today: string;
  problem: string | undefined;
  onTold: (told: { what: string; shown: string; day: string }) => void;
  onTakenBack: (work: Work) => void;
}) {
  const all = (vehicle.work ?? []).filter((w) => !w.withdrawnAt);
  const [what, setWhat] = useState("");
  const [shown, setShown] = useState("");
  const [day, setDay] = useState(today);
  const [wrong, tell] = useState<string | undefined>(undefined);
  const [sent, setSent] = useState<{ what: string; before: number } | null>(null);
  const last = lastKm(vehicle);
  // What was typed goes when it is stored, and not before, nor when another tab writes something else.
  if (sent && all.filter((w) => w.what === sent.what).length > sent.before) {
    setSent(null);
    setWhat("");
    setShown("");
    setDay(today);
  }
  const send = () => {
    const figure = shown.replaceAll(/[\s,.']/g, "");
    if (figure && !/^\d{1,8}$/.test(figure)) return tell("Only the figures, as the odometer shows them.");
    if (!figure && !what.trim()) return tell("Write what it shows, or what was done.");
    tell(undefined);
    setSent({ what: what.trim(), before: all.filter((w) => w.what === what.trim()).length });
    onTold({ what: what.trim(), shown: figure, day });
  };
  return (
    <Sheet>
      <h2>Mileage and work</h2>
      <Soft>
        {last ? `${distanceText(last.km!, speed)} on ${shortDate(last.at)}.` : "No mileage is written down yet."}
      </Soft>
      {all.length > 0 && (
        <ul>
          {all
            .slice(-SHOWN)
            .reverse()
            .map((w) => (
              <Ruled key={`${w.at} ${w.what}`}>
                <span>
                  {shortDate(w.at)}: {said(w, speed)}
                </span>
                <ConfirmButton
                  label="Take back"
                  of={said(w, speed)}
                  question="Take this back?"
                  sure="Take it back"
                  onConfirm={() => onTakenBack(w)}
                />
              </Ruled>
            ))}
        </ul>
      )}
      <form
        style={{ display: "grid", gap: 10 }}
        onSubmit={(e) => {
          e.preventDefault();
          send();
        }}
      >
        <Row style={{ alignItems: "start" }}>
          <div style={{ flex: "1 1 150px" }}>
            <Field
              label={`Odometer, ${unitOf(speed)}`}
              inputMode="numeric"
              value={shown}
              onChange={setShown}
              maxLength={14}
              error={wrong}
            />
          </div>
          <div style={{ flex: "1 1 170px" }}>
            <Field label="On" type="date" value={day} onChange={setDay} />
          </div>
        </Row>
        <Field label="What was done" description="Or leave it empty." value={what} onChange={setWhat} maxLength={500} />
        <Button type="submit">Note mileage or work</Button>
        <Trouble problem={problem} />
      </form>
    </Sheet>
  );
}
