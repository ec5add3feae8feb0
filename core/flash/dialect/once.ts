/**
 * A function that works out its answer once for each object it is given, which nobody changes afterwards: what depends on a dialect
 * alone is asked for with every list that is tried.
 */
export function onceFor<K extends object, V>(make: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, V>();
  return (key) => {
    if (!known.has(key)) known.set(key, make(key));
    return known.get(key)!;
  };
}
