import type { Page } from "playwright-core";

export interface PageLook {
  font: string;
  size: number;
  ruled: "none" | "rows" | "grid";
  width: number;
  degrees: number;
  lean: number;
  shade: number;
  blur: number;
  grain: number;
  quality: number;
  scale: number;
}
export function seeded(seed: number): () => number;
export function lookOf(random: () => number, hard: boolean): PageLook;
export function drawPage(
  page: Page,
  rows: string[][],
  heading: string[],
  look: PageLook,
  seed: number,
): Promise<Buffer>;
