import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { framesOf, MOST_PARTS, PART_BYTES, withFrame, wholeOf, type Carried } from "./frames";

const file = fc.uint8Array({ maxLength: 4 * PART_BYTES });

describe("a file as a row of pictures", () => {
  it("is whole once each was seen, in any order, however often, with anything else in between", () => {
    fc.assert(
      fc.property(
        file,
        fc.array(fc.uint8Array({ maxLength: 40 }), { maxLength: 5 }),
        fc.nat(),
        (bytes, noise, turn) => {
          const frames = framesOf(bytes)!;
          const order = frames.map((_, i) => frames[(i * 7 + turn) % frames.length]);
          let so: Carried | null = null;
          for (const f of [...noise, ...order, ...noise, ...frames]) so = withFrame(so, f);
          expect(wholeOf(so!)).toEqual(bytes);
        },
      ),
    );
  });

  it("is not whole while one is missing, and never made of two", () => {
    fc.assert(
      fc.property(file, file, (a, b) => {
        const [one, other] = [framesOf(a)!, framesOf(b)!];
        let so: Carried | null = null;
        for (const f of one.slice(1)) so = withFrame(so, f);
        if (one.length > 1) expect(wholeOf(so!)).toBeNull();
        for (const f of other) so = withFrame(so, f);
        expect(wholeOf(so!)).toEqual(b);
      }),
    );
  });

  it("is refused where nobody would hold still for so long", () => {
    expect(framesOf(new Uint8Array(MOST_PARTS * PART_BYTES))).toHaveLength(MOST_PARTS);
    expect(framesOf(new Uint8Array(MOST_PARTS * PART_BYTES + 1))).toBeNull();
    expect(withFrame(null, Uint8Array.of(0x4b, 0x31, 0, 0, 0, 9, 0, 2))).toBeNull();
  });
});
