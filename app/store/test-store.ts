/** Stands in for the browser's stores, by their names, and takes its time as they do. For tests. */
export const stores = new Map<string, Map<string, unknown>>();

/** Writes to a store of this name fail, as where there is no room. */
export const full = new Set<string>();

const later = async <T>(value: () => T): Promise<T> => {
  await new Promise((done) => setTimeout(done, Math.random() * 4));
  return value();
};

export const localforage = {
  createInstance: ({ name }: { name: string }) => {
    const held = new Map<string, unknown>();
    stores.set(name, held);
    return {
      getItem: (key: string) => later(() => structuredClone(held.get(key) ?? null)),
      setItem: (key: string, value: unknown) =>
        later(() => {
          if (full.has(name)) throw new DOMException("no room", "QuotaExceededError");
          held.set(key, value instanceof Object && "film" in value ? { ...value } : structuredClone(value));
        }),
      removeItem: (key: string) => later(() => held.delete(key)),
      iterate: (visit: (value: unknown, key: string) => void) => later(() => held.forEach((v, k) => visit(v, k))),
    };
  },
};
