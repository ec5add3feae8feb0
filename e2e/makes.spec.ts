import type { Locator, Page } from "@playwright/test";
import { DrivenTime } from "./clock";
import { expect, expectAccessible, sentence, test } from "./fixtures";
import { DrivenWatcher } from "./lamp";
import { noted, record, says, simulated, takeSteps } from "./ways";
import { drawPage, lookOf, seeded } from "../scripts/table-pictures.mjs";

const TABLE = [
  "Trouble codes, engine unit",
  "Code\tMeaning\tSet when\tLook at",
  "12\tAir meter\tSignal below 0.2 V\tIts plug",
  "14\tCoolant sensor\tOpen circuit\tWires at the thermostat",
  "21\tThrottle switch\tNever closes\tIts bracket",
  "23 / 24\tKnock sensor\tNoisy\tBolt and plug",
  "31\tSpeed signal\tMissing above 20 km/h\tThe cable",
  "33\tIdle valve\tNo change\tThe hose",
  "41\tFuel pump relay\tNo ground\tG7",
].join("\n");
const ROW = ["7 Air meter", "9 Coolant sensor", "11 Throttle switch", "13 Knock sensor", "15 Speed signal"].join("\n");

/** Counts what a person does. */
class Hand {
  did = 0;
  constructor(private page: Page) {}
  press(name: RegExp | string) {
    this.did++;
    return this.page
      .getByRole("button", { name, exact: typeof name === "string" })
      .first()
      .click();
  }
  link(name: RegExp) {
    this.did++;
    return this.page.getByRole("link", { name }).first().click();
  }
  pick(group: string, option: string) {
    this.did++;
    return this.page.getByRole("radiogroup", { name: group, exact: true }).getByText(option, { exact: true }).click();
  }
  fill(label: string, text: string) {
    this.did++;
    return this.page.getByLabel(label, { exact: true }).fill(text);
  }
}

/** From the list of makes to a make that is ready: what is told is its name, its way in, its plug, and the page with its codes. */
async function build(page: Page, way: RegExp, { plug, table, talk }: { plug: boolean; table: string; talk?: RegExp }) {
  const hand = new Hand(page);
  await page.goto("/makes");
  await hand.link(/^Build a make/);
  await hand.fill("Make", "Harrowgate");
  await hand.fill("Model", "Coupe");
  await hand.fill("First model year", "1988");
  await hand.press("Go on");
  await expect(sentence(page)).toHaveText("How do you ask for the codes?");
  await hand.press(way);
  await expect(page.getByRole("heading", { name: "Steps" })).toBeVisible();
  if (plug) {
    await hand.link(/^Next: Plug/);
    await hand.press("Letters");
    await expect(page.locator('[data-cavity="K"]')).toBeVisible();
    await hand.pick(/reader|button on the plug/.test(way.source) ? "Signal lead" : "Test line", "C");
    await hand.pick(/reader|button on the plug/.test(way.source) ? "Black lead, ground" : "Ground", "G");
    await expect(page.getByRole("img", { name: /wire from C to G/ }).first()).toBeVisible();
  }
  if (talk) {
    await page
      .getByRole("navigation", { name: "Parts of the make" })
      .getByRole("link", { name: /How it talks/ })
      .click();
    await hand.press(talk);
  }
  await page.getByRole("navigation", { name: "Parts of the make" }).getByRole("link", { name: /Codes/ }).click();
  await hand.fill("Paste the table", table);
  await expect(page.getByText(/codes found.*none doubtful/)).toBeVisible();
  await hand.press(/^Take \d+ codes/);
  await expect(sentence(page)).toHaveText(/^\d+ codes$/);
  await page
    .getByRole("navigation", { name: "Parts of the make" })
    .getByRole("link", { name: /Hand over/ })
    .click();
  await hand.press("Rehearse");
  return hand;
}

/** Through the job up to the reading. @returns id of the stand-in */
async function toReading(page: Page): Promise<string> {
  await page.getByRole("button", { name: "Write the story down" }).click();
  await page.getByRole("button", { name: "On to the lamp check" }).click();
  await expect(sentence(page)).toHaveText(/^Key on, engine off/);
  const lit = page.getByRole("button", { name: /Stays lit/ }).first();
  if (await lit.isVisible()) await lit.click();
  else await page.getByText("Yes", { exact: true }).first().click();
  const link = page.getByRole("link", { name: "Open the simulated vehicle" });
  const id = (await link.first().getAttribute("href"))!.split("/").at(-1)!;
  await page.getByRole("link", { name: "On to the hook-up" }).click();
  await expect(page.getByText("Tick what is above first.")).toBeVisible();
  await takeSteps(page);
  return id;
}

