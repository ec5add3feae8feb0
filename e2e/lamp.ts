import type { Page } from "@playwright/test";
import { normal, seeded } from "@core/flash/dialect/encode";
import type { DrivenTime } from "./clock";

/** How the hand works: a tap with each flash, a key held while it lasts, a tap as the lamp goes dark. */
type Hand = "tap" | "hold" | "tap-dark";

/** How late a hand is, ms: never by the same time. */
const late = (random: () => number) => Math.max(120, 230 + 45 * normal(random));

function work(job: Page, how: Hand, lit: boolean): Promise<void> {
  if (how === "hold") return lit ? job.keyboard.down("Space") : job.keyboard.up("Space");
  return lit === (how === "tap-dark") ? Promise.resolve() : job.keyboard.press("Space");
}

/** A made-up person who looks at the simulated vehicle's lamp and works the pad, in true time. */
export class Watcher {
  private random: () => number;
  private stopped = true;
  private pending: Promise<unknown>[] = [];

  constructor(
    private simulated: Page,
    private job: Page,
    seed: number,
    private how: Hand = "tap",
  ) {
    this.random = seeded(seed);
  }

  /** Starts to look at one lamp. */
  async look(system: string): Promise<void> {
    await this.simulated.exposeFunction("klinkoLamp", (lit: boolean) => this.seen(lit)).catch(() => undefined);
    await this.simulated.evaluate((wanted) => {
      const lamp = document.querySelector(`[data-system="${wanted}"]`)!;
      const tell = (window as unknown as { klinkoLamp: (lit: boolean) => void }).klinkoLamp;
      const old = (window as unknown as { klinkoObserver?: MutationObserver }).klinkoObserver;
      old?.disconnect();
      const observer = new MutationObserver(() => tell(lamp.getAttribute("data-lit") === "yes"));
      observer.observe(lamp, { attributes: true, attributeFilter: ["data-lit"] });
      (window as unknown as { klinkoObserver: MutationObserver }).klinkoObserver = observer;
    }, system);
    this.stopped = false;
  }

  async stop(): Promise<void> {
    this.stopped = true;
    await Promise.all(this.pending);
  }

  private seen(lit: boolean): void {
    if (this.stopped) return;
    const press = async () => {
      await new Promise((r) => setTimeout(r, late(this.random)));
      await work(this.job, this.how, lit);
    };
    this.pending.push(press().catch(() => undefined));
  }
}

/** So often the person looks at the page of the job; a lamp that changes is seen at once, ms of its time. */
const LOOK_MS = 1000;

/** The same person where the test drives the time. */
export class DrivenWatcher {
  private random: () => number;
  private due: { at: number; lit: boolean }[] = [];

  constructor(
    private time: DrivenTime,
    private simulated: Page,
    private job: Page,
    seed: number,
    private how: Hand = "tap",
  ) {
    this.random = seeded(seed);
  }

  /** Watches a lamp for so many ms of its time, or until something shows on the page of the job. */
  async watch(system: string, atMost: number, until: () => Promise<boolean> = () => Promise.resolve(false)) {
    const watched = { page: this.simulated, system };
    const end = this.time.at + atMost;
    let lit = await this.time.to(this.time.at, watched);
    for (let looked = this.time.at; this.time.at < end;) {
      const now = await this.time.to(Math.min(end, this.time.at + LOOK_MS, ...this.due.map((d) => d.at)), watched);
      if (now !== lit) this.due.push({ at: this.time.at + late(this.random), lit: (lit = now) });
      for (const due of this.due.filter((d) => d.at <= this.time.at)) await work(this.job, this.how, due.lit);
      this.due = this.due.filter((d) => d.at > this.time.at);
      if (this.time.at - looked < LOOK_MS) continue;
      looked = this.time.at;
      if (await until()) return;
    }
  }
}
