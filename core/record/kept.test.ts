import { describe, expect, it } from "vitest";
import { dialect } from "../testing/dialects";
import { readLamps, withLamp, withoutLamp, type KeptLamp } from "./lamp";
import { withBrightness, withChange, withSeenMarks } from "./pictured";
import { newReading } from "./readings";

describe("lamps that were learned", () => {
  const lamp = (id: string, name: string): KeptLamp => ({
    id,
    name,
    at: "2026-01-02T03:04:05.000Z",
    dialect: dialect("long-short"),
  });

  it("are kept by name, the newer in place of the older, and what does not hold is neither read nor lost", () => {
    const strange = { id: "x", name: "Half written" };
    let stored: unknown = [strange, null, 7];
    stored = withLamp(stored, lamp("a", " Van "));
    stored = withLamp(stored, lamp("b", "Bus"));
    stored = withLamp(stored, lamp("c", "Van"));
    expect(readLamps(stored).map((l) => [l.id, l.name])).toEqual([
      ["b", "Bus"],
      ["c", "Van"],
    ]);
    expect(stored).toContain(strange);
    stored = withoutLamp(stored, "b");
    expect(readLamps(stored).map((l) => l.id)).toEqual(["c"]);
    expect(stored).toContain(strange);
  });

  it("need a name, a dialect that holds, and room", () => {
    expect(() => withLamp([], lamp("a", "  "))).toThrow(RangeError);
    expect(() => withLamp([], { ...lamp("a", "Van"), dialect: { ...dialect("long-short"), phases: [] } })).toThrow(
      RangeError,
    );
    const full = Array.from({ length: 100 }, (_, i) => lamp(`l${i}`, `Lamp ${i}`));
    expect(() => withLamp(full, lamp("z", "One more"))).toThrow(/100/);
    expect(withLamp(full, lamp("z", "Lamp 7"))).toHaveLength(100);
    expect(readLamps("no list")).toEqual([]);
  });
});

describe("a reading by pictures", () => {
  const blank = newReading({
    id: "r",
    job: "j",
    vehicle: "v",
    system: "engine",
    way: "w",
    dialect: "d",
    input: "camera",
    run: "before",
    startedAt: "2026-01-02T03:04:05.000Z",
  });

  it("shows a change as soon as it is seen: a mark begins, and ends no sooner than a mark can", () => {
    const begun = withChange(blank, true, 500);
    expect(begun.marks).toEqual([{ id: 1, t: 500 }]);
    expect(withChange(begun, false, 505).marks).toEqual([{ id: 1, t: 500, up: 520 }]);
    expect(withChange(withChange(begun, false, 900), true, 1400).marks.map((m) => m.id)).toEqual([1, 2]);
    expect(withChange(blank, false, 900).marks).toEqual([]);
  });

  it("takes what all pictures tell, and goes on with what was seen since", () => {
    const live = {
      ...blank,
      marks: [
        { id: 4, t: 300, up: 700 },
        { id: 5, t: 1950 },
      ],
    };
    const told = [
      { id: 1, t: 310, up: 690 },
      { id: 2, t: 1200, up: 1600 },
    ];
    expect(withSeenMarks(live, told, 1900).marks).toEqual([...told, { id: 3, t: 1950 }]);
    // The last one was cut off where the pictures ended: it is one with what goes on there.
    const cut = [
      { id: 1, t: 310, up: 690 },
      { id: 2, t: 1500, up: 1940 },
    ];
    expect(withSeenMarks(live, cut, 1940).marks).toEqual([cut[0], { id: 2, t: 1500 }]);
  });

  it("adds pictures of a camera that was taken up again behind those before, by their own time", () => {
    const { levels } = withBrightness(blank, { t: [0, 33], y: [40, 41] }, 5000, { t: [0.04, 33.06], y: [150, 151] });
    expect(levels).toEqual({ t: [0, 33, 5000, 5033.1], y: [40, 41, 150, 151] });
  });
});
