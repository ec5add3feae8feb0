import { describe, expect, it } from "vitest";
import { readLine } from "./dash-line";
import { lookAlikes, segmentsApart } from "./segments";

const systems = [
  { system: "engine", prefix: "", digits: 2 },
  { system: "brake", prefix: "b", digits: 2 },
];

describe("readLine", () => {
  it.each([
    ["14", { kind: "code", system: "engine", code: "14" }],
    ["04", { kind: "code", system: "engine", code: "4" }],
    ["b12", { kind: "code", system: "brake", code: "12" }],
    ["b 12", { kind: "code", system: "brake", code: "12" }],
    ["S1", { kind: "code", system: "engine", code: "51" }],
    ["--", { kind: "none" }],
    ["b --", { kind: "none" }],
    ["b1?", { kind: "unclear", system: "brake", text: "1?", digits: 2 }],
    ["123", { kind: "unclear", system: "engine", text: "123", digits: 2 }],
    ["00", { kind: "unclear", system: "engine", text: "00", digits: 2 }],
    ["", { kind: "unclear", system: "engine", text: "", digits: 2 }],
  ])("%s", (typed, said) => expect(readLine(typed, systems, "--")).toEqual(said));
});

describe("lookAlikes", () => {
  it("measures digits by their segments", () => {
    expect(segmentsApart("8", "0")).toBe(1);
    expect(segmentsApart("1", "7")).toBe(1);
    expect(segmentsApart("3", "3")).toBe(0);
    expect(segmentsApart("1", "2")).toBe(5);
  });

  it("offers codes that exist, the nearest first", () => {
    expect(lookAlikes("1?", ["11", "14", "23"], 2).map((l) => l.code)).toEqual(["11", "14"]);
    expect(lookAlikes("8", ["6", "8", "9", "1"], 1)).toEqual([
      { code: "8", apart: 0 },
      { code: "6", apart: 1 },
      { code: "9", apart: 1 },
    ]);
    expect(lookAlikes("?4", ["4", "14"], 2).map((l) => l.code)).toEqual(["4", "14"]);
    expect(lookAlikes("xy", ["14"], 2)).toEqual([]);
  });
});
