import { framesOf } from "../../lamp/levels";
import { marksOf } from "../../lamp/marks";
import type { Evidence, Filmed } from "../seen/evidence";

/** No flash of the format is longer, a lamp test before the list included, ms. */
const LONGEST_MS = 4000;

/**
 * The changes of a filmed lamp whose rest is not known: what lasts longest is its rest.
 * @returns null where nothing ever changes
 */
export function edgesOf({ levels, until }: Filmed): Evidence | null {
  const seen = ([1, 0] as const).flatMap((away) => {
    const frames = framesOf(levels, { lit: away, longest: LONGEST_MS, endless: false });
    return frames ? [{ away, marks: marksOf(frames, away) }] : [];
  });
  if (!seen.length) return null;
  // The lamp is away from its rest for less of the time than it rests.
  const share = ({ marks }: (typeof seen)[number]) => marks.reduce((sum, m) => sum + m.up - m.t, 0);
  const { away, marks } = seen.reduce((a, b) => (share(b) < share(a) ? b : a));
  const rest = (1 - away) as 0 | 1;
  const edges: [number, 0 | 1][] = [[0, rest]];
  for (const m of marks) edges.push([m.t, away], [m.up, rest]);
  return { mode: "edges", edges, until };
}
