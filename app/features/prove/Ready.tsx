import { addDays, format, parseISO } from "date-fns";
import { useState } from "react";
import { countingSince } from "@core/proving/count";
import { inspectionLies, mayBePermanent, readyDays, type ReadyDays } from "@core/proving/ready";
import { saveDays, type CalendarDay } from "~/store/calendar";
import { clock } from "~/store/clock";
import type { JobData } from "~/store/job-data";
import { jobPath } from "~/store/paths";
import { useIntents, useJob } from "~/store/use-job";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { daysTo, InspectionDay } from "~/ui/InspectionDay";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { Why } from "~/ui/Why";
import type { JobIntents } from "~/store/job-intents";
import { ReadyBar } from "./ReadyBar";

/** How often it is driven, in steps that somebody knows without counting. */
const OFTEN = [
  { value: "1", label: "Once a week" },
  { value: "3", label: "Three times a week" },
  { value: "7", label: "Every day" },
  { value: "14", label: "Twice a day" },
] as const;

const day = (inDays: number) => addDays(clock.now(), inDays);
const dayText = (inDays: number) => format(day(inDays), "d MMM");

/** Since when its monitors run anew: the last clear that starts them from nothing; null where none did in this job. */
function since({ job, pack }: JobData): string | null {
  const starts = (way: string) => pack.clears.find((w) => w.id === way)?.costs.some((c) => c.id === "readiness");
  return job.clears.findLast((c) => starts(c.way))?.at ?? null;
}

/** When the monitors are likely complete, held against the day of the inspection. */
export function Ready() {
  const data = useJob();
  const { job, vehicle, pack, systems, judged } = data;
  const { send, problem } = useIntents<JobIntents>(null);
  const [fault, tell] = useState<string | null>(null);
  const { monitors } = pack.proving;
  const from = since(data);
  const lamp = systems.find((s) => s.way.tells.kind === "readiness");
  const seen = judged.statements.findLast((s) => s.kind === "ready" || s.kind === "not-ready");
  if (!monitors || (!from && !seen)) return null;
  const done = from ? countingSince(job.rides, from).length : 0;
  const days = vehicle.drivesAWeek === undefined ? null : readyDays(pack, vehicle.drivesAWeek, done);
  const inspectionIn = daysTo(vehicle.inspection);
  const isReady = seen?.kind === "ready";
  const file = days && calendarOf(data, days, inspectionIn);
  return (
    <Sheet aria-label="Ready for inspection">
      <h2>
        {isReady
          ? "Ready, as the lamp showed it."
          : !days
            ? "When will it be ready for inspection?"
            : days.last === 0
              ? "It may be ready now: watch the lamp."
              : `Ready most likely between ${dayText(days.first)} and ${dayText(days.last)}.`}
      </h2>
      {!isReady && (
        <Choice
          label="How often is it driven like that?"
          value={String(vehicle.drivesAWeek ?? "")}
          options={OFTEN}
          onChange={(n) => send({ intent: "vehicle", drivesAWeek: Number(n) })}
        />
      )}
      {!isReady && days && (
        <>
          {days.last > 0 && <ReadyBar days={days} inspectionIn={inspectionIn} />}
          <Soft>
            {days.slowest.name} takes longest: {drivesText(days.slowest.drives)}.{" "}
            {done > 0 && `${done} of them ${done === 1 ? "is" : "are"} driven. `}Nine times in ten it is not ready
            before the first day, and is by the last, if each drive holds what they need. Only the lamp, or an adapter,
            knows.
          </Soft>
        </>
      )}
      <InspectionDay
        because="Its monitors have to be complete by then"
        on={vehicle.inspection ?? ""}
        onTold={(on) => send({ intent: "vehicle", inspection: on })}
      />
      {!isReady && days && inspectionIn !== null && <InspectionSays inDays={inspectionIn} days={days} />}
      {!isReady && (
        <Why
          label="What each monitor needs"
          lines={monitors.map((m) => `${m.name}, ${drivesText(m.drives)}: ${m.needs}`)}
        />
      )}
      {mayBePermanent(pack, vehicle) && (
        <Soft>
          From {pack.proving.permanentFrom} on this make has permanent codes. They stay through any clear, and an
          inspection sees them, until the unit itself has found the fault gone.
        </Soft>
      )}
      <Trouble problem={problem ?? fault} />
      <Row>
        {lamp && (
          <Button onPress={() => send({ intent: "system", system: lamp.system, to: "read" })}>
            Watch what the lamp says
          </Button>
        )}
        {file && !isReady && (
          <Button
            onPress={() => {
              tell(null);
              saveDays(`ready-${vehicle.plate.replace(/\W+/g, "-")}.ics`, file).catch(() =>
                tell("The calendar file could not be written. Try once more."),
              );
            }}
          >
            Save the days for a calendar
          </Button>
        )}
        {!from && <LinkButton to={jobPath(job.id, "read")}>Read again</LinkButton>}
      </Row>
    </Sheet>
  );
}

const drivesText = ([least, most]: readonly [number, number]) =>
  least === most ? `${least} ${least === 1 ? "drive" : "drives"}` : `${least} to ${most} drives`;

/** What the day of an inspection means for it. */
function InspectionSays({ inDays, days }: { inDays: number; days: ReadyDays }) {
  switch (inspectionLies(inDays, days)) {
    case "past":
      return <Soft>That day is over.</Soft>;
    case "early":
      return (
        <Caution>
          The inspection comes first, {inDays === 0 ? "today" : inDays === 1 ? "tomorrow" : `in ${inDays} days`}: it
          would most likely fail for readiness. Move it, or drive more often like that.
        </Caution>
      );
    case "within":
      return (
        <Caution>It may not be ready by then. Watch the lamp the day before, and move the date if it blinks.</Caution>
      );
    case "late":
      return <p>Most likely ready by then. Watch the lamp the day before all the same.</p>;
  }
}

function calendarOf({ vehicle }: JobData, { first, last }: ReadyDays, inspectionIn: number | null): CalendarDay[] {
  const of = `${vehicle.plate}: `;
  return [
    ...(first > 0
      ? [
          {
            day: day(first),
            title: `${of}may be ready`,
            text: "Monitors may be complete from today on. Watch the lamp.",
          },
        ]
      : []),
    {
      day: day(last),
      title: `${of}most likely ready`,
      text: "Monitors are most likely complete. Watch the lamp before the inspection.",
    },
    ...(inspectionIn !== null && inspectionIn >= 0 && vehicle.inspection
      ? [
          {
            day: parseISO(vehicle.inspection),
            title: `${of}inspection`,
            text: "Watch the readiness lamp the day before.",
          },
        ]
      : []),
  ];
}
