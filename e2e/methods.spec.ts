import type { BrowserContext, Page } from "@playwright/test";
import { expect, openGarage, sentence, test } from "./fixtures";
import { Watcher } from "./lamp";

/** Finds the way in by what is known, and opens a job on a demo vehicle of that make, up to the hook-up. */
async function toHookUp(page: Page, find: string, way: RegExp, vehicle: string): Promise<void> {
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
async function takeSteps(page: Page): Promise<void> {
  for (const box of await page.getByRole("group", { name: "Before you begin" }).locator("label").all())
    await box.click();
  const next = page.getByRole("button", { name: /^(Done|Wire is in|It blinks: read it|On to the reading)/ });
  while (page.url().endsWith("hook-up")) {
    const here = await page.locator("section, div").getByRole("heading", { level: 2 }).allTextContents();
    await next.click();
    await expect
      .poll(
        async () =>
          !page.url().endsWith("hook-up") ||
          String(await page.locator("section, div").getByRole("heading", { level: 2 }).allTextContents()) !==
            String(here),
      ) // prettier-ignore
      .toBe(true);
  }
}

async function simulated(context: BrowserContext, vehicle: string) {
  const car = await context.newPage();
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
      await car.waitForTimeout(ms);
      await car.mouse.up();
    },
  };
}

const record = (page: Page) => page.getByRole("button", { name: "Record this reading" }).click();
const noted = (page: Page, text: RegExp) =>
  expect(page.getByRole("list", { name: "Lines of the notebook" })).toContainText(text);

for (const { method, find, way, vehicle, wire, says, codes } of [
  {
    method: "C",
    find: "shape=trapezoid&cavities=17&place=engine-bay",
    way: /Bridge TST and GND/,
    vehicle: "demo-sm501c",
    wire: ["TST", "GND"],
    says: /^13 and 21, seen twice: done\.$/,
    codes: /Read engine: 13, 21/,
  },
  {
    method: "F",
    find: "make=dunmarrow&model=pickup&year=1992",
    way: /Engine-off self-test with memory/,
    vehicle: "demo-sm12d",
    wire: ["ST", "SR"],
    says: /231.*233/,
    codes: /Read engine, key on: 231, 233/,
  },
])
  test(`method ${method}: finder, bridge, and the lamp really read`, async ({ page, context }) => {
    test.setTimeout(400_000);
    await toHookUp(page, find, way, vehicle);
    await takeSteps(page);
    const v = await simulated(context, vehicle);
    await v.wire(wire[0], wire[1]);
    const person = new Watcher(v.car, page, 5);
    await person.look("engine");
    await v.key("On, engine off");
    await expect(sentence(page)).toHaveText(says, { timeout: 300_000 });
    await expect(page.getByRole("list", { name: "Codes read" }).getByText("certain")).toHaveCount(2, { timeout: 60_000 }); // prettier-ignore
    await person.stop();
    await record(page);
    await noted(page, codes);
  });

test("method D: the reader on one pin, a code a press; another system's pin answers for itself; one code wiped alone", async ({
  page,
  context,
}) => {
  test.setTimeout(240_000);
  const vehicle = "demo-et44";
  await toHookUp(page, "shape=round-ended&cavities=12", /Pulse reader on socket 4/, vehicle);
  await takeSteps(page);
  await expect(sentence(page)).toHaveText("Let the button go, then tap with every flash.");
  const v = await simulated(context, vehicle);
  const lamp = v.car.locator('[data-system="engine"]');
  await v.press("1");
  await v.press("4");
  await v.key("On, engine off");
  await expect(lamp).toHaveAttribute("data-lit", "no");
  await v.press("Red lead on the feed");
  await expect(lamp).toHaveAttribute("data-lit", "yes");
  const person = new Watcher(v.car, page, 9, "tap-dark");
  await person.look("engine");
  for (const flashes of [3, 6, 3, 6]) {
    await v.hold("Reader button", 3200);
    await page.keyboard.press("b");
    await v.car.waitForTimeout(3000 + flashes * 1000);
  }
  await expect(page.getByRole("list", { name: "Presses of the button" })).toContainText("6 flashes");
  await expect(sentence(page)).toHaveText(/3 and 6/);
  await person.stop();
  await record(page);
  await noted(page, /Read engine: 3, 6/);
  // Right after a code has shown, held longer: that one is gone.
  await v.hold("Reader button", 3200);
  await v.car.waitForTimeout(9000);
  await v.hold("Reader button", 7400);
  const memory = () =>
    v.car.evaluate(
      () =>
        new Promise((resolve) => {
          const open = indexedDB.open("klinko");
          open.onsuccess = () => {
            const get = open.result.transaction("records").objectStore("records").get("value/simulated/demo-et44");
            get.onsuccess = () => resolve((get.result as { memory: unknown }).memory);
          };
        }),
    );
  await expect.poll(memory).toEqual({ engine: ["6"], airbag: ["6"] });
});

