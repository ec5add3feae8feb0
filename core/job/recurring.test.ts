import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Gist, JobLine } from "./card";
import { jobsOf, recurringOf } from "./recurring";

const gist = (codes: string[], more: Partial<Gist> = {}): Gist => ({
  id: "r",
  system: "engine",
  startedAt: "2026-05-01T10:00:00.000Z",
  recordedAt: "2026-05-01T10:05:00.000Z",
  withdrawn: false,
  worth: true,
  codes,
  says: "",
  ...more,
});
const job = (id: string, readings: Gist[]) => ({ id, readings }) as unknown as JobLine;
const car = (id: string, jobs: JobLine[], variant = "estate") => ({ vehicle: { id, pack: "p", variant }, jobs });

describe("codes that come again", () => {
  it("are those at two vehicles of a model, or in two jobs of one, with how many of the model were read", () => {
    const found = recurringOf([
      car("a", [job("a1", [gist(["24"]), gist(["24", "31"])]), job("a2", [gist(["24"])])]),
      car("b", [job("b1", [gist(["24", "42"], { startedAt: "2026-06-01T10:00:00.000Z" })])]),
      car("c", [job("c1", [gist([])])]),
      car("d", [job("d1", [gist(["31"])])], "coupe"),
    ]);
    expect(found).toEqual([
      {
        pack: "p",
        variant: "estate",
        system: "engine",
        code: "24",
        at: [
          { vehicle: "a", jobs: 2 },
          { vehicle: "b", jobs: 1 },
        ],
        of: 3,
        last: "2026-06-01T10:00:00.000Z",
      },
    ]);
    expect(jobsOf(found[0])).toBe(3);
  });

  it("are never made of what was taken back or not recorded, and of no more vehicles than were read", () => {
    const gists = fc.record({
      codes: fc.subarray(["12", "24", "31"]),
      withdrawn: fc.boolean(),
      recordedAt: fc.constantFrom(null, "2026-05-01T10:05:00.000Z"),
    });
    const cars = fc.array(fc.array(fc.array(gists, { maxLength: 3 }), { maxLength: 3 }), { maxLength: 5 });
    fc.assert(
      fc.property(cars, (all) => {
        const garage = all.map((jobs, v) =>
          car(
            `v${v}`,
            jobs.map((rs, j) =>
              job(
                `v${v}j${j}`,
                rs.map(({ codes, ...more }) => gist(codes, more)),
              ),
            ),
          ),
        );
        for (const r of recurringOf(garage)) {
          const counts = all.flatMap((jobs, v) =>
            jobs.filter((rs) => rs.some((g) => g.recordedAt && !g.withdrawn && g.codes.includes(r.code))).map(() => v),
          );
          expect(jobsOf(r)).toBe(counts.length);
          expect(r.at.length).toBe(new Set(counts).size);
          expect(r.at.length).toBeLessThanOrEqual(r.of);
        }
      }),
    );
  });
});
