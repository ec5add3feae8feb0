import localforage from "localforage";

/** What a browser's store can do to us, in words for whoever is at work. */
export class StoreProblem extends Error {
  override name = "StoreProblem";
  constructor(
    readonly kind: "no-room" | "no-store" | "refused",
    message: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

const NO_ROOM = "This browser has no room left, so it was not saved. Free some room on the device, then try again.";
const NO_STORE =
  "This browser does not let Klinko store anything: nothing can be kept here. Private windows and strict settings do that; open Klinko in a usual window, or restart the browser.";

/** A store that has not answered by then is told of, ms. */
const ANSWERS_MS = 2500;
/** Large pictures on a slow disk take their time, ms. */
const WRITES_MS = 15_000;

/** Stores that can be made anew from others: a write to them need not wait for the disk. */
const MADE_ANEW = ["klinko-cards"];
let bulk = 0;

/**
 * What is told to be stored is on the disk, and not only on its way there: a phone whose battery dies keeps it. localForage asks for no
 * durability of its own, and a browser's usual one is the weaker.
 */
if (typeof IDBDatabase !== "undefined") {
  const { transaction } = IDBDatabase.prototype as { transaction: IDBDatabase["transaction"] };
  IDBDatabase.prototype.transaction = function (names, mode, options) {
    const strict = mode === "readwrite" && bulk === 0 && !MADE_ANEW.includes(this.name);
    return transaction.call(this, names, mode, { durability: strict ? "strict" : "relaxed", ...options });
  };
}

/** Many writes of which a file holds all: they wait for the disk once, with the last one. */
export async function inBulk<T>(run: () => Promise<T>): Promise<T> {
  bulk++;
  try {
    return await run();
  } finally {
    bulk--;
  }
}

/** One kind of thing in the browser, by key. In IndexedDB alone: a second store beside it would hide what is in the first. */
export interface Box {
  get: (key: string) => Promise<unknown>;
  set: (key: string, value: unknown) => Promise<void>;
  remove: (key: string) => Promise<void>;
  /** Removes all that is in it. */
  clear: () => Promise<void>;
  /** Goes through all, a few hundred at a time, so that the page stays at hand. */
  each: (visit: (value: unknown, key: string) => void) => Promise<void>;
  keys: () => Promise<string[]>;
}

/**
 * @param storeName of one that is older than this rule
 * @param driver another one only for words that must be there in the next moment, and of which nothing else hangs
 */
export function box(name: string, storeName = "records", driver = localforage.INDEXEDDB): Box {
  const db = localforage.createInstance({ name, storeName, driver });
  const told = <T>(run: () => Promise<T>, ms: number): Promise<T> => {
    let timer: ReturnType<typeof setTimeout>;
    const late = new Promise<never>((_, no) => {
      timer = setTimeout(() => no(new StoreProblem("no-store", NO_STORE)), ms);
    });
    return Promise.race([run(), late])
      .catch((cause: unknown) => {
        throw problemOf(cause);
      })
      .finally(() => clearTimeout(timer));
  };
  return {
    get: (key) => told(() => db.getItem(key), ANSWERS_MS),
    set: (key, value) => told(async () => void (await db.setItem(key, value)), WRITES_MS),
    remove: (key) => told(() => db.removeItem(key), WRITES_MS),
    clear: () => told(() => db.clear(), WRITES_MS),
    each: async (visit) => {
      // That it answers at all shows at once; how much there is decides how long the rest takes.
      await told(() => db.length(), ANSWERS_MS);
      await told(() => db.iterate((value, key) => void visit(value, key)), 60_000);
    },
    keys: () => told(() => db.keys(), ANSWERS_MS),
  };
}

function problemOf(cause: unknown): Error {
  if (cause instanceof StoreProblem) return cause;
  const name = cause instanceof Error || cause instanceof DOMException ? cause.name : "";
  if (name === "QuotaExceededError" || /quota|no room|disk is full/i.test(String(cause)))
    return new StoreProblem("no-room", NO_ROOM, { cause });
  return new StoreProblem("no-store", NO_STORE, { cause });
}
