import { expect, expectAccessible, openGarage, sentence, test } from "./fixtures";

const PAGES = [
  "/",
  "/settings",
  "/vehicles/new",
  "/find",
  "/watch",
  "/find?shape=trapezoid&place=engine-bay",
  "/find?make=osaril&model=coupe&year=1995&engine=2.5%20six",
  "/jobs/demo-job-six/way-in",
  "/jobs/demo-job-six/sheet",
  "/vehicles/demo-sm233k",
  "/jobs/demo-job-estate/story",
  "/jobs/demo-job-estate/lamp-check",
  "/jobs/demo-job-six/hook-up",
  "/jobs/demo-job-six/read",
  "/jobs/demo-job-six/meaning",
  "/jobs/demo-job-six/checks",
  "/jobs/demo-job-six/handover",
  "/jobs/demo-job-six/handover?for=customer",
  "/codes?q=coolant",
  "/buying",
  "/across",
  "/jobs/demo-job-six/carry",
  "/vehicles/demo-sm418t",
  "/jobs/demo-job-six/clear",
  "/jobs/demo-job-estate/clear",
  "/jobs/demo-job-hatch/prove",
  "/simulated/demo-sm418t",
  "/simulated/demo-et44",
  "/simulated/demo-mc7",
  "/nowhere",
];

for (const half of [0, 1])
  test(`every page is accessible and fits, light at 1280 px and dark at 360, ${half ? "the other half" : "one half"}`, async ({
    page,
  }) => {
    test.setTimeout(240_000);
    await page.emulateMedia({ reducedMotion: "reduce" });
    await openGarage(page);
    for (const path of PAGES.filter((_, i) => i % 2 === half)) {
      await page.emulateMedia({ colorScheme: "light" });
      await page.setViewportSize({ width: 1280, height: 800 });
      await page.goto(path);
      await expect(sentence(page)).not.toHaveText("");
      await expectAccessible(page, path);
      await page.emulateMedia({ colorScheme: "dark" });
      await page.setViewportSize({ width: 360, height: 800 });
      await expectAccessible(page, `${path} dark at 360 px`, true);
    }
  });

test("targets are 48 px where a hand works", async ({ page }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  await openGarage(page);
  for (const path of [
    "/",
    "/codes?q=coolant",
    "/jobs/demo-job-six/checks",
    "/jobs/demo-job-six/read",
    "/jobs/demo-job-six/clear",
    "/simulated/demo-sm418t",
  ]) {
    await page.goto(path);
    await expect(sentence(page)).not.toHaveText("");
    const small = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>("button, label[data-rac], nav a, header a, a[class]")]
        .filter((e) => e.offsetParent !== null && e.getBoundingClientRect().x > -100)
        .filter((e) => e.getBoundingClientRect().height < 47.5)
        .map((e) => `${e.innerText} ${e.getBoundingClientRect().height}`),
    );
    expect([path, small]).toEqual([path, []]);
  }
});

test.describe("the policy", () => {
  test.use({ provoked: /violates the following Content Security Policy/ });
  test("a strict policy stands on every page, and no script runs without the nonce", async ({ page, request }) => {
    const response = await request.get("/");
    const policy = response.headers()["content-security-policy"];
    expect(policy).toMatch(/script-src 'self' 'nonce-[^']{20,}'/);
    expect(policy).not.toMatch(/unsafe-eval|script-src[^;]*unsafe-inline|https?:/);
    expect(response.headers()).toMatchObject({ "x-content-type-options": "nosniff", "referrer-policy": "no-referrer" });
    const nonce = /'nonce-([^']+)'/.exec(policy)![1];
    const scripts = (await response.text()).match(/<script(?![^>]*type="application)[^>]*>/g) ?? [];
    expect(scripts.length).toBeGreaterThan(2);
    for (const script of scripts) expect(script).toContain(`nonce="${nonce}"`);
    await openGarage(page);
    const ran = await page.evaluate(() => {
      const script = document.createElement("script");
      script.textContent = "window.intruder = true";
      document.body.append(script);
      return (window as unknown as { intruder?: boolean }).intruder ?? false;
    });
    expect(ran).toBe(false);
  });
});

test.describe("an empty garage", () => {
  test("takes its first vehicle and opens a job on it; what is wrong is said at the field", async ({ page }, info) => {
    await page.goto(info.config.metadata.plain as string);
    await expect(sentence(page)).toHaveText("The garage is empty.");
    await page.getByRole("link", { name: "Add a vehicle" }).last().click();
    await page.getByRole("button", { name: "Add and start a job" }).click();
    await expect(page.getByText("Write what you call it: the plate, or a name.")).toBeVisible();
    await page.getByLabel("Plate or name").fill("old red");
    await page.getByText("Calverra", { exact: true }).click();
    await page.getByText("1.6 variable timing").click();
    await page.getByLabel("Model year").fill("2003");
    await page.getByRole("button", { name: "Add and start a job" }).click();
    await expect(page.getByText(/outside this pack: it covers 1990 to 1997/)).toBeVisible();
    await page.getByLabel("Model year").fill("1993");
    await page.getByRole("button", { name: "Add and start a job" }).click();
    await expect(sentence(page)).toHaveText("What does the owner say?");
    await page.goto(info.config.metadata.plain as string);
    await expect(page.getByText("OLD RED", { exact: true })).toBeVisible();
    await page.getByRole("link", { name: /Calverra hatchback/ }).click();
    await page.getByRole("button", { name: "Remove this vehicle" }).click();
    await page.getByRole("button", { name: "Remove it" }).click();
    await expect(sentence(page)).toHaveText("The garage is empty.");
    await page.getByRole("button", { name: "Look around with a demo fleet" }).click();
    await expect(page.getByRole("listitem")).toHaveCount(13);
  });
});
