/** What one tab works on and no other: held as long as the page is open, or until another tab takes it over. */
export interface Hold {
  /** Takes it over from whoever holds it. */
  take: () => Promise<void>;
  release: () => void;
}

/**
 * Asks to hold something. Where the browser has no locks, every page holds it.
 * @param change whether it is held, now and whenever that changes
 */
export function hold(key: string, change: (held: boolean) => void): Hold {
  const locks = (globalThis.navigator as Partial<Navigator> | undefined)?.locks;
  if (!locks) {
    change(true);
    return { take: () => Promise.resolve(), release: () => undefined };
  }
  let over = false;
  let release = (): void => undefined;
  const ask = (options: LockOptions) =>
    new Promise<void>((told) => {
      const held = (lock: Lock | null) => {
        if (over) return undefined;
        change(lock !== null);
        told();
        return lock ? new Promise<void>((done) => (release = done)) : undefined;
      };
      // It ends so when another tab has taken it.
      locks.request(`klinko ${key}`, options, held).catch(() => !over && change(false));
    });
  void ask({ ifAvailable: true });
  return {
    take: () => ask({ steal: true }),
    release: () => {
      over = true;
      release();
    },
  };
}
