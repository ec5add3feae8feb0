import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readTrace, TRACE_MAX_BYTES, writeTrace, type Trace } from "./trace";

const fault = (text: string) => {
  const got = readTrace(text);
  return "fault" in got ? `${got.fault.line}: ${got.fault.message}` : got;
};

describe("readTrace", () => {
  it("reads what writeTrace wrote", () => {
    const gaps = fc.array(fc.integer({ min: 1, max: 5000 }), { minLength: 2, maxLength: 200 });
    fc.assert(
      fc.property(gaps, fc.constantFrom(0, 1), (steps, first) => {
        let t = 0;
        const edges: Trace["edges"] = [[0, first]];
        for (const [i, s] of steps.entries()) edges.push([(t += s), ((first + i + 1) % 2) as 0 | 1]);
        const trace = { edges, until: t + 700 };
        expect(readTrace(writeTrace(trace))).toEqual({ trace });
      }),
    );
  });

  it("reads a BOM, semicolons, decimal commas, tabs, blank lines, samples of an unchanged lamp, and any start", () => {
    const expected = {
      trace: {
        edges: [
          [0, 0],
          [500.5, 1],
          [900, 0],
        ],
        until: 1200,
      },
    };
    expect(readTrace("\uFEFFt_ms;lit\r\n100;0\r\n600,5;1\r\n\r\n1000;0\r\n1300;0\r\n")).toEqual(expected);
    expect(readTrace("0\t0\n500.5\t1\n700\t1\n900\t0\n1200\t0")).toEqual(expected);
  });

  it("names the line and the mend", () => {
    expect(fault("t_ms,lit\n0,0\nabc,1\n")).toMatch(/^3: "abc" is not a time/);
    expect(fault("t_ms,lit\n0,0\n100\n")).toMatch(/^3: the lamp's state is missing/);
    expect(fault("t_ms,lit\n0,0\n,1\n")).toMatch(/^3: "" is not a time/);
    expect(fault("0,0\n500,1\n300,0\n")).toMatch(/^3: the time 300 comes after 500. Sort/);
    expect(fault("0,0\n-5,1\n")).toMatch(/^2: the time -5 is negative/);
    expect(fault("0,0\n5,bright\n")).toMatch(/^2: "bright" is not a lamp state/);
    expect(fault("name,colour\n0,0\n")).toMatch(/^1: the heading reads/);
    expect(fault("0,0\n100,0\n")).toMatch(/never changes/);
    expect(fault("")).toMatch(/never changes/);
    expect(fault("\0\0PNG")).toMatch(/not a text file/);
    expect(fault("x".repeat(TRACE_MAX_BYTES + 1))).toMatch(/larger than 16 MB/);
  });

  it("stops at a hostile number of changes, and names where", () => {
    const lines = Array.from({ length: 600_000 }, (_, i) => `${i * 10},${i % 2}`).join("\n");
    expect(fault(lines)).toMatch(/^20001: there are more than 20000 changes/);
  });
});
