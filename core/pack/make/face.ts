import type { Connector } from "../pack";

/** A point on what a face is drawn on: shares of its width and height, from its upper left. */
export type Point = readonly [x: number, y: number];

/** A plug's face as somebody draws it, over a photo or on a blank sheet: the corners of its shell in order, and its cavities. */
export interface Face {
  corners: readonly Point[];
  /** By name of the cavity; those that are missing are not placed yet. */
  places: Readonly<Record<string, Point>>;
}

/** The nearest two cavities lie so far apart in the drawing at least: none is drawn over another. */
const APART = 62;
/** A drawing is not smaller than this, and a pack's not larger, in its units. */
const SMALLEST = 260;
const LARGEST = 2000;
/** The shell of a plug has so many corners at most. */
export const MOST_CORNERS = 60;

const distance = ([ax, ay]: Point, [bx, by]: Point): number => Math.hypot(ax - bx, ay - by);

/** Does a point lie within a polygon? By the edges that a ray to its right crosses. */
function within([x, y]: Point, corners: readonly Point[]): boolean {
  let inside = false;
  for (const [i, [ax, ay]] of corners.entries()) {
    const [bx, by] = corners[(i + 1) % corners.length];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  }
  return inside;
}

/** Do two edges cut each other? */
function cut(a: Point, b: Point, c: Point, d: Point): boolean {
  const side = (p: Point, q: Point, r: Point) =>
    Math.sign((q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]));
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

/** Between which corners a new one goes, so that the shell grows where it was touched: at its nearest edge. @returns its place in the list */
export function placeOf(corner: Point, corners: readonly Point[]): number {
  if (corners.length < 3) return corners.length;
  const longer = corners.map((a, i) => {
    const b = corners[(i + 1) % corners.length];
    return distance(a, corner) + distance(corner, b) - distance(a, b);
  });
  return longer.indexOf(Math.min(...longer)) + 1;
}

/** The scale at which a face is drawn: units for the width of what it was drawn on. @param tall its height by its width */
function scaleOf({ corners, places }: Face, tall: number): number {
  const on = (p: Point): Point => [p[0], p[1] * tall];
  const all = Object.values(places).map(on);
  let nearest = Infinity;
  for (const [i, a] of all.entries()) for (const b of all.slice(i + 1)) nearest = Math.min(nearest, distance(a, b));
  const wide = Math.max(...corners.map((c) => c[0])) - Math.min(...corners.map((c) => c[0]));
  return Math.max(APART / nearest, SMALLEST / wide);
}

/** What keeps a face from being taken over, or null. @param names of all cavities; @param tall height by width of what it was drawn on */
export function faceFault(face: Face, names: readonly string[], tall: number): string | null {
  const { corners, places } = face;
  if (corners.length < 3) return "Touch the corners of the shell, one after the other: three at least.";
  const crossed = corners.some((a, i) =>
    corners.some((c, k) => cut(a, corners[(i + 1) % corners.length], c, corners[(k + 1) % corners.length])),
  );
  if (crossed) return "Two edges of the shell cross: move a corner, or take one out.";
  const missing = names.filter((n) => !(n in places));
  if (missing.length) return `Not placed yet: ${missing.slice(0, 8).join(", ")}${missing.length > 8 ? " …" : ""}.`;
  const outside = names.find((n) => !within(places[n], corners));
  if (outside) return `${outside} lies outside the shell.`;
  const scale = scaleOf(face, tall);
  const far = (k: 0 | 1) => Math.max(...corners.map((c) => c[k])) - Math.min(...corners.map((c) => c[k]));
  if (scale * Math.max(far(0), far(1) * tall) > LARGEST)
    return "Two cavities lie nearly on one another: move them apart, or draw it larger.";
  return null;
}

/**
 * A connector with a face as it was drawn; {@link faceFault} must be null.
 * @param tall height by width of what it was drawn on
 * @param words how somebody would call its outline
 * @param mirrored it was drawn as the plug's wire side shows it
 */
export function withFace(connector: Connector, face: Face, tall: number, words: string, mirrored = false): Connector {
  const scale = scaleOf(face, tall);
  const seen = ([x, y]: Point): Point => [scale * (mirrored ? 1 - x : x), scale * y * tall];
  const corners = face.corners.map(seen);
  const [left, top] = [0, 1].map((k) => Math.min(...corners.map((c) => c[k])));
  const drawn = (p: Point): [number, number] => [Math.round(p[0] - left), Math.round(p[1] - top)];
  const shell = corners.map(drawn);
  return {
    ...connector,
    shape: "own",
    notch: "none",
    outline: { path: `M ${shell.map((c) => c.join(" ")).join(" L ")} Z`, words },
    size: [Math.max(...shell.map((c) => c[0]), 10), Math.max(...shell.map((c) => c[1]), 10)],
    cavities: connector.cavities.map((c) => ({ ...c, at: drawn(seen(face.places[c.id])) })),
  };
}

/** The face of a connector, to be drawn on: of an outline with curves the cavities alone. @param tall height by width of the sheet */
export function faceOf({ size: [w, h], outline, cavities }: Connector, tall: number): Face {
  // A little room all around.
  const scale = Math.min(0.86 / w, (0.86 * tall) / h);
  const on = ([x, y]: readonly number[]): Point => [0.5 + (x - w / 2) * scale, 0.5 + ((y - h / 2) * scale) / tall];
  const straight = outline && /^M( -?\d+){2}( L( -?\d+){2})* Z$/.test(outline.path);
  const numbers = straight ? (outline.path.match(/-?\d+/g) ?? []).map(Number) : [0, 0, w, 0, w, h, 0, h];
  const corners = Array.from({ length: numbers.length / 2 }, (_, i) => on(numbers.slice(2 * i, 2 * i + 2)));
  return { corners, places: Object.fromEntries(cavities.map((c) => [c.id, on(c.at)])) };
}
