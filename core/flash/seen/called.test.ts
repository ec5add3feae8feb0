import { expect, it } from "vitest";
import { dialect } from "../../testing/dialects";
import { calledOf } from "./called";
import { decode } from "../decode";

const counts = (text: string, id: string) => calledOf(text, dialect(id)).counts;

it("takes called-out counts in any spacing", () => {
  for (const text of ["1 3 1 3 2 4", "13 13 24", "1,3 - 1,3 - 2,4", "131324", "1-3, 1-3, 2-4\n"])
    expect([text, counts(text, "lead-in")]).toEqual([text, [1, 3, 1, 3, 2, 4]]);
  expect(counts("4 1 10 4 1 10", "running-two")).toEqual([4, 1, 10, 4, 1, 10]);
  expect(counts("40", "even-when-clear")).toEqual([40]);
  expect(counts("8 21 8 21", "button-total")).toEqual([8, 21, 8, 21]);
  const pairs = [
    [2, 3],
    [0, 5],
    [2, 0],
  ];
  for (const text of ["23 5 20", "2-3 5 2-0", "2/3, 5, 20"]) expect(counts(text, "long-short")).toEqual(pairs);
});

it("takes flashing that goes on evenly as a word, since nobody counts it", () => {
  const { counts, understood } = calledOf("Even", dialect("even-when-clear"));
  expect([counts, understood]).toEqual([[50], ["even flashing"]]);
  expect(decode(dialect("even-when-clear"), { mode: "counts", counts }).state).toBe("none");
});

it("names what it does not understand, and takes the rest", () => {
  expect(calledOf("1 3 0 2 400", dialect("lead-in"))).toMatchObject({ counts: [1, 3, 2], wrong: ["0", "400"] });
  expect(calledOf("23 456 00", dialect("long-short"))).toMatchObject({ counts: [[2, 3]], wrong: ["456", "00"] });
  expect(calledOf("nothing here", dialect("lead-in"))).toEqual({ counts: [], understood: [], wrong: [] });
  expect(calledOf("9 ".repeat(10_000), dialect("lead-in")).counts.length).toBe(500);
});

it("what is typed is decoded like what is watched", () => {
  const { counts } = calledOf("13 13 13 26 26 26 43 43 43 13 13 13 26 26", dialect("lead-in"));
  expect(decode(dialect("lead-in"), { mode: "counts", counts })).toMatchObject({ codes: ["26", "43"], complete: true });
});
