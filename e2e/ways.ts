import type { Page } from "@playwright/test";
import { trueTime, type Time } from "./clock";
import { expect, openBeside, openGarage, sentence } from "./fixtures";

/** Finds the way in by what is known, and opens a job on a demo vehicle of that make, up to the hook-up. */
export async function toHookUp(page: Page, find: string, way: RegExp, vehicle: string): Promise<void> {
  await openGarage(page);
  await page.goto(`/find?${find}`);
  await expect(page.getByRole("list", { name: "Ways in, likeliest first" }).getByText(way).first()).toBeVisible();
  await page.goto(`/vehicles/${vehicle}`);
  await page.getByRole("button", { name: "New job" }).click();
  await page.getByRole("button", { name: "Write the story down" }).click();
  await expect(page.getByRole("list", { name: "Ways in" }).getByText(way).first()).toBeVisible();
  await page.getByRole("button", { name: "On to the lamp check" }).click();
  await expect(sentence(page)).toHaveText(/^Key on, engine off/);
  const lit = page.getByRole("button", { name: /Stays lit/ }).first();
  if (await lit.isVisible()) await lit.click();
  else await page.getByText("Yes", { exact: true }).first().click();
  await page.getByRole("link", { name: "On to the hook-up" }).click();
  await expect(page.getByText("Tick what is above first.")).toBeVisible();
}

/** Ticks what must be so before, and takes all steps. */
export async function takeSteps(page: Page): Promise<void> {
  for (const box of await page.getByRole("group", { name: "Before you begin" }).locator("label").all())
    await box.click();
  const next = page.getByRole("button", { name: /^(Done|Wire is in|Ready: on to the reading|On to the reading)/ });
  while (page.url().endsWith("hook-up")) {
    const here = await page.locator("section, div").getByRole("heading", { level: 2 }).allTextContents();
    await next.click();
    await expect
      .poll(
        async () =>
          !page.url().endsWith("hook-up") ||
          String(await page.locator("section, div").getByRole("heading", { level: 2 }).allTextContents()) !==
            String(here),
      )
      .toBe(true);
  }
}

/** @param time in which a button is held; true time where none is given */
export async function simulated(page: Page, vehicle: string, time?: Time) {
  const car = await openBeside(page);
  await car.goto(`/simulated/${vehicle}`);
  await expect(car.getByRole("heading", { level: 1 })).toHaveText(/^Simulated/);
  const press = (name: string) => car.getByRole("button", { name, exact: true }).click();
  return {
    car,
    press,
    key: (to: "Off" | "On, engine off" | "Engine runs") => car.getByText(to, { exact: true }).click(),
    wire: async (a: string, b: string) => {
      await press(a);
      await press(b);
    },
    hold: async (name: string, ms: number) => {
      const button = car.getByRole("button", { name, exact: true });
      await button.scrollIntoViewIfNeeded();
      await button.hover();
      await car.mouse.down();
      await (time ?? trueTime(car)).pass(ms);
      await car.mouse.up();
    },
  };
}

/** Says which lamp it was that blinked, as somebody who looks once more. */
export const lookedAt = (page: Page, lamp: string) =>
  page
    .getByRole("radiogroup", { name: /^Look once more/ })
    .getByText(lamp, { exact: true })
    .click();

/** Lets time go by in a job: all that was recorded so far lies so many minutes further back. */
export async function letPass(page: Page, job: string, minutes: number): Promise<void> {
  await page.evaluate(
    ([id, ms]) =>
      new Promise<void>((resolve) => {
        const back = (value: unknown): unknown => {
          if (typeof value === "string" && /^\d{4}-\d\d-\d\dT[\d:.]+Z$/.test(value))
            return new Date(Date.parse(value) - ms).toISOString();
          if (Array.isArray(value)) return value.map(back);
          if (value && typeof value === "object")
            return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, back(v)]));
          return value;
        };
        let left = 2;
        for (const name of ["klinko-jobs", "klinko-readings"]) {
          const open = indexedDB.open(name);
          open.onsuccess = () => {
            const turn = open.result.transaction("records", "readwrite");
            // Only what is written through is there after a reload.
            turn.oncomplete = () => {
              open.result.close();
              if (!--left) resolve();
            };
            const store = turn.objectStore("records");
            store.openCursor().onsuccess = (e) => {
              const cursor = (e.target as IDBRequest<IDBCursorWithValue | null>).result;
              if (!cursor) return;
              const doc = cursor.value as { id?: string; job?: string };
              if (doc.id === id || doc.job === id) cursor.update(back(doc));
              cursor.continue();
            };
          };
        }
      }),
    [job, minutes * 60_000] as const,
  );
  await page.reload();
}

/** Does the page say so by now? */
export const says = (page: Page, words: string | RegExp) => async () => {
  const text = (await sentence(page).textContent()) ?? "";
  return typeof words === "string" ? text === words : words.test(text);
};

export const record = (page: Page) => page.getByRole("button", { name: "Record this reading" }).click();
export const noted = (page: Page, text: RegExp) =>
  expect(page.getByRole("list", { name: "Lines of the notebook" })).toContainText(text);

/** Lead-in and codes three times each, two rounds, as somebody calls them out: one number a digit or code. */
const called = (codes: readonly string[]): string =>
  [...[0, 1].flatMap(() => ["13", ...codes].flatMap((c) => [c, c, c])), "13"].join(" ");

/** The open job of the demo's estate from the lamp check on, read by counts up to the meaning. @param halfway done once all is typed */
export async function readByCounts(
  page: Page,
  codes: readonly string[],
  halfway?: () => Promise<unknown>,
): Promise<void> {
  await page.getByRole("link", { name: "Go on with SM 418 T" }).click();
  await page.getByRole("button", { name: /Stays lit/ }).click();
  await page.getByRole("link", { name: "On to the hook-up" }).click();
  await expect(page.getByText("Tick what is above first.")).toBeVisible();
  await takeSteps(page);
  await page.getByRole("tab", { name: "Counts" }).click();
  await page.getByRole("textbox", { name: "Counts" }).fill(called(codes));
  await expect(sentence(page)).toContainText(codes.at(-1)!);
  await halfway?.();
  await lookedAt(page, "CHECK ENGINE (MIL)");
  // The page settles by that answer.
  await expect(page.getByRole("button", { name: "Why not surer, and what settles it" })).toBeHidden();
  await record(page);
  await expect(page.getByRole("button", { name: "On to the checks" })).toBeVisible();
}
