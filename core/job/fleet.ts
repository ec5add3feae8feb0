import type { Vehicle } from "../record/types";
import type { Face } from "./card";

/** Which vehicles of a garage are shown. */
export const SHOWN = ["here", "open", "due", "archived"] as const;
export type Shown = (typeof SHOWN)[number];

/** In which order. */
export const ORDERS = ["touched", "plate", "due"] as const;
export type Order = (typeof ORDERS)[number];

/** An inspection this near, or over, is due, days. */
export const DUE_DAYS = 60;

interface Row {
  vehicle: Pick<Vehicle, "plate" | "inspection" | "archivedAt">;
  face: Pick<Face, "open" | "touched">;
}

/** A day so many days later, as `2026-12-31`; days are counted in UTC, where each has 24 hours. */
const dayAfter = (day: string, days: number): string =>
  new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10);

/** @param today as `2026-12-31` */
export const isDue = ({ inspection }: Row["vehicle"], today: string): boolean =>
  inspection !== undefined && inspection <= dayAfter(today, DUE_DAYS);

/** Is a vehicle among those that are asked for? What is in the archive is nowhere else. */
export function isShown({ vehicle, face }: Row, shown: Shown, today: string): boolean {
  if (vehicle.archivedAt) return shown === "archived";
  if (shown === "open") return face.open.length > 0;
  if (shown === "due") return isDue(vehicle, today);
  return shown === "here";
}

const byPlate = (a: Row, b: Row): number =>
  a.vehicle.plate.localeCompare(b.vehicle.plate, undefined, { numeric: true });

const LAST = "9999";
const COMPARE: Record<Order, (a: Row, b: Row) => number> = {
  touched: (a, b) => b.face.touched.localeCompare(a.face.touched) || byPlate(a, b),
  plate: byPlate,
  due: (a, b) => (a.vehicle.inspection ?? LAST).localeCompare(b.vehicle.inspection ?? LAST) || byPlate(a, b),
};

/** The rows in an order: touched last first, by plate, or by the day of the inspection, those without one last. */
export const inOrder = <R extends Row>(rows: readonly R[], order: Order): R[] => [...rows].sort(COMPARE[order]);
