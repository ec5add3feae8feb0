import { format, isToday } from "date-fns";
import type { Settings } from "./settings";

/** A day, and the day without its year, in each form that can be set. */
const FORMS: Record<Settings["dates"], readonly [day: string, inYear: string]> = {
  words: ["d MMM yyyy", "d MMM"],
  iso: ["yyyy-MM-dd", "MM-dd"],
  "month-first": ["M/d/yyyy", "M/d"],
  "day-first": ["dd/MM/yyyy", "dd/MM"],
};

const form = () => {
  const set = typeof document === "undefined" ? undefined : document.documentElement.dataset.dates;
  return FORMS[(set ?? "words") as Settings["dates"]] ?? FORMS.words;
};

/** "09:14" for today, "3 Nov 09:14" otherwise, or as the settings have it. */
export function shortTime(iso: string): string {
  const date = new Date(iso);
  return isToday(date) ? format(date, "HH:mm") : format(date, `${form()[1]} HH:mm`);
}

/** "3 Nov 2026", or as the settings have it. */
export function shortDate(iso: string): string {
  return format(new Date(iso), form()[0]);
}
