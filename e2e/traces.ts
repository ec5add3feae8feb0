import type { Page } from "@playwright/test";
import { encode } from "@core/flash/dialect/encode";
import { writeTrace } from "@core/lamp/trace";
import { dialectOf } from "./films";
import { expect } from "./fixtures";
import { record, takeSteps, toHookUp } from "./ways";

/** The trace of a lamp of a make that shows these codes, for so many ms. */
export const traceOf = (pack: string, id: string, codes: string[], until: number): string =>
  writeTrace({ edges: encode(dialectOf(pack, id), { stored: codes }, until), until });

/** On the reading page: a trace file is brought in, and what it says is recorded. @param before what is done before it is recorded */
export async function readTrace(
  page: Page,
  [pack, dialect]: readonly [string, string],
  codes: string[],
  before?: () => Promise<unknown>,
): Promise<void> {
  await page.getByRole("tab", { name: "Trace file" }).click();
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByRole("button", { name: "Pick a file" }).click(),
  ]);
  const csv = traceOf(pack, dialect, codes, 60_000 + 60_000 * codes.length);
  await chooser.setFiles({ name: "lamp.csv", mimeType: "text/csv", buffer: Buffer.from(csv) });
  if (codes.length) await expect(page.getByRole("list", { name: "Codes read" })).toContainText(codes.at(-1)!);
  await before?.();
  await record(page);
}

/** Makes that are read by a trace in tests: what finds their way in, the demo vehicle, and how its lamp talks. */
const MAKES = {
  pellworth: ["make=pellworth&year=1998", /Bridge 14 and 3/, "demo-et70p", "even-when-clear"],
  osaril: ["make=osaril&year=1991", /box/i, "demo-sm501c", "even-when-clear"],
} as const;

/** A new job on a demo vehicle with these codes read, up to its clear. */
export async function toClear(page: Page, make: keyof typeof MAKES, codes: string[]): Promise<void> {
  const [find, way, vehicle, dialect] = MAKES[make];
  await toHookUp(page, find, way, vehicle);
  await takeSteps(page);
  await readTrace(page, [make, dialect], codes);
  await page.getByRole("link", { name: "Clear", exact: true }).click();
}
