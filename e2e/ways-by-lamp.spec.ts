import { DrivenTime } from "./clock";
import { expect, sentence, test } from "./fixtures";
import { DrivenWatcher, Watcher } from "./lamp";
import { lookedAt, noted, record, simulated, takeSteps, toHookUp } from "./ways";

test("method C: finder, bridge, and the lamp really read, in true time", async ({ page }) => {
  test.setTimeout(500_000);
  const vehicle = "demo-sm501c";
  await toHookUp(page, "shape=trapezoid&cavities=17&place=engine-bay", /Bridge TST and GND/, vehicle);
  await takeSteps(page);
  const v = await simulated(page, vehicle);
  await v.wire("TST", "GND");
  // A unit that answers only warm.
  await v.press("Let it warm up");
  await expect(v.car.getByRole("button", { name: "The engine is warm" })).toBeVisible({ timeout: 8000 });
  const person = new Watcher(v.car, page, 5);
  await person.look("engine");
  await v.key("On, engine off");
  await expect(sentence(page)).toHaveText("13 and 21, seen twice: done.", { timeout: 300_000 });
  await lookedAt(page, "CHECK (engine)");
  await expect(page.getByRole("list", { name: "Codes read" }).getByText("certain")).toHaveCount(2, {
    timeout: 150_000,
  });
  await person.stop();
  await record(page);
  await noted(page, /Read engine: 13, 21/);
});

test("method F: finder, bridge, what is there now and what is in memory told apart", async ({ page, context }) => {
  const time = await DrivenTime.of(context);
  const vehicle = "demo-sm12d";
  await toHookUp(page, "make=dunmarrow&model=pickup&year=1992", /Engine-off self-test with memory/, vehicle);
  await takeSteps(page);
  const v = await simulated(page, vehicle, time);
  await v.wire("ST", "SR");
  const person = new DrivenWatcher(time, v.car, page, 5);
  // Shown once: that the watch began with the key makes it certain which memory is which.
  await page.getByRole("button", { name: "The key goes on now" }).click();
  await v.key("On, engine off");
  const certain = page.getByRole("list", { name: "Codes read" }).getByText("certain");
  await person.watch("engine", 300_000, async () => (await certain.count()) === 2);
  await expect(sentence(page)).toHaveText(/231.*233/);
  await expect(certain).toHaveCount(2);
  await record(page);
  await noted(page, /Read engine, key on: 231 there now; 231, 233 in memory/);
});

