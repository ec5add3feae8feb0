import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { live, WorkerDied } from "./live";

/** A worker that never answers. */
class Silent extends EventTarget {
  terminated = false;
  postMessage(): void {
    // It says nothing.
  }
  terminate(): void {
    this.terminated = true;
  }
}
interface Api {
  decode: (n: number) => number;
}

describe("a worker", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  const start = (answersMs: number | null) => {
    const worker = new Silent();
    const died = vi.fn();
    return { worker, died, ...live<Api>(worker as unknown as Worker, answersMs, died) };
  };

  it("that dies ends all calls that wait, and those that come after", async () => {
    const { worker, died, api } = start(null);
    const calls = [api.decode(1), api.decode(2)];
    worker.dispatchEvent(new Event("error"));
    for (const call of calls) await expect(call).rejects.toBeInstanceOf(WorkerDied);
    await expect(api.decode(3)).rejects.toBeInstanceOf(WorkerDied);
    worker.dispatchEvent(new Event("error"));
    expect([worker.terminated, died.mock.calls.length]).toEqual([true, 1]);
  });

  it("that hangs is ended after its time; where none is set it may take as long as it will", async () => {
    const slow = start(null);
    const waits = slow.api.decode(1).catch((e: unknown) => e);
    const hung = start(5000);
    const failed = expect(hung.api.decode(1)).rejects.toBeInstanceOf(WorkerDied);
    await vi.advanceTimersByTimeAsync(6000);
    await failed;
    expect([hung.worker.terminated, slow.worker.terminated]).toEqual([true, false]);
    slow.end();
    expect(await waits).toBeInstanceOf(WorkerDied);
  });
});