/** What the stand-in has stored. */
const memoryOf = (car: Page, id: string): Promise<string[]> =>
  car.evaluate(
    (key) =>
      new Promise((resolve) => {
        const open = indexedDB.open("klinko-values");
        open.onsuccess = () => {
          const get = open.result.transaction("records").objectStore("records").get(`simulated/${key}`);
          get.onsuccess = () =>
            resolve((get.result as { memory: Record<string, string[]> } | undefined)?.memory.engine ?? []);
        };
      }),
    id,
  );

const stored = async (car: Page, id: string): Promise<string[]> => {
  await expect.poll(() => memoryOf(car, id).then((m) => m.length)).toBeGreaterThan(0);
  return memoryOf(car, id);
};

const recorded = async (page: Page, car: Page, id: string) => {
  const codes = await stored(car, id);
  await record(page);
  for (const code of codes) await noted(page, new RegExp(`Read engine.*\\b${code}\\b`));
};

const LAMP: readonly { method: string; way: RegExp; plug: boolean; table: string; talk?: RegExp; hold?: true }[] = [
  { method: "A", way: /^Join two cavities of a plug/, plug: true, table: TABLE, talk: /^Counts two digits Two/ },
  { method: "B", way: /^Join the two wires/, plug: true, table: TABLE, hold: true },
  { method: "B, on the unit", way: /^Key on, and look at the unit/, plug: false, table: TABLE, hold: true },
  { method: "C", way: /^Join two marked contacts/, plug: true, table: TABLE },
  { method: "E", way: /then start the engine/, plug: true, table: TABLE },
  { method: "F", way: /tests itself, then tells its memory/, plug: true, table: TABLE, talk: /^Now first/ },
  { method: "G", way: /^Turn the key on and off/, plug: false, table: TABLE },
];

/** By one lamp, one button and one dash in every run; by each of the other ways in `npm run test:all`. */
const ofAll = (method: string) => ({ tag: ["A", "D", "H"].includes(method) ? [] : ["@all"] });

for (const { method, way, hold, ...rest } of LAMP)
  test(
    `a make of one's own, method ${method}: from a page of text to a recorded reading`,
    ofAll(method),
    async ({ page, context }) => {
      const time = await DrivenTime.of(context);
      await build(page, way, rest);
      const id = await toReading(page);
      const v = await simulated(page, id, time);
      if (rest.plug) await v.wire("C", "G");
      if (method === "C" || method === "E") {
        await v.press("Let it warm up");
        await time.pass(8000);
        await expect(v.car.getByRole("button", { name: "The engine is warm" })).toBeVisible();
      }
      const now = page.getByRole("button", { name: "The key goes on now" });
      if (method === "G") {
        for (const key of ["On, engine off", "Off", "On, engine off", "Off"] as const) await v.key(key);
      }
      if (await now.isVisible()) await now.click();
      await v.key("On, engine off");
      if (method === "E") await v.key("Engine runs");
      // Long and short are told apart by how long the key is held.
      if (hold) await page.getByRole("tab", { name: "Hold" }).click();
      const person = new DrivenWatcher(time, v.car, page, 5, hold ? "hold" : "tap");
      const began = time.at;
      const codes = page.getByRole("list", { name: "Codes read" }).getByRole("listitem");
      // A list that is shown once is over; one that goes round is watched until all that was made up is known.
      const sure = page.getByRole("list", { name: "Codes read" }).getByText(/certain|likely/);
      const all = (await stored(v.car, id)).length;
      const enough = async () =>
        (await codes.count()) >= all && ((await sure.count()) >= all || time.at - began > 60_000);
      await person.watch("engine", 150_000, enough);
      await recorded(page, v.car, id);
    },
  );

test("a make of one's own, method D: a button on the unit, a code a press", async ({ page, context }) => {
  const time = await DrivenTime.of(context);
  await build(page, /^Hold a button on the unit itself/, { plug: false, table: ROW });
  const id = await toReading(page);
  const v = await simulated(page, id, time);
  await v.key("On, engine off");
  const person = new DrivenWatcher(time, v.car, page, 9, "tap-dark");
  for (let press = 0; press < 4; press++) {
    await v.hold("Unit button", 3200);
    await page.keyboard.press("b");
    await person.watch("engine", 20_000);
  }
  await recorded(page, v.car, id);
});