test("method E: warm, started at once, half the cylinders, the act in its window, then the list", async ({
  page,
  context,
}) => {
  test.setTimeout(400_000);
  const vehicle = "demo-sm12d";
  await toHookUp(page, "make=dunmarrow&year=1992&model=pickup", /Engine-running self-test/, vehicle);
  await page.getByText("Engine, running test", { exact: true }).click();
  await expect(page.getByText("Bring the engine to working temperature")).toBeVisible();
  // The time of a step runs on through a reload.
  await page.getByRole("button", { name: /It runs: start the time/ }).click();
  await expect(page.getByRole("timer")).toHaveText(/9:5\d/);
  await page.reload();
  await expect(page.getByRole("timer")).toHaveText(/9:[45]\d/);
  await takeSteps(page);
  const v = await simulated(context, vehicle);
  const lamp = v.car.locator('[data-system="engine"]');
  await v.wire("ST", "SR");
  // Cold, the test does not begin: the lamp goes out as on any running engine.
  await v.key("On, engine off");
  await v.key("Engine runs");
  await expect(lamp).toHaveAttribute("data-lit", "no");
  await v.key("Off");
  await v.press("Let it warm up");
  await expect(v.car.getByRole("button", { name: "The engine is warm" })).toBeVisible({ timeout: 8000 });
  const person = new Watcher(v.car, page, 21);
  await v.key("On, engine off");
  await v.key("Engine runs");
  await person.look("engine");
  // Four flashes for eight cylinders, a wait, one flash: now.
  await expect(page.getByRole("listbox").getByRole("option")).toHaveCount(5, { timeout: 60_000 });
  await expect(page.getByRole("alert")).toContainText("Now: Turn the wheel half a turn");
  await v.press("Wheel, brake, throttle");
  await expect(sentence(page)).toHaveText(/231/, { timeout: 120_000 });
  await expect(page.getByRole("list", { name: "Codes read" }).getByText("certain")).toHaveCount(1, {
    timeout: 120_000,
  });
  await person.stop();
  await record(page);
  await noted(page, /Read engine, running test: 231/);
});

test("method G: the beat judges the cycle; in time the lamp tells its list once, and the end mark", async ({
  page,
  context,
}) => {
  test.setTimeout(240_000);
  const vehicle = "demo-ferry3";
  await toHookUp(page, "make=hollin-pike&year=1996", /Key on, off, on, off, on/, vehicle);
  for (const box of await page.getByRole("group", { name: "Before you begin" }).locator("label").all())
    await box.click();
  await page.getByRole("button", { name: /^Done/ }).click();
  await expect(page.getByRole("list", { name: "The beat of the key" })).toBeVisible();
  await page.getByRole("button", { name: "Play the beat" }).click();
  await expect(page.getByRole("list", { name: "The beat of the key" }).locator("[aria-current]")).toHaveText("off");
  for (const wait of [2800, 2800, 0]) {
    await page.keyboard.press("k");
    await page.waitForTimeout(wait);
  }
  await expect(page.getByText(/too slow/)).toBeVisible();
  for (const wait of [1400, 1400, 0]) {
    await page.keyboard.press("k");
    await page.waitForTimeout(wait);
  }
  await expect(page.getByText(/in time/)).toBeVisible();
  await page.getByRole("button", { name: /^Done/ }).click();
  // Why nothing happens: what was looked at is struck out and the rest gets likelier.
  await page.getByRole("button", { name: "Nothing happens?" }).click();
  const causes = page.getByRole("list", { name: "Likely causes" }).getByRole("listitem");
  await expect(causes.first()).toContainText("took longer than five seconds");
  await page.getByRole("button", { name: "Not it: The cycle took longer than five seconds." }).click();
  await expect(causes.first()).toContainText("did not go far enough back");
  await page.reload();
  await page.getByRole("button", { name: "Nothing happens?" }).click();
  await expect(causes.last()).toContainText("took longer than five seconds");
  await page.getByRole("button", { name: /It blinks: read it/ }).click();
  const v = await simulated(context, vehicle);
  // Held, the lamp test is told for what it is.
  await page.getByRole("tab", { name: "Hold" }).click();
  await page.getByRole("heading", { level: 1 }).click();
  const person = new Watcher(v.car, page, 3, "hold");
  await person.look("engine");
  for (const to of ["On, engine off", "Off", "On, engine off", "Off", "On, engine off"] as const) {
    await v.key(to);
    await v.car.waitForTimeout(500);
  }
  await expect(page.getByRole("list", { name: "Codes read" })).toContainText("22", { timeout: 120_000 });
  await expect(page.getByRole("list", { name: "Codes read" })).toContainText("13");
  await person.stop();
});

