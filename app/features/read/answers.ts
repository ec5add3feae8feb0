/** So many answers that fail in a row are told of. */
const STUCK_AFTER = 3;

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
  private again = false;
  private failed = 0;

  constructor(private of: Asking) {}

  /** Something has changed: asks about it, now or as soon as the answer before is there. */
  next = (): void => {
    if (this.asking) {
      this.again = true;
      return;
    }
    const asked = performance.now();
    const answer = this.of.ask();
    if (!answer) return;
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
        this.again = this.failed < STUCK_AFTER;
      },
    );
    void told.finally(() => {
      this.asking = false;
      this.cost = performance.now() - asked;
      if (this.again) {
        this.again = false;
        this.next();
        if (this.asking) return;
      }
      this.of.busy(false);
    });
  };
}
