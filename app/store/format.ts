import { format, isToday } from "date-fns";

/** "09:14" for today, "3 Nov 09:14" otherwise. */
export function shortTime(iso: string): string {
  const date = new Date(iso);
  return isToday(date) ? format(date, "HH:mm") : format(date, "d MMM HH:mm");
}

export function shortDate(iso: string): string {
  return format(new Date(iso), "d MMM yyyy");
}
