/** Makes what one version wrote what the next one would have written. */
export type Rung = (old: Record<string, unknown>) => Record<string, unknown>;

/** One rung for each version that was left behind, by the version that it starts from. */
export type Ladder = Readonly<Record<number, Rung>>;

/**
 * Takes something stored up to a version, rung by rung. What no rung touches stays, fields that are not known here too.
 * @throws where a rung is missing: a version that was never released
 */
export function climb(ladder: Ladder, raw: Record<string, unknown>, from: number, to: number): Record<string, unknown> {
  let now = raw;
  for (let version = from; version < to; version++) {
    if (!Object.hasOwn(ladder, version)) throw new Error(`There never was a version ${version}.`);
    now = { ...ladder[version](now), version: version + 1 };
  }
  return now;
}
