/** What is under way for each key, where the browser has no locks of its own. */
const tails = new Map<string, Promise<unknown>>();

/**
 * Runs `run` when everything asked before it under the same key is over, in all tabs of this browser (in this tab only
 * where the browser has no locks). Whatever reads a record, changes it and writes it back goes through here: two
 * quick changes would otherwise both start from the first state, and one would be lost.
 */
export function inTurn<T>(key: string, run: () => Promise<T>): Promise<T> {
  const locks = (globalThis.navigator as Partial<Navigator> | undefined)?.locks;
  if (locks) return locks.request(`klinko ${key}`, run);
  const mine = (tails.get(key) ?? Promise.resolve()).then(run, run);
  tails.set(key, mine);
  const over = () => {
    if (tails.get(key) === mine) tails.delete(key);
  };
  mine.then(over, over);
  return mine;
}
