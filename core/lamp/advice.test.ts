import { describe, expect, it } from "vitest";
import { adviceOf } from "./advice";
import type { Discriminant } from "./discriminant";
import type { WatchedLamp } from "./lamp";
import type { Features } from "./measure";

/** A lamp of so many cells that has been watched for some pictures, and shows so clearly before such surroundings. */
function lampOf({
  apart,
  cells = 9,
  around = 40,
  pictures = 400,
}: {
  apart: number | null;
  cells?: number;
  around?: number;
  pictures?: number;
}): WatchedLamp {
  // Luma of what is around, as it is measured: logarithmic.
  const features = Array.from(
    { length: pictures },
    () => [0, 0, 0, 60 * Math.log((around + 10) / 10), 0, 0] as unknown as Features,
  );
  return {
    id: 1,
    patch: { cells: Array.from({ length: cells }, (_, i) => i) },
    t: features.map((_, i) => i * 33),
    features,
    discriminant: apart === null ? null : ({ apart } as Discriminant),
    state: 0,
  } as unknown as WatchedLamp;
}

const still = { lost: false, trembling: 0.3 };

describe("adviceOf", () => {
  it.each([
    ["nothing of a lamp that shows well", lampOf({ apart: 9 }), still, null],
    ["to point at it again where it left the picture", lampOf({ apart: 9 }), { lost: true, trembling: 0 }, "elsewhere"],
    [
      "to hold still where the picture trembles, however well it shows",
      lampOf({ apart: 9 }),
      { lost: false, trembling: 9 },
      "hold-still",
    ],
    ["to shade what drowns in light", lampOf({ apart: 2, around: 230 }), still, "shade"],
    ["to come closer to what is small", lampOf({ apart: 2, cells: 2 }), still, "closer"],
    ["that it is weak where neither is so", lampOf({ apart: 2 }), still, "weak"],
    ["nothing while it is too early to tell", lampOf({ apart: null, pictures: 100 }), still, null],
    ["that it is weak once long nothing was told apart", lampOf({ apart: null, pictures: 400 }), still, "weak"],
    ["nothing before a lamp is watched", null, still, null],
  ])("says %s", (_, lamp, seen, advice) => expect(adviceOf(lamp, seen)).toBe(advice));
});
