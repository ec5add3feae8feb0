import type { Pack, PackPart } from "./pack";
import { WAY_PARTS, type Way, type WayPart } from "./way";

/** The parts of a whole pack that nobody has said. */
export const assumedIn = (pack: Pack): readonly PackPart[] => pack.own?.assumed ?? [];

/** The parts of one way that nobody has said: of the pack as a whole, or of this way alone. */
export const assumedOf = (pack: Pack, way: Way): readonly WayPart[] =>
  WAY_PARTS.filter((part) => assumedIn(pack).includes(part) || way.assumed?.includes(part));

/** Has nobody said this of any of its ways? @param ways those that are meant; without, all */
export const assumedOfAny = (pack: Pack, part: WayPart, ways: readonly Way[] = pack.ways): boolean =>
  ways.some((way) => assumedOf(pack, way).includes(part));

/** A part of the whole pack was told. */
export const told = (pack: Pack, part: Exclude<PackPart, WayPart>): Pack => withAssumed(pack, (p) => p !== part);

/** A part of one way was told; what was assumed of all stays so of the others. */
export function toldOf(pack: Pack, wayId: string, part: WayPart): Pack {
  const ofAll = assumedIn(pack).includes(part);
  return {
    ...withAssumed(pack, (p) => p !== part),
    ways: pack.ways.map((way) => {
      const others = (way.assumed ?? []).filter((p) => p !== part);
      return assumedAt(way, way.id === wayId ? others : ofAll ? [...others, part] : way.assumed);
    }),
  };
}

/** A part of one way is as it mostly is, once more or from now on. */
export const assumingOf = (pack: Pack, wayId: string, part: WayPart): Pack => ({
  ...pack,
  ways: pack.ways.map((way) =>
    way.id === wayId && !assumedOf(pack, way).includes(part) ? assumedAt(way, [...(way.assumed ?? []), part]) : way,
  ),
});

function withAssumed(pack: Pack, keep: (part: PackPart) => boolean): Pack {
  return pack.own ? { ...pack, own: { ...pack.own, assumed: pack.own.assumed.filter(keep) } } : pack;
}

/** What is assumed stands at the way only where something is. */
function assumedAt({ assumed: _, ...way }: Way, parts: readonly WayPart[] = []): Way {
  return parts.length ? { ...way, assumed: [...parts] } : way;
}
