/** What one tab works on and no other: held as long as the page is open, or until another tab takes it over. */
export interface Hold {
  /** Takes it over from whoever holds it. */
  take: () => void;
  release: () => void;
}

/** What is not held after this time is held by another tab; the page before this one in the same tab lets go sooner, ms. */
const ELSEWHERE_MS = 400;

/**
 * Holds something as soon as nobody else does. Where the browser has no locks, every page holds it.
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
    const elsewhere = setTimeout(() => !over && change(false), ELSEWHERE_MS);
    const held = () => {
      clearTimeout(elsewhere);
      if (over) return undefined;
      change(true);
      return new Promise<void>((done) => (letGo = done));
    };
    locks.request(`klinko ${key}`, options, held).catch(() => {
      clearTimeout(elsewhere);
      if (over) return;
      // Another tab has taken it; it comes back when that one is closed.
      change(false);
      ask({ signal: waits.signal });
    });
  };
  ask({ signal: waits.signal });
  return {
    take: () => ask({ steal: true }),
    release: () => {
      over = true;
      waits.abort();
      letGo();
    },
  };
}
