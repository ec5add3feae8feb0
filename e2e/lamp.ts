import type { Page } from "@playwright/test";
import { normal, seeded } from "@core/flash/encode";

/** A made-up person who looks at the simulated vehicle's lamp and works the pad: late, and never by the same time. */
export class Watcher {
  private random: () => number;
  private stopped = true;
  private pending: Promise<unknown>[] = [];

  constructor(
    private simulated: Page,
    private job: Page,
    seed: number,
    private how: "tap" | "hold" | "tap-dark" = "tap",
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
    const late = Math.max(120, 230 + 45 * normal(this.random));
    const press = async () => {
      await new Promise((r) => setTimeout(r, late));
      if (this.how === "hold") await (lit ? this.job.keyboard.down("Space") : this.job.keyboard.up("Space"));
      else if (lit !== (this.how === "tap-dark")) await this.job.keyboard.press("Space");
    };
    this.pending.push(press().catch(() => undefined));
  }
}
