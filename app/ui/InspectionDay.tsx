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
export function InspectionDay({
  on,
  onTold,
  because,
}: {
  on: string;
  onTold: (on: string | null) => void;
  /** What it is asked for, where the page does not say. */
  because?: string;
}) {
  const [day, setDay] = useState(on);
  return (
    <Field
      label="Next inspection"
      type="date"
      {...(because && { description: because })}
      value={day}
      onChange={(typed) => {
        setDay(typed);
        if (typed !== on && (typed === "" || typed >= WHOLE_YEAR)) onTold(typed || null);
      }}
    />
  );
}
