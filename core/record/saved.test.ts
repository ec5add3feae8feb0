import { expect, it } from "vitest";
import { unsaved } from "./saved";

const day = (n: number) => new Date(Date.UTC(2026, 0, 1) + n * 86_400_000).toISOString();
const now = (n: number) => Date.parse(day(n));

it("reminds of what no file holds: of a new garage after a week, then a month after the last file, where there is news", () => {
  const fleet = [
    { createdAt: day(0), touched: day(20) },
    { createdAt: day(2), touched: "" },
  ];
  expect(unsaved(null, [], now(99))).toBeNull();
  expect([unsaved(null, fleet, now(6)), unsaved(null, fleet, now(7))]).toEqual([null, { days: null, vehicles: 2 }]);
  expect([unsaved(day(10), fleet, now(39)), unsaved(day(10), fleet, now(40))]).toEqual([
    null,
    { days: 30, vehicles: 1 },
  ]);
  expect(unsaved(day(21), fleet, now(400))).toBeNull();
});
