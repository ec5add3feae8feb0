import { saveFile } from "./save-file";

/** A whole day in somebody's calendar. */
export interface CalendarDay {
  day: Date;
  title: string;
  text: string;
}

/** Hands days to the person as a calendar file. What writes it is only loaded then. */
export async function saveDays(name: string, days: readonly CalendarDay[]): Promise<void> {
  const { createEvents } = await import("ics");
  const { error, value } = createEvents(
    days.map(({ day, title, text }) => ({
      title,
      description: text,
      start: [day.getFullYear(), day.getMonth() + 1, day.getDate()],
      duration: { days: 1 },
      busyStatus: "FREE",
      transp: "TRANSPARENT",
    })),
    { productId: "klinko" },
  );
  if (error || value == null) throw error ?? new Error("no calendar was written");
  saveFile(name, value, "text/calendar");
}
