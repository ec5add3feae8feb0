import AxeBuilder from "@axe-core/playwright";
import { test as base, expect, type Page } from "@playwright/test";

/** Every page of a test: an error on its console, a broken promise or a breach of the CSP fails the test. */
export const test = base.extend<{ provoked: RegExp; quiet: undefined }>({
  /** What a test provokes on purpose. */
  provoked: [/^$/, { option: true }],
  quiet: [
    async ({ context, provoked }, use) => {
      const said: string[] = [];
      context.on("console", (m) => {
        if (m.type() === "error" && !/status of 40[49]/.test(m.text()) && !provoked.test(m.text())) said.push(m.text());
      });
      context.on("weberror", (e) => said.push(e.error().message));
      await use(undefined);
      expect(said).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/**
 * A second page beside another one, in a window of its own: of two tabs in one window the browser draws the hidden one once a second,
 * and each click on it waits for that.
 */
export async function openBeside(page: Page): Promise<Page> {
  const opened = page.context().waitForEvent("page");
  await page.evaluate(() => void window.open("about:blank", "_blank", "popup,width=1280,height=800"));
  return opened;
}

/** Opens the demo garage and waits until its fleet is there. */
export async function openGarage(page: Page): Promise<void> {
  await page.goto("/");
  await expect(page.getByRole("list", { name: "Vehicles" }).getByRole("listitem")).toHaveCount(13, { timeout: 20_000 });
}

/** Nothing serious or critical, and nothing that scrolls sideways. */
/** What the same page can get wrong only by its look: other colours, and less room. */
const BY_LOOK = ["color-contrast", "target-size", "scrollable-region-focusable", "link-in-text-block"];

/** @param look of a page whose words and structure were looked at before: only what another look can break */
export async function expectAccessible(page: Page, what: string, look = false): Promise<void> {
  const axe = new AxeBuilder({ page })
    // There are no frames within frames here, which is what the other mode opens a page of its own for, each time.
    .setLegacyMode(true)
    .options({ resultTypes: ["violations"] });
  if (look) axe.withRules(BY_LOOK);
  else axe.withTags(["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"]);
  const { violations } = await axe.analyze();
  const serious = violations.filter((v) => v.impact === "serious" || v.impact === "critical");
  expect(serious.map((v) => `${what}: ${v.id} ${v.nodes.map((n) => n.target.join(" ")).join(" | ")}`)).toEqual([]);
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - innerWidth),
    `${what} scrolls sideways`,
  ).toBeLessThanOrEqual(0);
}

export const sentence = (page: Page) => page.getByRole("heading", { level: 1 });