test("method H: numbers of the dash are typed, an unclear one offered with look-alikes, one list a system", async ({
  page,
  context,
}) => {
  const vehicle = "demo-mc7";
  await toHookUp(page, "make=tarvello&year=2008", /Hold two buttons/, vehicle);
  await takeSteps(page);
  const v = await simulated(context, vehicle);
  await v.press("Hold SET");
  await v.press("Hold RESET");
  await v.key("On, engine off");
  await v.car.waitForTimeout(5300);
  await v.press("Let SET go");
  await v.press("Let RESET go");
  const display = v.car.getByLabel("Display");
  for (let i = 0; ; i++) {
    const shown = (await display.textContent())!;
    await page.getByLabel("On the display").fill(i === 1 ? "1?" : shown);
    await page.keyboard.press("Enter");
    if (shown === "--") break;
    await v.press("SET");
    await expect(display).not.toHaveText(shown);
  }
  await page.reload();
  await page.getByRole("group", { name: "What 1? may be" }).getByRole("button", { name: /14/ }).click();
  await expect(sentence(page)).toHaveText("3 numbers, then nothing more.");
  await record(page);
  await noted(page, /engine: 4, 14; brakes: 29; inertial unit: nothing stored/);
  await expect(page.getByRole("region", { name: "Code 14" })).toBeVisible();
  await page.getByText("Brakes", { exact: false }).locator("visible=true").first().click();
  await expect(page.getByRole("region", { name: "Code 29" })).toBeVisible();
});

test("method I: the dash walks through its modules, one list each; a wrong wire blows the fuse", async ({
  page,
  context,
}) => {
  const vehicle = "demo-sm9a";
  await toHookUp(page, "make=aldermoor&year=1990", /walk through the modules/, vehicle);
  // On the drawing first: what a wrong wire would do.
  await page.getByRole("button", { name: "What would another wire do?" }).click();
  const box = (name: string) => page.locator(`[data-cavity="${name}"]`).first();
  await box("D").scrollIntoViewIfNeeded();
  const [from, to] = [(await box("D").boundingBox())!, (await box("B").boundingBox())!];
  await page.mouse.move(from.x + 15, from.y + 15);
  await page.mouse.down();
  await page.mouse.move(to.x + 15, to.y + 15, { steps: 5 });
  await page.mouse.up();
  await expect(page.getByText("D and B: Danger.")).toBeVisible();
  const cavities = page.getByRole("group", { name: "Cavities to try" });
  await cavities.getByRole("button", { name: "D", exact: true }).press("Enter");
  await cavities.getByRole("button", { name: "H", exact: true }).press("Enter");
  await expect(page.getByText("D and H: Right.")).toBeVisible();
  await takeSteps(page);
  const v = await simulated(context, vehicle);
  const display = v.car.getByLabel("Display");
  await v.wire("B", "H");
  await v.key("On, engine off");
  await expect(v.car.getByText("There was a spark at the connector")).toBeVisible();
  await v.key("Off");
  await v.press("Pull the wire out");
  await v.press("Fit a new unit fuse");
  await v.wire("D", "H");
  await v.key("On, engine off");
  await expect(display).toHaveText("E 13", { timeout: 8000 });
  await expect(display).toHaveText("E 34", { timeout: 8000 });
  for (const code of ["13", "34"]) {
    await page.getByLabel("After the E").fill(code);
    await page.keyboard.press("Enter");
  }
  await page.getByRole("button", { name: /All codes of Engine/ }).click();
  await v.press("TRIP");
  await expect(display).toHaveText("B ---");
  await page.getByRole("button", { name: /nothing: next module/ }).click();
  await v.press("TRIP");
  await expect(display).toHaveText("C 49");
  await page.getByLabel("After the C").fill("49");
  await page.keyboard.press("Enter");
  await page.getByRole("button", { name: /All codes of Climate/ }).click();
  await page.getByRole("button", { name: /nothing: next module/ }).click();
  await expect(sentence(page)).toHaveText("All modules are read.");
  await record(page);
  await noted(page, /engine: 13, 34; body: nothing stored; climate: 49; ride control: nothing stored/);
});