test("a make of one's own, method H: the number stands in the instrument", async ({ page }) => {
  await build(page, /^Hold buttons of the instrument/, { plug: false, table: TABLE });
  const id = await toReading(page);
  const v = await simulated(page, id);
  await v.press("Hold SET");
  await v.press("Hold RESET");
  await v.key("On, engine off");
  await v.car.waitForTimeout(5300);
  await v.press("Let SET go");
  await v.press("Let RESET go");
  const display = v.car.getByLabel("Display");
  for (let i = 0; i < 6; i++) {
    const shown = (await display.textContent())!;
    await page.getByLabel("On the display").fill(shown);
    await page.keyboard.press("Enter");
    if (shown === "--") break;
    await v.press("SET");
    await expect(display).not.toHaveText(shown);
  }
  await recorded(page, v.car, id);
});

test("a make of one's own, method I: the dash walks through its modules", ofAll("I"), async ({ page }) => {
  await build(page, /then walk through the modules/, { plug: true, table: TABLE });
  const id = await toReading(page);
  const v = await simulated(page, id);
  await v.wire("C", "G");
  await v.key("On, engine off");
  await expect.poll(() => memoryOf(v.car, id).then((m) => m.length)).toBeGreaterThan(0);
  for (const code of await memoryOf(v.car, id)) {
    await page.getByLabel("After the E").fill(code);
    await page.keyboard.press("Enter");
  }
  await page.getByRole("button", { name: /All codes of Engine/ }).click();
  await recorded(page, v.car, id);
});

test("a make of one's own, method J: readiness by its lamp", ofAll("J"), async ({ page, context }) => {
  const time = await DrivenTime.of(context);
  await build(page, /^Key on, and wait/, { plug: false, table: TABLE });
  const id = await toReading(page);
  const v = await simulated(page, id, time);
  await v.key("On, engine off");
  await page.getByRole("button", { name: "The key goes on now" }).click();
  await new DrivenWatcher(time, v.car, page, 1).watch(
    "engine",
    60_000,
    says(page, "Not ready: the monitors are not complete."),
  );
  await expect(sentence(page)).toHaveText("Not ready: the monitors are not complete.");
  await record(page);
});

