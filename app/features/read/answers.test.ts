import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { Answers } from "./answers";

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
});

/** Answers that take so long, ms. */
function made(cost: number) {
  const told = { asked: 0, busy: false, stuck: false, nothing: false };
  const answers = new Answers({
    ask: () => {
      if (told.nothing) return null;
      told.asked++;
      return new Promise((done) => setTimeout(done, cost));
    },
    busy: (busy) => (told.busy = busy),
    stuck: (stuck) => (told.stuck = stuck),
  });
  return { answers, told };
}

it("rests between answers to what goes on and on, and takes in all of it in the end", async () => {
  const { answers, told } = made(150);
  // A tap every fifth of a second for a minute.
  for (let k = 0; k < 300; k++) {
    answers.next(true);
    await vi.advanceTimersByTimeAsync(200);
  }
  expect(told.asked).toBeGreaterThan(40);
  expect(told.asked * 150).toBeLessThan(0.2 * 60_000);
  await vi.advanceTimersByTimeAsync(5000);
  expect(told.busy).toBe(false);
  // However slow an answer is, the next one comes.
  const slow = made(4000);
  slow.answers.next(true);
  await vi.advanceTimersByTimeAsync(4000);
  slow.answers.next(true);
  await vi.advanceTimersByTimeAsync(3100);
  expect(slow.told.asked).toBe(2);
});

it("answers what cannot wait at once, and is not busy where there is nothing to ask", async () => {
  const { answers, told } = made(150);
  answers.next(true);
  await vi.advanceTimersByTimeAsync(150);
  answers.next(true);
  expect([told.asked, told.busy]).toEqual([1, true]);
  answers.next();
  expect(told.asked).toBe(2);
  await vi.advanceTimersByTimeAsync(2000);
  expect([told.asked, told.busy]).toEqual([2, false]);
  answers.next(true);
  await vi.advanceTimersByTimeAsync(150);
  answers.next(true);
  told.nothing = true;
  await vi.advanceTimersByTimeAsync(3000);
  expect([told.asked, told.busy]).toEqual([3, false]);
});