test("method D: the reader on one pin, a code a press; another system's pin answers for itself; one code wiped alone", async ({
  page,
  context,
}) => {
  const time = await DrivenTime.of(context);
  const vehicle = "demo-et44";
  await toHookUp(page, "shape=round-ended&cavities=12", /Pulse reader on socket 4/, vehicle);
  await takeSteps(page);
  await expect(sentence(page)).toHaveText("Let the button go, then tap with every flash.");
  const v = await simulated(page, vehicle, time);
  const lamp = v.car.locator('[data-system="engine"]');
  await v.press("1");
  await v.press("4");
  await v.key("On, engine off");
  await expect(lamp).toHaveAttribute("data-lit", "no");
  await v.press("Red lead on the feed");
  await expect(lamp).toHaveAttribute("data-lit", "yes");
  const person = new DrivenWatcher(time, v.car, page, 9, "tap-dark");
  for (const flashes of [3, 6, 3, 6]) {
    await v.hold("Reader button", 3200);
    await page.keyboard.press("b");
    await person.watch("engine", 3000 + flashes * 1000);
  }
  await expect(page.getByRole("list", { name: "Presses of the button" })).toContainText("6 flashes");
  await expect(sentence(page)).toHaveText(/3 and 6/);
  await record(page);
  await noted(page, /Read engine: 3, 6/);
  // Right after a code has shown, held longer: that one is gone.
  await v.hold("Reader button", 3200);
  await time.pass(9000);
  await v.hold("Reader button", 7400);
  const memory = () =>
    v.car.evaluate(
      () =>
        new Promise((resolve) => {
          const open = indexedDB.open("klinko-values");
          open.onsuccess = () => {
            const get = open.result.transaction("records").objectStore("records").get("simulated/demo-et44");
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
  const time = await DrivenTime.of(context);
  const vehicle = "demo-sm12d";
  await toHookUp(page, "make=dunmarrow&year=1992&model=pickup", /Engine-running self-test/, vehicle);
  await page.getByText("Engine, running test", { exact: true }).click();
  await expect(page.getByText("Bring the engine to working temperature")).toBeVisible();
  // The time of a step runs on through a reload.
  await page.getByRole("button", { name: /It runs: start the time/ }).click();
  await expect(page.getByRole("timer")).toHaveText("10:00");
  await time.pass(5000);
  await page.reload();
  await expect(page.getByRole("timer")).toHaveText("9:55");
  await takeSteps(page);
  const v = await simulated(page, vehicle, time);
  const lamp = v.car.locator('[data-system="engine"]');
  await v.wire("ST", "SR");
  // Cold, the test does not begin: the lamp goes out as on any running engine.
  await v.key("On, engine off");
  await v.key("Engine runs");
  await expect(lamp).toHaveAttribute("data-lit", "no");
  await v.key("Off");
  await v.press("Let it warm up");
  await time.pass(4000);
  await expect(v.car.getByRole("button", { name: "The engine is warm" })).toBeVisible();
  const person = new DrivenWatcher(time, v.car, page, 21);
  await v.key("On, engine off");
  await v.key("Engine runs");
  // Four flashes for eight cylinders, a wait, one flash: now.
  const flashes = page.getByRole("listbox").getByRole("option");
  await person.watch("engine", 60_000, async () => (await flashes.count()) === 5);
  await person.watch("engine", 8000, () => page.getByText("Now: Turn the wheel half a turn").isVisible());
  await expect(page.getByText("Now: Turn the wheel half a turn")).toBeVisible();
  await v.press("Wheel, brake, throttle");
  const certain = page.getByRole("list", { name: "Codes read" }).getByText("certain");
  await person.watch("engine", 240_000, async () => (await certain.count()) === 1);
  await expect(sentence(page)).toHaveText(/231/);
  await expect(certain).toHaveCount(1);
  await record(page);
  await noted(page, /Read engine, running test: 231/);
});

test("method G: the beat judges the cycle; in time the lamp tells its list once, and the end mark", async ({
  page,
  context,
}) => {
  const time = await DrivenTime.of(context);
  const vehicle = "demo-ferry3";
  await toHookUp(page, "make=hollin-pike&year=1996", /Key on, off, on, off, on/, vehicle);
  // Why nothing happens: what was looked at is struck out and the rest gets likelier.
  await page.getByRole("button", { name: "Nothing happens?" }).click();
  const causes = page.getByRole("list", { name: "Likely causes" }).getByRole("listitem");
  await expect(causes.first()).toContainText("took longer than five seconds");
  await page.getByRole("button", { name: "Not it: The cycle took longer than five seconds." }).click();
  await expect(causes.first()).toContainText("did not go far enough back");
  await page.reload();
  await page.getByRole("button", { name: "Nothing happens?" }).click();
  await expect(causes.last()).toContainText("took longer than five seconds");
  await takeSteps(page);
  // The list is shown once, with the key: the beat stands where the lamp is watched, and the watch begins with its last "on".
  await expect(page.getByText("The list is shown once: begin before the key goes on.")).toBeVisible();
  const beat = page.getByRole("list", { name: "The beat of the key" });
  await page.getByRole("tab", { name: "Hold" }).click();
  for (const wait of [2800, 2800, 0]) {
    await page.keyboard.press("k");
    await time.pass(wait);
  }
  await expect(page.getByText(/too slow/)).toBeVisible();
  await expect(beat).toBeVisible();
  for (const wait of [1400, 1400, 0]) {
    await page.keyboard.press("k");
    await time.pass(wait);
  }
  await expect(beat).toBeHidden();
  await expect(sentence(page)).toHaveText("Nothing blinks so far.");
  const v = await simulated(page, vehicle, time);
  // Held, the lamp test is told for what it is.
  await page.getByRole("heading", { level: 1 }).click();
  const person = new DrivenWatcher(time, v.car, page, 3, "hold");
  for (const to of ["On, engine off", "Off", "On, engine off", "Off", "On, engine off"] as const) {
    await v.key(to);
    await person.watch("engine", 500);
  }
  const read = page.getByRole("list", { name: "Codes read" });
  await person.watch("engine", 120_000, async () => (await read.filter({ hasText: "22" }).count()) > 0);
  await expect(read).toContainText("22");
  await expect(read).toContainText("13");
});
