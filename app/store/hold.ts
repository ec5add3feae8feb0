/** What one tab works on and no other: held as long as the page is open, or until another tab takes it over. */
export interface Hold {
  /** Takes it over from whoever holds it. */
  take: () => void;
  release: () => void;
}

/**
 * Holds something as soon as nobody else does: what is not free is waited for. Where the browser has no locks, every page holds it.
 * @param change whether it is held, as soon as that is known and whenever it changes
 */
export function hold(key: string, change: (held: boolean) => void): Hold {
  const locks = (globalThis.navigator as Partial<Navigator> | undefined)?.locks;
  if (!locks) {
    change(true);
    return { take: () => undefined, release: () => undefined };
  }
  let over = false;
  let letGo = (): void => undefined;
  const waits = new AbortController();
  const ask = (options: LockOptions): void => {
    const held = (lock: Lock | null) => {
      if (over) return undefined;
      change(lock !== null);
      if (lock) return new Promise<void>((done) => (letGo = done));
      // Another tab has it, or the page before this one has not quite let go: it comes here when it is free.
      ask({ signal: waits.signal });
      return undefined;
    };
    locks.request(`klinko ${key}`, options, held).catch(() => {
      if (over) return;
      // Another tab has taken it; it comes back when that one is closed.
      change(false);
      ask({ signal: waits.signal });
    });
  };
  ask({ ifAvailable: true });
  return {
    take: () => ask({ steal: true }),
    release: () => {
      over = true;
      waits.abort();
      letGo();
    },
  };
}
