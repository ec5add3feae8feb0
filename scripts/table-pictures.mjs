/** Draws made-up pages of a manual in Chromium as a camera or a scanner gives them: print, lines, slant, light, blur, grain, JPEG. */

/** A small seeded generator of uniform numbers (mulberry32). */
export function seeded(seed) {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = a;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const FONTS = [
  "Liberation Serif",
  "Liberation Sans",
  "DejaVu Sans",
  "DejaVu Serif",
  "Liberation Mono",
  "Liberation Sans Narrow",
];

/** @param hard slant, shadow, blur, grain and a lens that is not straight above; without, a page that lies level in good light */
export function lookOf(random, hard) {
  const between = (a, b) => a + (b - a) * random();
  const pick = (list) => list[Math.floor(random() * list.length)];
  return {
    font: pick(FONTS),
    size: Math.round(between(17, 22)),
    ruled: pick(["none", "rows", "grid"]),
    width: 1240,
    degrees: hard ? between(-4, 4) : between(-0.4, 0.4),
    lean: hard ? between(0, 0.05) : 0,
    shade: hard ? between(0.25, 0.55) : between(0, 0.12),
    blur: hard ? between(0.6, 1.1) : between(0, 0.4),
    grain: hard ? between(8, 18) : between(0, 4),
    quality: hard ? between(0.55, 0.75) : 0.9,
    scale: between(1.3, 1.7),
  };
}

const escape = (text) => text.replace(/&/g, "&amp;").replace(/</g, "&lt;");

/** The page as HTML: its rows in a table. */
function htmlOf(rows, heading, look) {
  const line = { none: "", rows: "border-bottom:1.5px solid #222;", grid: "border:1.5px solid #222;" }[look.ruled];
  const cells = (tag, row) =>
    `<tr>${row.map((c) => `<${tag} style="${line}padding:7px 12px;text-align:left;vertical-align:top">${escape(c)}</${tag}>`).join("")}</tr>`;
  return `<body style="margin:0;background:#fff;color:#1a1a1a;font:${look.size}px '${look.font}'"><div style="width:${look.width - 160}px;padding:60px 80px">
    <h2 style="font-size:1.3em">Trouble codes</h2><table style="border-collapse:collapse;width:100%">${cells("th", heading)}${rows.map((r) => cells("td", r)).join("")}</table>
    <p>Read the codes with the engine off and the key on.</p></div></body>`;
}

/** @returns the picture as the bytes of a JPEG file */
export async function drawPage(page, rows, heading, look, seed) {
  await page.setViewportSize({ width: look.width, height: 400 });
  await page.setContent(htmlOf(rows, heading, look));
  const shot = await page.screenshot({ fullPage: true, type: "png" });
  await page.setContent("<canvas></canvas>");
  const bytes = await page.evaluate(
    async ([png, look, seed]) => {
      const image = await createImageBitmap(await (await fetch(`data:image/png;base64,${png}`)).blob());
      const { width: w, height: h } = image;
      const [W, H] = [Math.round(w * look.scale), Math.round(h * look.scale)];
      const canvas = new OffscreenCanvas(W, H);
      const c = canvas.getContext("2d");
      c.fillStyle = "#e9e4d8";
      c.fillRect(0, 0, W, H);
      c.filter = `blur(${look.blur}px)`;
      c.translate(W / 2, H / 2);
      c.rotate((look.degrees * Math.PI) / 180);
      c.translate(-W / 2, -H / 2);
      // A lens that is not straight above: upper lines are smaller than lower ones.
      const strips = 240;
      for (let i = 0; i < strips; i++) {
        const [a, b] = [(i / strips) * h, ((i + 1) / strips) * h];
        const size = 0.94 * (1 - look.lean * (1 - i / strips));
        c.drawImage(
          image,
          0,
          a,
          w,
          b - a,
          (W - W * size) / 2,
          (a * H * 0.94) / h + H * 0.03,
          W * size,
          ((b - a) * H * 0.94) / h + 1,
        );
      }
      c.filter = "none";
      c.setTransform(1, 0, 0, 1, 0, 0);
      const light = c.createLinearGradient(0, 0, W, H * 0.7);
      light.addColorStop(0, `rgba(0,0,0,${look.shade})`);
      light.addColorStop(0.55, "rgba(0,0,0,0)");
      light.addColorStop(1, `rgba(0,0,0,${look.shade * 0.5})`);
      c.fillStyle = light;
      c.fillRect(0, 0, W, H);
      const data = c.getImageData(0, 0, W, H);
      let s = seed >>> 0;
      const random = () => (s = (Math.imul(s, 1664525) + 1013904223) >>> 0) / 4294967296;
      for (let i = 0; i < data.data.length; i += 4) {
        const n = (random() + random() + random() - 1.5) * look.grain;
        for (let k = 0; k < 3; k++) data.data[i + k] += n;
      }
      c.putImageData(data, 0, 0);
      const blob = await canvas.convertToBlob({ type: "image/jpeg", quality: look.quality });
      return Array.from(new Uint8Array(await blob.arrayBuffer()));
    },
    [shot.toString("base64"), look, seed],
  );
  return Buffer.from(bytes);
}