test("a make is mended, saved, refused, brought in again, compared, and removed; nothing typed is lost", async ({
  page,
}) => {
  const hand = await build(page, /^Turn the key on and off/, { plug: false, table: TABLE });
  expect(hand.did).toBeLessThan(15);
  await page.goto("/makes");
  await page.getByRole("link", { name: "Harrowgate", exact: true }).click();
  await expectAccessible(page, "hand over");
  const [file] = await Promise.all([page.waitForEvent("download"), hand.press("Save as a file")]);
  const path = await file.path();
  const parts = page.getByRole("navigation", { name: "Parts of the make" });
  for (const part of ["Vehicle", "Way in", "How it talks", "Codes", "Clear and prove"]) {
    await parts.getByRole("link", { name: part }).click();
    await expect(sentence(page)).toBeVisible();
    await expectAccessible(page, part);
  }
  // Half a year is not stored, is told of, and is there after a reload.
  await parts.getByRole("link", { name: "Vehicle" }).click();
  await page.getByLabel("Last model year").fill("19");
  await expect(page.getByText("Write a model year with four digits")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Last model year")).toHaveValue("19");
  await page.getByLabel("Last model year").fill("1994");
  await expect(page.getByText("Write a model year with four digits")).toBeHidden();
  // Two things told in one breath are both there.
  await page.getByLabel("Model", { exact: true }).fill("Coupe Sport");
  await page.getByRole("radiogroup", { name: "Cylinders" }).getByText("6", { exact: true }).click();
  await expect(page.getByRole("radio", { name: "6", exact: true })).toBeChecked();
  await page.reload();
  await expect(page.getByLabel("Model", { exact: true })).toHaveValue("Coupe Sport");
  await expect(page.getByRole("radio", { name: "6", exact: true })).toBeChecked();
  await parts.getByRole("link", { name: "Codes" }).click();
  await page.getByRole("button", { name: "Change code 21" }).click();
  await page.getByLabel("What it means").fill("Throttle plate switch");
  await page.getByRole("button", { name: "Close code 21" }).click();
  await expect(page.getByText("Throttle plate switch")).toBeVisible();
  await page.getByRole("button", { name: "Undo last change" }).click();
  await expect(page.getByText("Throttle switch", { exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Change code 21" }).click();
  await page.getByLabel("What it means").fill("Throttle plate switch");
  await page.getByRole("button", { name: "Close code 21" }).click();
  // Once it stands in the table it is kept.
  await expect(page.getByText("Throttle plate switch")).toBeVisible();
  await page.goto("/makes");
  const bring = async (from: string | { name: string; mimeType: string; buffer: Buffer }) => {
    const [chooser] = await Promise.all([
      page.waitForEvent("filechooser"),
      page.getByRole("button", { name: "Bring a make in" }).click(),
    ]);
    await chooser.setFiles(from);
  };
  const json = (text: string) => ({ name: "club.json", mimeType: "application/json", buffer: Buffer.from(text) });
  await bring(json('{"__proto__": {"x": 1}, "make": "<b>x</b>"}'));
  await expect(page.getByText(/club.json was not brought in/)).toBeVisible();
  await bring(path);
  await expect(page.getByText("Harrowgate is here already.")).toBeVisible();
  await expect(page.getByText('code 21: "circuit" and "title" changed')).toBeVisible();
  await page.getByRole("button", { name: "Keep both" }).click();
  await expect(page.getByText("is here beside the other.")).toBeVisible();
  await expect(page.getByRole("list", { name: "Makes on this device" }).getByRole("listitem")).toHaveCount(2);
  await page.getByRole("list", { name: "Makes on this device" }).getByRole("link").last().click();
  await page.getByRole("button", { name: "Remove this make" }).click();
  await page.getByRole("button", { name: "Remove for good" }).click();
  await expect(page.getByRole("list", { name: "Makes on this device" }).getByRole("listitem")).toHaveCount(1);
});

test("a copy of a make that ships is changed way by way and table by table, at the keyboard; the shipped one stays", async ({
  page,
}) => {
  await page.goto("/makes/norrvik/plug");
  // One that ships is only looked at.
  await expect(page).toHaveURL(/\/makes\/norrvik$/);
  await page.getByRole("button", { name: "Copy it to change it" }).press("Enter");
  await expect(sentence(page)).toHaveText("Which vehicle is it?");
  const parts = page.getByRole("navigation", { name: "Parts of the make" });
  await parts.getByRole("link", { name: "Plug" }).press("Enter");
  const engine = page.locator("section", {
    has: page.getByRole("heading", { name: "Bridge test line and ground, key on" }),
  });
  await expect(engine.first()).toBeVisible();
  await page.getByLabel("Colour of its shell").first().fill("violet");
  await page.getByLabel("Colour of its shell").first().press("Tab");
  await expect(page.getByRole("button", { name: "Undo last change" })).toBeEnabled();
  await parts.getByRole("link", { name: "Way in" }).press("Enter");
  await expect(page.getByRole("button", { name: /^Steps for/ })).toHaveCount(2);
  for (const steps of await page.getByRole("button", { name: /^Steps for/ }).all()) await steps.press("Enter");
  await expect(page.getByText(/join C and G|one end into C, the other into G/i).first()).toBeVisible();
  await expect(page.getByText(/into D.*into G/i).first()).toBeVisible();
  // A step goes down and up again by keys alone.
  const steps = page.getByRole("grid", { name: "Steps" }).first();
  const first = steps.getByRole("row").first();
  // As the keys go there: into the list, to its first row, along the row, past where it is dragged.
  await first.focus();
  await page.keyboard.press("Home");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect(first.getByRole("button", { name: /: down$/ })).toBeFocused();
  await page.keyboard.press("Enter");
  await expect(first).toContainText("1. Find the connector");
  await page.getByRole("button", { name: "Undo last change" }).press("Enter");
  await expect(first).toContainText("1. Key off");
  await parts.getByRole("link", { name: "Codes" }).press("Enter");
  await page.getByRole("radiogroup", { name: "Which table" }).getByText("Brakes").first().click();
  await page.getByRole("button", { name: "Take all codes out" }).press("Enter");
  await page.getByRole("button", { name: "Take them out" }).press("Enter");
  await expect(sentence(page)).toHaveText("Brakes: what do the codes mean?");
  await page.getByRole("radiogroup", { name: "Which table" }).getByText("Engine").first().click();
  await expect(sentence(page)).toHaveText(/^Engine: \d+ codes$/);
});

/** What a spreadsheet copies, pasted into a field. */
const pasted = (field: Locator, text: string) =>
  field.evaluate((el, copied) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData("text/plain", copied);
    (el as HTMLElement).focus();
    el.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }));
  }, text);

