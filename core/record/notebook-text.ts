import type { Job, Vehicle } from "./types";

/** A notebook as plain text, a line each, times exact (ISO 8601, UTC); what a line said before it was corrected stands behind it. */
export function notebookText(vehicle: Pick<Vehicle, "plate">, name: string, job: Job): string {
  const head = [
    `${vehicle.plate}, ${name}`,
    job.title,
    `Opened ${job.openedAt}${job.closedAt ? `, closed ${job.closedAt}` : ""}`,
  ];
  const lines = job.notebook.map(({ at, by, text, photos = [], was = [] }) => {
    const more = [
      ...was.map((w) => `until ${w.at}: ${w.text}`),
      ...(photos.length ? [photos.length === 1 ? "with a photo" : `with ${photos.length} photos`] : []),
    ];
    // One line each, whatever was pasted into it.
    const said = text.replaceAll(/\s+/g, " ");
    return `${at}  ${by === "person" ? "* " : "  "}${said}${more.length ? ` [${more.join("; ").replaceAll(/\s+/g, " ")}]` : ""}`;
  });
  return `${[...head, "", ...lines, "", "* written by hand"].join("\n")}\n`;
}
