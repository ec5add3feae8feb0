import { describe, expect, it } from "vitest";
import { seeded } from "../../flash/dialect/encode";
import { filled, paper, printed } from "../../testing/print";
import { readTable } from "../read-table";
import { contrasted, flattened, inkBelow } from "./flatten";
import { at, cutOut, type Gray } from "./gray";
import { linesOfWords, pageText, type Word } from "./layout";
import { readPhoto, type PageReader } from "./read";
import { unruled } from "./rules";
import { straightened } from "./straighten";

const SIZE = 4;
const ROW = 56;

/** A page of numbers, a row each; `sets` are printed further right as well, so that there is something to turn. */
function pageOf(codes: readonly string[]): Gray {
  const page = paper(900, 120 + codes.length * ROW);
  codes.forEach((code, i) => {
    printed(page, code, 90, 60 + i * ROW, SIZE);
    for (let k = 0; k < 5; k++) printed(page, "4085", 300 + k * 110, 60 + i * ROW, SIZE);
  });
  return page;
}

/** Turned about its middle. */
function turned(g: Gray, degrees: number): Gray {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const out = paper(g.width, g.height);
  const [mx, my] = [g.width / 2, g.height / 2];
  for (let j = 0; j < g.height; j++)
    for (let i = 0; i < g.width; i++)
      out.y[j * g.width + i] = at(g, mx + c * (i - mx) + s * (j - my), my - s * (i - mx) + c * (j - my));
  return out;
}

/** Rows without any ink, as a share: a page that lies level has many, one that is turned has none. */
function blankRows(g: Gray): number {
  const cut = inkBelow(g);
  let blank = 0;
  for (let j = 40; j < g.height - 40; j++) {
    let ink = 0;
    for (let i = 80; i < g.width - 80; i++) if (g.y[j * g.width + i] < cut) ink++;
    if (!ink) blank++;
  }
  return blank / (g.height - 80);
}

describe("a picture of a page", () => {
  it("is turned level, whichever way it lay", () => {
    const codes = Array.from({ length: 9 }, (_, i) => String(21 + 7 * i));
    const level = blankRows(pageOf(codes));
    expect(level).toBeGreaterThan(0.3);
    for (const degrees of [-5, -2.6, 0, 0.8, 3.9]) {
      const crooked = turned(pageOf(codes), degrees);
      if (Math.abs(degrees) > 2) expect(blankRows(crooked)).toBeLessThan(0.1);
      expect(blankRows(straightened(crooked)), `${degrees}`).toBeGreaterThan(0.8 * level);
    }
  });

  it("loses shadows and grain, and keeps its print", () => {
    const random = seeded(3);
    const page = pageOf(["12", "35", "48", "67"]);
    const print = page.y.map((v) => (v < 100 ? 1 : 0));
    for (let j = 0; j < page.height; j++)
      for (let i = 0; i < page.width; i++) {
        const k = j * page.width + i;
        page.y[k] = page.y[k] * (0.45 + (0.5 * i) / page.width) + 12 * (random() - 0.5);
      }
    const clean = contrasted(flattened(page));
    let wrong = 0;
    for (let k = 0; k < print.length; k++) if (clean.y[k] < 128 !== (print[k] === 1)) wrong++;
    expect(wrong / print.length).toBeLessThan(0.002);
  });

  it("loses its ruled lines, and no digit", () => {
    const codes = ["11", "44", "71", "10"];
    const ruled = pageOf(codes);
    for (let i = 0; i <= codes.length; i++) filled(ruled, 60, 40 + i * ROW, 800, 3, 40);
    for (const x of [60, 200, 857]) filled(ruled, x, 40, 3, codes.length * ROW, 40);
    const plain = pageOf(codes);
    const clean = unruled(ruled);
    let [lines, print] = [0, 0];
    for (let k = 0; k < plain.y.length; k++) {
      if (plain.y[k] > 200 && clean.y[k] < 128) lines++;
      if (plain.y[k] < 100 && clean.y[k] > 128) print++;
    }
    expect([lines < 60, print]).toEqual([true, 0]);
  });
});

/** A reader that takes one number for another, or for no number, now and then; each time it looks. */
function clumsy(codes: readonly string[], seed: number): PageReader {
  const random = seeded(seed);
  const wrong = (code: string): string => {
    const r = random();
    if (r < 0.75) return code;
    if (r < 0.85) return "un";
    return String(Number(code) + [1, 3, 5, 50][Math.floor(random() * 4)]);
  };
  let next = 0;
  return {
    words: (page) => {
      const scale = page.width / 900;
      const seen = codes.map(wrong);
      // Cells are looked at from a line above the first number that was made out.
      next = Math.max(0, seen.findIndex((s) => s !== "un") - 1);
      const box = (text: string, x: number, i: number, letters: number): Word => ({
        text,
        sure: 0.95,
        x0: x * scale,
        x1: (x + letters * 6 * SIZE) * scale,
        y0: (60 + i * ROW) * scale,
        y1: (60 + i * ROW + 7 * SIZE) * scale,
      });
      return Promise.resolve(
        codes.flatMap((code, i) => [
          box(seen[i], 90, i, code.length),
          box("Circuit", 300, i, 7),
          box(`of${"abcdefghijkl"[i]}`, 480, i, 3),
        ]),
      );
    },
    digits: () => Promise.resolve({ text: wrong(codes[Math.min(codes.length - 1, next++)]), sure: 0.95 }),
  };
}

describe("numbers off a picture", () => {
  it("are never wrong without a mark, however clumsy the reader, since the page's own digits look too", async () => {
    let [right, all, marked] = [0, 0, 0];
    for (let seed = 0; seed < 8; seed++) {
      const random = seeded(seed + 500);
      const codes: string[] = [];
      for (let code = 11 + Math.floor(random() * 4); codes.length < 10; code += 2 + Math.floor(random() * 7))
        codes.push(String(code));
      const { text, seen, lines } = await readPhoto(pageOf(codes), clumsy(codes, seed));
      expect(lines).toHaveLength(codes.length);
      const { rows } = readTable(text, { seen });
      for (const row of rows) {
        all++;
        const is = codes[row.from] === row.code;
        if (is) right++;
        if (row.doubts.length) marked++;
        if (!is) expect(row.doubts.length, `${row.code} for ${codes[row.from]}`).toBeGreaterThan(0);
      }
    }
    expect(right / all).toBeGreaterThan(0.9);
    expect(marked / all).toBeLessThan(0.6);
  });
});

describe("words of a page", () => {
  it("become lines and columns again, whatever the slant of single letters", () => {
    const word = (text: string, x: number, y: number): Word => ({
      text,
      x0: x,
      x1: x + 12 * text.length,
      y0: y,
      y1: y + 20,
      sure: 1,
    });
    const words = [
      word("Air", 200, 12),
      word("11", 40, 10),
      word("meter", 246, 9),
      word("22", 40, 50),
      word("Oil", 200, 53),
      word("·", 9, 30),
    ];
    expect(pageText(linesOfWords(words))).toMatch(/^ *11 {2,}Air meter\n *22 {2,}Oil$/);
    expect(cutOut(paper(10, 10), -5, -5, 4, 4, 2).y.every((v) => v === 255)).toBe(true);
  });
});
