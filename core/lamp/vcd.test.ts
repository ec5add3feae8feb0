import fc from "fast-check";
import { expect, it } from "vitest";
import type { Trace } from "./trace";
import { writeVcd } from "./vcd";

/** Reads a value change dump as any viewer does: wires by their short names, values from the time marks on. */
function readVcd(text: string): { name: string; edges: [number, 0 | 1][] }[] {
  const wires = [...text.matchAll(/^\$var wire 1 (\S+) (\S+) \$end$/gm)].map(([, id, name]) => ({
    id,
    name,
    edges: [] as [number, 0 | 1][],
  }));
  let at = NaN;
  for (const line of text.slice(text.indexOf("$enddefinitions")).split("\n").slice(1)) {
    if (line.startsWith("#")) {
      const next = Number(line.slice(1));
      expect(next > at || Number.isNaN(at)).toBe(true);
      at = next;
    } else if (line) wires.find((w) => w.id === line.slice(1))!.edges.push([at, Number(line[0]) as 0 | 1]);
  }
  return wires.map(({ name, edges }) => ({ name, edges }));
}

const trace: fc.Arbitrary<Trace> = fc
  .tuple(fc.constantFrom(0, 1), fc.array(fc.integer({ min: 1, max: 4000 }), { maxLength: 60 }), fc.nat(3000))
  .map(([first, steps, rest]) => {
    let t = 0;
    const edges = [0, ...steps].map((s, i): [number, 0 | 1] => [(t += s), ((first + i) % 2) as 0 | 1]);
    return { edges, until: t + rest };
  });

it("every change of every lamp stands in the dump at its time, each lamp under a name of its own", () => {
  fc.assert(
    fc.property(fc.array(trace, { minLength: 1, maxLength: 4 }), (traces) => {
      const names = ["MIL", "ABS lamp", "Überdruck 2", "$end #1"];
      const text = writeVcd(
        traces.map((t, i) => ({ name: names[i], trace: t })),
        "2026-11-24",
      );
      const got = readVcd(text);
      expect(got.map((w) => w.edges)).toEqual(traces.map((t) => t.edges));
      expect(got.map((w) => w.name)).toEqual(["MIL", "ABS_lamp", "berdruck_2", "end_1"].slice(0, traces.length));
      const times = [...text.matchAll(/^#(\d+)$/gm)].map((m) => Number(m[1]));
      expect(times.at(-1)).toBe(Math.max(...traces.map((t) => t.until)));
      expect(text).toContain("$timescale 1 ms $end");
    }),
  );
});