test("a plug's face is drawn over a photo, and rows of a spreadsheet go into the grid of codes", async ({ page }) => {
  await page.goto("/makes/norrvik");
  await page.getByRole("button", { name: "Copy it to change it" }).click();
  await expect(sentence(page)).toHaveText("Which vehicle is it?");
  const parts = page.getByRole("navigation", { name: "Parts of the make" });
  await parts.getByRole("link", { name: "Plug" }).click();
  await page
    .getByRole("button", { name: /^Draw its face/ })
    .first()
    .click();
  const sheet = page.getByRole("region", { name: "Draw its face" });
  const photo = async (file: { name: string; mimeType: string; buffer: Buffer }) => {
    const [chooser] = await Promise.all([
      page.waitForEvent("filechooser"),
      sheet.getByRole("button", { name: /photo beneath/ }).click(),
    ]);
    await chooser.setFiles(file);
  };
  await photo({ name: "notes.png", mimeType: "image/png", buffer: Buffer.from("no picture") });
  await expect(sheet.getByRole("alert")).toContainText("notes.png can't be used as a photo of the plug");
  const picture = await page.screenshot({ clip: { x: 0, y: 0, width: 600, height: 400 } });
  await photo({ name: "plug.png", mimeType: "image/png", buffer: picture });
  await expect(sheet.getByRole("img", { includeHidden: true })).toHaveCount(1);
  const drawing = sheet.locator("[style*=aspect-ratio]");
  const touch = async (x: number, y: number) => {
    const { width, height } = (await drawing.boundingBox())!;
    await drawing.click({ position: { x: x * width, y: y * height } });
  };
  const state = sheet.getByRole("status");
  for (const [x, y] of [[0.1, 0.1], [0.9, 0.1], [0.8, 0.9]] as const) await touch(x, y); // prettier-ignore
  await expect(state).toContainText("Not placed yet: A, B, C");
  // A fourth one by keys alone: it comes on the longest edge, and is led to its place.
  await sheet.getByRole("button", { name: "Put a corner in" }).press("Enter");
  const fourth = sheet.getByRole("button", { name: /^Corner 4/ });
  for (let i = 0; i < 8; i++) await fourth.press("Shift+ArrowLeft");
  for (let i = 0; i < 8; i++) await fourth.press("Shift+ArrowDown");
  await sheet.getByText("Cavities", { exact: true }).click();
  for (let i = 0; i < 9; i++) await touch(0.25 + 0.12 * (i % 5), i < 5 ? 0.25 : 0.7);
  await expect(state).toHaveText("Not placed yet: K.");
  await touch(0.97, 0.5);
  await expect(state).toHaveText("K lies outside the shell.");
  await expectAccessible(page, "drawing a plug");
  // A page that is closed in the middle loses none of it but the photo.
  await page.reload();
  await page
    .getByRole("button", { name: /^Draw its face/ })
    .first()
    .click();
  await expect(sheet.getByText(/The drawing was made on plug.png/)).toBeVisible();
  await sheet.getByText("Cavities", { exact: true }).click();
  const last = sheet.getByRole("button", { name: /^Cavity K/ });
  for (let i = 0; i < 8; i++) await last.press("Shift+ArrowLeft");
  await sheet.getByLabel("What its outline looks like").fill("Ship-shaped");
  await expect(state).toHaveText("All cavities are within the shell.");
  await sheet.getByRole("button", { name: "Take this face" }).click();
  await expect(sheet).toHaveCount(0);
  await expect(page.getByRole("radio", { name: "Drawn" }).first()).toBeChecked();
  await expect(page.getByLabel("Cavity names, row by row").first()).toHaveValue(/^A B C D E\n/);

  await parts.getByRole("link", { name: "Codes" }).click();
  await page.getByText("A grid, to type and paste into").click();
  const heading = await sentence(page).textContent();
  const fresh = page.getByLabel("A new code");
  await pasted(fresh, "Code\tMeaning\n91\tFan relay\n9x\tHeater tap\n");
  await expect(page.getByRole("alert")).toContainText('Nothing was taken over. Row 3, Code "9x": a code is a number');
  await pasted(fresh, "Code\tMeaning\tCircuit\n91\tFan relay\tCooling fan\n92\tHeater tap\t\n");
  await expect(page.getByLabel("Circuit, code 91")).toHaveValue("Cooling fan");
  await expect(page.getByLabel("Circuit, code 92")).toHaveValue("Heater tap");
  // What cannot be stored says why, and stays to be mended.
  await page.getByLabel("Code, code 91").fill("9x");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("alert")).toContainText('Not stored yet. Code "9x": a code is a number, such as 24.');
  await expect(page.getByLabel("Code, code 91")).toHaveValue("9x");
  // A code goes to its place in the order, and the keys with it.
  await page.getByLabel("Code, code 91").fill("95");
  await page.keyboard.press("Tab");
  await expect(page.getByLabel("What it means, code 95")).toBeFocused();
  await page.keyboard.press("ArrowUp");
  await expect(page.getByLabel("What it means, code 92")).toBeFocused();
  const undo = page.getByRole("button", { name: "Undo last change" });
  await undo.click();
  await expect(page.getByLabel("Code, code 91")).toBeVisible();
  // Pressed twice at once it takes back one change, or two, and never a part of one.
  await undo.dblclick();
  await expect(sentence(page)).toHaveText(heading!);
  // A page that is closed in the middle of a cell keeps what was typed there.
  const cell = page.getByLabel(/^What it means, code/).first();
  const before = await cell.inputValue();
  await cell.fill("Half a wo");
  await page.reload();
  await expect(cell).toHaveValue("Half a wo");
  await expect(cell).toBeFocused();
  await page.keyboard.press("Escape");
  await expect(cell).toHaveValue(before);
});

