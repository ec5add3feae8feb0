import { describe, expect, it } from "vitest";
import { dialect } from "../../testing/dialects";
import { decode } from "../decode";
import { encode } from "../dialect/encode";

const longShort = dialect("long-short");

/** A show that somebody ends (key off) while watching goes on. */
function stopped(codes: string[], after: number, until: number) {
  const edges = encode(longShort, { stored: codes }, after);
  return decode(longShort, { mode: "edges", edges: [...edges, [after, 0]], until });
}

describe("a lamp that stops answering", () => {
  it.each([40_000, 70_000, 200_000])(
    "is read up to where it stopped, however long somebody watched on (%i ms)",
    (until) => {
      const read = stopped(["17"], 24_000, until);
      expect([read.state, read.codes, read.misfit]).toEqual(["codes", ["17"], null]);
      expect(read.confidence).toBeGreaterThan(0.9);
    },
  );

  it("does not take a lamp test before an empty memory for a list that stopped", () => {
    const read = stopped([], 60_000, 120_000);
    expect([read.state, read.codes]).toEqual(["dark", []]);
  });
});
