import { differenceInCalendarDays, parseISO } from "date-fns";
import { useState } from "react";
import { clock } from "~/store/clock";
import { Field } from "./Field";

/** Whole days to a day; null where there is none. */
export function daysTo(day: string | undefined): number | null {
  const days = day ? differenceInCalendarDays(parseISO(day), clock.now()) : NaN;
  return Number.isNaN(days) ? null : days;
}

/** A year is typed figure by figure: 0002, 0020, 0202, 2026. */
const WHOLE_YEAR = "1900";

/** The day of the next inspection. */
export function InspectionDay({ on, onTold }: { on: string; onTold: (on: string | null) => void }) {
  const [day, setDay] = useState(on);
  return (
    <Field
      label="Next inspection"
      type="date"
      description="Its monitors have to be complete by then"
      value={day}
      onChange={(typed) => {
        setDay(typed);
        if (typed !== on && (typed === "" || typed >= WHOLE_YEAR)) onTold(typed || null);
      }}
    />
  );
}
