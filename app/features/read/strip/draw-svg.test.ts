import { describe, expect, it } from "vitest";
import { decode } from "@core/flash/decode";
import type { Mark } from "@core/record/types";
import { dialect } from "@core/testing/dialects";
import { watch } from "@core/testing/person";
import { drawStrip } from "./draw-svg";
import { layStrip } from "./layout";

const lead = dialect("lead-in");

function strip(until: number, change: (marks: Mark[]) => Mark[] = (m) => m) {
  const evidence = watch(lead, { stored: ["26", "43"] }, "taps", { seed: 4, jitter: 0.03, until });
  if (evidence.mode !== "taps") throw new Error();
  const marks = change((evidence.taps as number[]).map((t, i) => ({ id: i + 1, t })));
  const decoded = decode(lead, { ...evidence, taps: marks.map((m) => m.t) });
  const { lines, pxPerMs } = layStrip(marks, decoded, { width: 1240, perSecond: 34 });
  return { marks, lines, pxPerMs };
}

/** Elements of a drawing by name, with their attributes. */
const all = (svg: string, name: string): Record<string, string>[] =>
  [...svg.matchAll(new RegExp(`<${name}\\b([^>]*)>`, "g"))].map(([, given]) =>
    Object.fromEntries([...given.matchAll(/([\w-]+)="([^"]*)"/g)].map(([, key, value]) => [key, value])),
  );

describe("drawStrip", () => {
  it("draws every mark once within the picture, and brackets that say the codes in order", () => {
    const { marks, lines, pxPerMs } = strip(180_000);
    const { svg, width, height } = drawStrip(lines, pxPerMs, "AB 12 engine");
    const lit = all(svg, "rect").filter((r) => r.height === "28");
    expect(lit).toHaveLength(marks.length);
    for (const r of lit) {
      expect(Number(r.x) + Number(r.width)).toBeLessThanOrEqual(width);
      expect(Number(r.y) + Number(r.height)).toBeLessThanOrEqual(height);
    }
    const bold = [...svg.matchAll(/font-weight="700" fill="#14232b">([^<]*)</g)].map(([, text]) => text);
    expect(bold.join("")).toMatch(/^AB 12 engine(26){3}(43){3}/);
    expect(svg).toContain("watching began");
    expect(svg).toContain("round 2: the list came round here");
  });

  it("shows what was missed and what does not belong as outlines, and a doubtful code with a question mark", () => {
    const { lines, pxPerMs } = strip(180_000, (m) =>
      [...m.filter((x) => x.id !== 14), { id: 999, t: m[9].t + 90 }].sort((a, b) => a.t - b.t),
    );
    const { svg } = drawStrip(lines, pxPerMs, "");
    const outlines = all(svg, "rect").filter((r) => r.fill === "none");
    expect(outlines.filter((r) => r["stroke-dasharray"])).toHaveLength(1);
    expect(outlines.filter((r) => !r["stroke-dasharray"])).toHaveLength(1);
    const unsure = lines.map((l) => ({ ...l, brackets: l.brackets.map((b) => ({ ...b, sure: 0.6 })) }));
    expect(drawStrip(unsure, pxPerMs, "").svg).toContain("?</text>");
  });

  it("lets no text of a record become markup", () => {
    const { lines, pxPerMs } = strip(60_000);
    const { svg } = drawStrip(lines, pxPerMs, `<script>alert("1")</script> & "plate"`);
    expect(svg).not.toContain("<script");
    expect(svg).not.toMatch(/&(?!#\d+;)/);
    expect(all(svg, "svg")).toHaveLength(1);
  });

  it("draws an empty strip as its heading alone", () => {
    const { svg, width } = drawStrip([], 0.03, "Nothing yet");
    expect(svg).toContain("Nothing yet");
    expect(width).toBeGreaterThanOrEqual(400);
    expect(all(svg, "path")).toEqual([]);
  });
});
