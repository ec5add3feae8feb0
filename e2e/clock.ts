import type { BrowserContext, Page } from "@playwright/test";

/** Time as a test lets it go by. */
export interface Time {
  pass: (ms: number) => Promise<void>;
}

/** True time. */
export const trueTime = (page: Page): Time => ({ pass: (ms) => page.waitForTimeout(ms) });

interface Driven {
  klinkoDrive: (to: number, system: string | null, atOnce?: boolean) => Promise<{ at: number; lit: boolean }>;
}

/**
 * All pages of a context get a clock that stands still until the test moves it on: hours of lamp time pass in seconds, and no
 * page is late because the machine is busy. To be called before the first page opens.
 */
export class DrivenTime implements Time {
  /** Lamp time that has gone by, ms. */
  at = 0;

  private constructor(private context: BrowserContext) {}

  static async of(context: BrowserContext): Promise<DrivenTime> {
    await context.addInitScript(putClock, Date.now());
    return new DrivenTime(context);
  }

  async pass(ms: number): Promise<void> {
    await this.to(this.at + ms);
  }

  /** Lets a long time go by at once: what is due in it runs a single time. */
  async skip(ms: number): Promise<void> {
    this.at += ms;
    for (const page of this.context.pages())
      await page.evaluate((to) => (window as unknown as Driven).klinkoDrive(to, null, true), this.at);
  }

  /** Moves on to a time; stops sooner where a lamp of `watched` changes. @returns whether it is lit then */
  async to(at: number, watched?: { page: Page; system: string }): Promise<boolean> {
    const drive = (page: Page, to: number, system: string | null) =>
      page.evaluate(([t, s]) => (window as unknown as Driven).klinkoDrive(t, s), [to, system] as const);
    const reached = watched ? await drive(watched.page, at, watched.system) : { at, lit: false };
    const others = this.context.pages().filter((page) => page !== watched?.page);
    await Promise.all(others.map((page) => drive(page, reached.at, null)));
    this.at = reached.at;
    return reached.lit;
  }
}

/** Runs in the page, before its own scripts. */
function putClock(base: number): void {
  const KEY = "test-time";
  let at = 0;
  try {
    at = Number(sessionStorage.getItem(KEY) ?? localStorage.getItem(KEY) ?? 0);
  } catch {
    // A page without storage has no time to keep.
  }
  const timers = new Map<number, { due: number; run: () => void; every: number }>();
  let n = 0;
  const add = (due: number, run: () => void, every: number) => {
    const id = ++n;
    timers.set(id, { due, run, every });
    return () => void timers.delete(id);
  };
  /** What a timer changed is drawn before the next one runs. */
  const drawn = async () => {
    for (let i = 0; i < 3; i++)
      await new Promise<void>((done) => {
        const { port1, port2 } = new MessageChannel();
        port1.onmessage = () => (port1.close(), done());
        port2.postMessage(0);
      });
  };
  /** What workers work out, and when it was asked. */
  const awaited = new Map<Promise<unknown>, number>();
  /** A worker's answer comes within so many ms of lamp time, as on a machine that is not busy. */
  const ANSWERED_MS = 400;
  const answered = async (by: number) => {
    for (;;) {
      const late = [...awaited].filter(([, asked]) => asked + ANSWERED_MS < by).map(([answer]) => answer);
      if (!late.length) return;
      await Promise.allSettled(late);
      await drawn();
    }
  };
  const lit = (system: string | null) => document.querySelector(`[data-system="${system}"]`)?.getAttribute("data-lit");
  Object.assign(window, {
    klinkoClock: {
      now: () => base + at,
      ticks: () => at,
      of: () => at,
      after: (ms: number, run: () => void) => add(at + Math.max(0, ms), run, 0),
      every: (ms: number, run: () => void) => add(at + ms, run, ms),
      awaits: (answer: Promise<unknown>) => {
        awaited.set(answer, at);
        const done = () => void awaited.delete(answer);
        answer.then(done, done);
      },
    },
    klinkoDrive: async (to: number, system: string | null, atOnce = false) => {
      const was = lit(system);
      if (atOnce) {
        at = to;
        for (const timer of timers.values()) timer.due = Math.min(timer.due, at);
      }
      for (;;) {
        const due = [...timers].filter(([, t]) => t.due <= to).sort(([, a], [, b]) => a.due - b.due);
        const next = due[0]?.[1].due ?? to;
        await answered(atOnce ? -Infinity : next);
        if (!due.length) {
          at = Math.max(at, to);
          break;
        }
        const [id, timer] = due[0];
        if (!timers.has(id)) continue;
        at = Math.max(at, timer.due);
        if (timer.every) timer.due = (atOnce ? at : timer.due) + timer.every;
        else timers.delete(id);
        timer.run();
        await drawn();
        if (system && lit(system) !== was) break;
      }
      localStorage.setItem(KEY, String(at));
      return { at, lit: lit(system) === "yes" };
    },
  });
}
