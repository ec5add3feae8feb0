/** Stands in for the browser's stores, by their names, and takes its time as they do. For tests. */
export const stores = new Map<string, Map<string, unknown>>();

/** Writes to a store of this name fail, as where there is no room. */
export const full = new Set<string>();
/** A store of this name never answers, or is not there at all. */
export const hung = new Set<string>();
export const missing = new Set<string>();

export const storeOf = (name: string): Map<string, unknown> => {
  const held = stores.get(name) ?? new Map<string, unknown>();
  stores.set(name, held);
  return held;
};

export const localforage = {
  INDEXEDDB: "asyncStorage",
  LOCALSTORAGE: "localStorageWrapper",
  createInstance: ({ name }: { name: string }) => {
    const held = storeOf(name);
    const later = async <T>(value: () => T): Promise<T> => {
      if (hung.has(name)) return new Promise(() => undefined);
      if (missing.has(name)) throw new Error("No available storage method found.");
      await new Promise((done) => setTimeout(done, Math.random() * 4));
      return value();
    };
    return {
      getItem: (key: string) => later(() => structuredClone(held.get(key) ?? null)),
      setItem: (key: string, value: unknown) =>
        later(() => {
          if (full.has(name)) throw new DOMException("no room", "QuotaExceededError");
          held.set(key, value instanceof Object && "film" in value ? { ...value } : structuredClone(value));
        }),
      removeItem: (key: string) => later(() => held.delete(key)),
      clear: () => later(() => held.clear()),
      length: () => later(() => held.size),
      keys: () => later(() => [...held.keys()]),
      iterate: (visit: (value: unknown, key: string) => void) =>
        later(() => held.forEach((v, k) => visit(structuredClone(v), k))),
    };
  },
};
