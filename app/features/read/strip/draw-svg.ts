import type { StripLine } from "./layout";

/** Colours of paper: a strip that leaves the page is looked at and printed anywhere. */
const C = { paper: "#fcfbf7", ink: "#14232b", soft: "#4a5b64", band: "#101a21", lit: "#ffb01f" };
const LINE = 112;
const TOP = 56;
const SIDE = 24;

const clock = (ms: number): string =>
  `${Math.floor(ms / 60_000)}:${((Math.floor(ms / 100) / 10) % 60).toFixed(1).padStart(4, "0")}`;
const escape = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

/** The whole strip as a picture of its own, with a heading; no fonts are needed beyond what any viewer has. */
export function drawStrip(
  lines: readonly StripLine[],
  pxPerMs: number,
  heading: string,
): { svg: string; width: number; height: number } {
  const width = Math.ceil(Math.max(400, ...lines.map((l) => (l.to - l.from) * pxPerMs)) + 2 * SIDE + 28);
  const height = TOP + LINE * lines.length + 16;
  const out: string[] = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="monospace" font-size="16">`,
    `<rect width="100%" height="100%" fill="${C.paper}"/>`,
    `<text x="${SIDE}" y="34" font-family="sans-serif" font-size="19" font-weight="700" fill="${C.ink}">${escape(heading)}</text>`,
  ];
  for (const [i, line] of lines.entries()) {
    const top = TOP + i * LINE;
    const x = (t: number) => (SIDE + 14 + (t - line.from) * pxPerMs).toFixed(1);
    const name =
      line.begins === "round"
        ? `round ${line.pass}: the list came round here`
        : line.begins === "watch"
          ? "watching began"
          : line.pass
            ? `round ${line.pass}`
            : "";
    out.push(`<text x="${SIDE}" y="${top + 10}" font-size="13" fill="${C.soft}">${clock(line.from)} ${name}</text>`);
    out.push(`<rect x="${SIDE}" y="${top + 16}" width="${width - 2 * SIDE}" height="48" rx="8" fill="${C.band}"/>`);
    for (const g of line.ghosts)
      out.push(
        `<rect x="${x(g.at)}" y="${top + 26}" width="${Math.max(4, g.ms * pxPerMs).toFixed(1)}" height="28" rx="3" fill="none" stroke="${C.lit}" stroke-dasharray="3 3"/>`,
      );
    for (const m of line.marks)
      out.push(
        `<rect x="${x(m.t)}" y="${top + 26}" width="${Math.max(4, m.ms * pxPerMs).toFixed(1)}" height="28" rx="3" ${m.spurious ? `fill="none" stroke="${C.lit}" stroke-width="2"` : `fill="${C.lit}"${m.faint ? ' fill-opacity="0.5"' : ""}`}/>`,
      );
    for (const b of line.brackets) {
      const [a, z] = [Number(x(b.from)), Math.max(Number(x(b.from)) + 6, Number(x(b.to)))];
      out.push(
        `<path d="M ${a} ${top + 68} v 5 H ${z} v -5" fill="none" stroke="${C.ink}" stroke-width="2"${b.sure < 0.9 ? ' stroke-dasharray="4 3"' : ""}/>`,
      );
      out.push(
        `<text x="${(a + z) / 2}" y="${top + 90}" text-anchor="middle" font-weight="${b.kind === "code" ? 700 : 400}" fill="${b.kind === "code" ? C.ink : C.soft}">${escape(b.text)}${b.sure < 0.9 ? "?" : ""}</text>`,
      );
    }
  }
  out.push("</svg>");
  return { svg: out.join("\n"), width, height };
}

/** A drawn strip as a PNG, twice as fine as a screen. */
export async function pngOf({ svg, width, height }: { svg: string; width: number; height: number }): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const scale = Math.min(2, 16_000 / Math.max(width, height));
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [Math.round(width * scale), Math.round(height * scale)];
    canvas.getContext("2d")!.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/png"));
    if (!blob) throw new Error("the picture is too large");
    return blob;
  } finally {
    URL.revokeObjectURL(url);
  }
}
