import type { Dialect } from "../dialect/dialect";

/** What can be said of how a lamp talks. */
export const PROPERTIES = [
  "rest",
  "style",
  "digits",
  "flash",
  "digitGap",
  "repeat",
  "code",
  "pass",
  "times",
  "fixed",
  "round",
  "order",
] as const;
export type Property = (typeof PROPERTIES)[number];

/** Rests that differ by less are the same rest. */
const SAME = 0.15;

const near = (a: number, b: number) => Math.abs(Math.log(Math.max(1, a) / Math.max(1, b))) < SAME;

/** Do two ways of talking agree in a property, as far as it can be told? */
export function same(property: Property, a: Dialect, b: Dialect): boolean {
  switch (property) {
    case "rest":
      return a.rest === b.rest;
    case "style":
      return a.digits.style === b.digits.style;
    case "digits":
      return a.digits.style === b.digits.style && a.digits.count.join() === b.digits.count.join();
    case "flash":
      return near(a.gaps.flash, b.gaps.flash) && near(a.marks.short, b.marks.short);
    case "digitGap":
      return near(a.gaps.digit, b.gaps.digit);
    case "repeat":
    case "code":
    case "pass":
      return near(a.gaps[property], b.gaps[property]);
    case "times":
      return timesOf(a) === timesOf(b);
    case "fixed":
      return fixedOf(a) === fixedOf(b);
    case "round":
      return (a.loopFrom === null) === (b.loopFrom === null);
    case "order":
      return a.order === b.order;
  }
}

const timesOf = ({ phases }: Dialect) => phases.find((p) => p.kind === "stored")?.times;
const fixedOf = ({ phases }: Dialect) =>
  phases
    .map((p) => (p.kind === "code" ? `${p.means} ${p.code} ${p.times}` : p.kind === "group" ? `${p.flashes}` : ""))
    .join("/");

/** Of ways that nobody tells apart the first: each would else count anew. */
export function toldApart<W>(ways: readonly W[], dialectOf: (way: W) => Dialect): W[] {
  const shown = ({ phases }: Dialect) => phases.map((p) => (p.kind === "stored" ? p.memory : p.kind)).join();
  const alike = (a: Dialect, b: Dialect) => shown(a) === shown(b) && PROPERTIES.every((p) => same(p, a, b));
  const kept: W[] = [];
  for (const way of ways) if (!kept.some((k) => alike(dialectOf(k), dialectOf(way)))) kept.push(way);
  return kept;
}