test("method J: readiness by lamp, with a countdown and taps, before and after the drive", async ({
  page,
  context,
}) => {
  test.setTimeout(180_000);
  const vehicle = "demo-et70p";
  await toHookUp(page, "make=pellworth&year=2002", /Readiness by lamp/, vehicle);
  await page.getByText("Readiness", { exact: true }).click();
  await expect(page.getByText("Readiness by lamp: key on and wait").first()).toBeVisible();
  await takeSteps(page);
  const v = await simulated(context, vehicle);
  const watch = async (seed: number) => {
    const person = new Watcher(v.car, page, seed);
    await person.look("engine");
    await v.key("On, engine off");
    await page.getByRole("button", { name: "The key is on" }).click();
    return person;
  };
  const first = await watch(1);
  await expect(sentence(page)).toHaveText("Not ready: the monitors are not complete.", { timeout: 40_000 });
  await first.stop();
  await page.getByRole("button", { name: "Start over" }).click();
  await v.key("Off");
  await v.press("Drive for twenty minutes");
  await expect(v.car.getByRole("button", { name: "Drive for twenty minutes" })).toBeEnabled({ timeout: 8000 });
  const second = await watch(2);
  await page.getByText("Stays lit", { exact: true }).click({ timeout: 60_000 });
  await expect(sentence(page)).toHaveText("Ready: all monitors are complete.");
  await second.stop();
  await record(page);
  await expect(sentence(page)).toHaveText("Ready: all monitors are complete.");
  await noted(page, /Ready: all monitors are complete/);
});

test("method K: swapped leads are silent, the wrong protocol is gibberish, the right one gives values and codes", async ({
  page,
  context,
}) => {
  const vehicle = "demo-sm88m";
  await toHookUp(page, "shape=round&colour=green", /Serial lead on the round plug/, vehicle);
  await takeSteps(page);
  const v = await simulated(context, vehicle);
  const connect = page.getByRole("button", { name: "Connect to the simulated unit" });
  for (const cavity of ["2", "1", "3"]) await v.press(cavity);
  await v.key("Engine runs");
  await connect.click();
  await expect(page.getByText(/The unit is silent/)).toBeVisible();
  await v.press("Pull all leads out");
  for (const cavity of ["1", "2", "3"]) await v.press(cavity);
  await page.getByText("Version 1, one block").click();
  await connect.click();
  await expect(page.getByText(/take the other protocol version/)).toBeVisible();
  await page.getByText("Version 2, two blocks").click();
  await connect.click();
  await expect(page.getByRole("button", { name: /Engine speed 1\d{3} 1\/min outside/ })).toBeVisible();
  await page.getByRole("button", { name: /Battery voltage/ }).click();
  await expect(page.getByRole("img", { name: /Battery voltage over the last/ })).toBeVisible({ timeout: 15_000 });
  await page.getByRole("button", { name: "Read the codes" }).click();
  await expect(sentence(page)).toHaveText("2 codes: 15, 28.");
  await record(page);
  await noted(page, /Read engine: 15, 28/);
});

test("the finder says plainly what is outside, and hands a found vehicle on to the form", async ({ page }) => {
  await openGarage(page);
  await page.getByRole("link", { name: "Find a way in" }).click();
  await expect(sentence(page)).toHaveText("What do you have in front of you?");
  await page.getByText("Osaril", { exact: true }).click();
  await page.getByText("Osaril Coupe", { exact: true }).first().click();
  await page.getByLabel("Model year").fill("1995");
  await page.getByText("2.5 six-cylinder").click();
  await page.getByText("home", { exact: true }).click();
  await expect(sentence(page)).toHaveText("Outside these tables.");
  await expect(page.getByText(/already has the scan socket under the dash/)).toBeVisible();
  await page.getByText("1.8 four-cylinder").click();
  await expect(sentence(page)).toHaveText("Osaril Coupe: marked diagnosis box, test to earth.");
  await page.getByRole("button", { name: "Start over" }).click();
  // By the plug alone: a shape that promises another language.
  await page.getByRole("button", { name: "wider on one side" }).click();
  await expect(page.getByText("What would tell them apart")).toBeVisible();
  await page.getByLabel("Cavities, counted").fill("16");
  await expect(page.getByText(/Up to 1999 it speaks another language/)).toBeVisible();
  await page.getByRole("link", { name: "This is it: add the vehicle" }).first().click();
  await expect(page.getByRole("radio", { name: "Pellworth", exact: true })).toBeChecked();
});

test("the hook-up sheet is one page of paper", async ({ page }) => {
  await openGarage(page);
  await page.goto("/jobs/demo-job-six/sheet");
  await expect(sentence(page)).toHaveText(/Bridge test line and ground/);
  const pdf = await page.pdf({ format: "A4", preferCSSPageSize: true });
  const pages = pdf.toString("latin1").match(/\/Type\s*\/Page\b/g) ?? [];
  expect(pages).toHaveLength(1);
});