test("the page of a manual is read off a photo, each row beside its part of it; what is no page is told so", async ({
  page,
  context,
}) => {
  await page.setViewportSize({ width: 360, height: 740 });
  const hand = new Hand(page);
  await page.goto("/makes/new");
  await hand.fill("Make", "Harrowgate");
  await hand.fill("Model", "Coupe");
  await hand.fill("First model year", "1988");
  await hand.press("Go on");
  await page.getByRole("navigation", { name: "Parts of the make" }).getByRole("link", { name: /Codes/ }).click();
  const rows = [
    ["11", "Air meter"],
    ["14", "Coolant sensor"],
    ["22", "Throttle switch"],
    ["31", "Knock sensor"],
    ["44", "Idle valve"],
  ];
  const drawing = await context.newPage();
  const look = lookOf(seeded(4), true);
  const photo = await drawPage(drawing, rows, ["Code", "Circuit"], look, 1);
  await drawing.close();
  const open = async (name: string, mimeType: string, buffer: Buffer) => {
    const [chooser] = await Promise.all([
      page.waitForEvent("filechooser"),
      page.getByRole("button", { name: "Open a picture or file" }).click(),
    ]);
    await chooser.setFiles({ name, mimeType, buffer });
  };
  await open("cat.jpg", "image/jpeg", Buffer.from("this is no picture"));
  await expect(page.getByText("This picture could not be opened here.")).toBeVisible();
  await open("odd.bin", "application/octet-stream", Buffer.from([1, 0, 2, 0, 3]));
  await expect(page.getByText("odd.bin is no text and no picture.")).toBeVisible();
  await open("page.jpg", "image/jpeg", photo);
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByRole("progressbar")).toBeHidden();
  await open("page.jpg", "image/jpeg", photo);
  await expect(page.getByText("5 codes found")).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole("img", { name: "Code 22 on the page" })).toBeVisible();
  await expectAccessible(page, "a page off a photo");
  for (const button of await page.getByRole("button", { name: /is right$/ }).all()) await button.click();
  // What was read and said of it is there again after the page was closed, without reading it once more.
  await page.reload();
  await expect(page.getByText("Read from page.jpg.")).toBeVisible();
  await expect(page.getByRole("img", { name: "Code 22 on the page" })).toBeVisible();
  await page.getByRole("button", { name: "Take 5 codes" }).click();
  await expect(page.getByText("Read from page.jpg.")).toHaveCount(0);
  const codes = page.getByRole("list", { name: "Codes" });
  for (const [code, title] of rows)
    await expect(codes.getByRole("listitem").filter({ hasText: title })).toContainText(code);
  for (const part of ["Way in", "Plug", "How it talks", "Clear and prove", "Vehicle"]) {
    await page.getByRole("navigation", { name: "Parts of the make" }).getByRole("link", { name: part }).click();
    await expectAccessible(page, `${part} on a phone`);
  }
});
