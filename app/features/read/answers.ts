import { clock } from "~/store/clock";

/** So many answers that fail in a row are told of. */
const STUCK_AFTER = 3;

/** What goes on and on may take at most this share of the processor's time: a phone has to last. */
const SHARE = 0.15;
/** And never rests longer than that between two answers, however slow they are, ms. */
const MOST_REST_MS = 3000;

/** What is asked again and again while something goes on, and who wants to know how that goes. */
interface Asking {
  /** Asks about how things stand, and takes the answer; null where there is nothing to ask now. */
  ask: () => Promise<unknown> | null;
  /** Whether an answer is being worked out. */
  busy: (busy: boolean) => void;
  /** Whether several failed in a row. */
  stuck: (stuck: boolean) => void;
}

/** Asks one question at a time, so that a slow answer never queues up others: while one is worked out, only the newest waits. */
export class Answers {
  /** How long the last answer took, ms. */
  cost = 0;
  private asking = false;
  /** What came in while an answer was worked out: nothing, something that can wait, or something that cannot. */
  private again: "no" | "later" | "now" = "no";
  /** Until when it rests, in ticks of the clock, and the way to call that off. */
  private restUntil = -Infinity;
  private waiting: (() => void) | null = null;
  private failed = 0;

  constructor(private of: Asking) {}

  /**
   * Something has changed: asks about it as soon as the answer before is there.
   * @param canWait it goes on and on: after each answer it rests, so that answers take no more than their share of the time
   */
  next = (canWait = false): void => {
    if (this.asking) {
      if (this.again !== "now") this.again = canWait ? "later" : "now";
      return;
    }
    const rest = this.restUntil - clock.ticks();
    if (canWait && rest > 0) {
      this.of.busy(true);
      this.waiting ??= clock.after(rest, () => {
        this.waiting = null;
        this.next();
      });
      return;
    }
    this.waiting?.();
    this.waiting = null;
    const asked = performance.now();
    const answer = this.of.ask();
    if (!answer) {
      this.of.busy(false);
      return;
    }
    this.asking = true;
    this.of.busy(true);
    const told = answer.then(
      () => {
        this.failed = 0;
        this.of.stuck(false);
      },
      // The answer before stays; the next one is asked for all the same, of a worker that is started anew.
      () => {
        this.failed++;
        if (this.failed >= STUCK_AFTER) this.of.stuck(true);
        this.again = this.failed < STUCK_AFTER ? "now" : "no";
      },
    );
    void told.finally(() => {
      this.asking = false;
      this.cost = performance.now() - asked;
      this.restUntil = clock.ticks() + Math.min(MOST_REST_MS, this.cost / SHARE - this.cost);
      const { again } = this;
      this.again = "no";
      if (again !== "no") this.next(again === "later");
      if (!this.asking && !this.waiting) this.of.busy(false);
    });
  };
}
