import {
  BlobSource,
  BufferTarget,
  CanvasSource,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Input,
  MP4,
  Mp4OutputFormat,
  Output,
  VideoSampleSink,
  WEBM,
  WebMOutputFormat,
  canEncodeVideo,
} from "mediabunny";
import { encode, normal, seeded } from "@core/flash/dialect/encode";
import type { Dialect } from "@core/flash/dialect/dialect";

/** What a drawn film is to show, and how badly. */
export interface FilmPlan {
  dialect: Dialect;
  codes: string[];
  profile: "clean" | "normal" | "hard";
  seed: number;
  seconds: number;
  fps: number;
  width: number;
  height: number;
  container: "mp4" | "webm";
  rotation: 0 | 90 | 180 | 270;
  /** Codes of a second lamp below the first, of the same dialect. */
  second?: string[];
}

export interface MadeFilm {
  /** base64 */
  bytes: string;
  codec: string;
  /** Stretches in which the lamp was lit, seconds of the film. */
  lit: [number, number][];
}

const PROFILES = {
  clean: { shake: 0, noise: 2, steps: 0, hand: 0, sun: 0, contrast: 1, drift: 0 },
  normal: { shake: 2, noise: 6, steps: 0.02, hand: 0, sun: 0, contrast: 0.8, drift: 6 },
  hard: { shake: 5, noise: 12, steps: 0.06, hand: 0.03, sun: 0.5, contrast: 0.45, drift: 14 },
};

/** Draws a dashboard with a lamp that shows a list of codes, a steady red lamp, a moving needle, and encodes it. */
async function make(plan: FilmPlan): Promise<MadeFilm> {
  const { width, height, fps, seconds } = plan;
  const p = PROFILES[plan.profile];
  const random = seeded(plan.seed);
  const speed = 0.85 + 0.35 * random();
  const until = (seconds * 1000) / speed;
  const shows = [plan.codes, ...(plan.second ? [plan.second] : [])].map((codes) =>
    encode(plan.dialect, { stored: codes, live: codes }, until).map(([t, lit]) => [600 + t * speed, lit] as const),
  );
  const canvas = new OffscreenCanvas(width, height);
  const draw = canvas.getContext("2d", { willReadFrequently: p.noise > 0 })!;
  const format = plan.container === "mp4" ? new Mp4OutputFormat() : new WebMOutputFormat();
  const target = new BufferTarget();
  const output = new Output({ format, target });
  const codec =
    plan.container === "mp4" && (await canEncodeVideo("avc", { width, height }))
      ? "avc"
      : plan.container === "mp4"
        ? "vp9"
        : "vp8";
  const source = new CanvasSource(canvas, { codec, bitrate: width > 1000 ? 2_500_000 : 900_000, keyFrameInterval: 2 });
  output.addVideoTrack(source, { rotation: plan.rotation, frameRate: fps });
  await output.start();
  const grain = noise(width, height, p.noise, random);
  let sway = { x: 0, y: 0 };
  let exposure = 1;
  let hand = -1;
  let daylight = 0;
  const u = Math.min(width, height) / 360;
  const lamp = { x: width * (0.3 + 0.4 * random()), y: height * (0.35 + 0.3 * random()), w: 28 * u, h: 18 * u };
  const lamps = shows.map((edges, i) => ({ edges, x: lamp.x, y: lamp.y + i * 60 * u, bulb: 0, lit: 0, next: 0 }));
  for (let k = 0; k < seconds * fps; k++) {
    const t = (k * 1000) / fps;
    for (const l of lamps) {
      while (l.next < l.edges.length && l.edges[l.next][0] <= t) l.lit = l.edges[l.next++][1];
      l.bulb += (l.lit - l.bulb) * (1 - Math.exp(-1000 / fps / (l.lit > l.bulb ? 40 : 70)));
    }
    sway = {
      x: 0.94 * sway.x + p.shake * u * 0.35 * normal(random),
      y: 0.94 * sway.y + p.shake * u * 0.35 * normal(random),
    };
    daylight = 0.998 * daylight + (p.drift / Math.sqrt(fps)) * normal(random);
    if (random() < p.steps / fps) exposure = 0.8 + 0.5 * random();
    if (hand < 0 && random() < p.hand / fps) hand = 0;
    draw.setTransform(1, 0, 0, 1, 0, 0);
    draw.filter = "none";
    draw.fillStyle = grey(52 + daylight, exposure);
    draw.fillRect(0, 0, width, height);
    draw.setTransform(1, 0, 0, 1, Math.round(sway.x), Math.round(sway.y));
    dashboard(draw, width, height, u, t, exposure, daylight);
    for (const l of lamps) {
      const on = l.bulb * p.contrast;
      if (on > 0.02) {
        const glow = draw.createRadialGradient(l.x, l.y, 2, l.x, l.y, lamp.w * 1.6);
        glow.addColorStop(0, `rgba(255,170,40,${0.35 * on})`);
        glow.addColorStop(1, "rgba(255,170,40,0)");
        draw.fillStyle = glow;
        draw.fillRect(l.x - 60 * u, l.y - 60 * u, 120 * u, 120 * u);
      }
      draw.fillStyle = `rgb(${mix(74, 255, on, exposure)},${mix(60, 170, on, exposure)},${mix(48, 50, on, exposure)})`;
      draw.fillRect(l.x - lamp.w / 2, l.y - lamp.h / 2, lamp.w, lamp.h);
    }
    draw.setTransform(1, 0, 0, 1, 0, 0);
    if (p.sun) {
      const sun = draw.createRadialGradient(width * 0.55, height * 0.2, 5, width * 0.55, height * 0.2, width * 0.5);
      sun.addColorStop(0, `rgba(255,250,240,${p.sun})`);
      sun.addColorStop(1, "rgba(255,250,240,0)");
      draw.fillStyle = sun;
      draw.fillRect(0, 0, width, height);
    }
    if (hand >= 0) {
      draw.fillStyle = grey(96, exposure);
      draw.fillRect(hand * (width + 160 * u) - 160 * u, height * 0.1, 150 * u, height);
      hand += 1 / (0.9 * fps);
      if (hand > 1) hand = -1;
    }
    if (p.noise) draw.drawImage(grain[k % grain.length], -Math.floor(random() * 64), -Math.floor(random() * 64));
    await source.add(k / fps, 1 / fps);
  }
  await output.finalize();
  const edges = shows[0];
  const on: [number, number][] = [];
  for (const [i, [t, state]] of edges.entries())
    if (state && t < seconds * 1000) on.push([t / 1000, Math.min(seconds, (edges[i + 1]?.[0] ?? Infinity) / 1000)]);
  return { bytes: await base64(new Blob([target.buffer!])), codec, lit: on };
}

const grey = (value: number, exposure: number): string => {
  const v = Math.round(Math.min(255, Math.max(0, value * exposure)));
  return `rgb(${v},${v},${v + 3})`;
};
const mix = (dark: number, lit: number, share: number, exposure: number): number =>
  Math.min(255, Math.round((dark + (lit - dark) * share) * exposure));

function dashboard(
  draw: OffscreenCanvasRenderingContext2D,
  w: number,
  h: number,
  u: number,
  t: number,
  exposure: number,
  daylight: number,
): void {
  for (const [i, x] of [w * 0.22, w * 0.78].entries()) {
    draw.lineWidth = 6 * u;
    draw.strokeStyle = grey(200 + daylight, exposure);
    draw.fillStyle = grey(22 + daylight / 2, exposure);
    draw.beginPath();
    draw.arc(x, h * 0.55, 92 * u, 0, 7);
    draw.fill();
    draw.stroke();
    draw.lineWidth = 2 * u;
    for (let a = 0; a < 12; a++) {
      const [s, c] = [Math.sin((a * Math.PI) / 6), Math.cos((a * Math.PI) / 6)];
      draw.beginPath();
      draw.moveTo(x + 72 * u * s, h * 0.55 + 72 * u * c);
      draw.lineTo(x + 88 * u * s, h * 0.55 + 88 * u * c);
      draw.stroke();
    }
    // A needle that moves: the fuel gauge hardly, the engine's speed all the time.
    const angle = i ? 2 + 0.5 * Math.sin(t / 900) : 4.2;
    draw.strokeStyle = `rgb(${Math.round(200 * exposure)},60,40)`;
    draw.lineWidth = 4 * u;
    draw.beginPath();
    draw.moveTo(x, h * 0.55);
    draw.lineTo(x + 70 * u * Math.cos(angle), h * 0.55 + 70 * u * Math.sin(angle));
    draw.stroke();
  }
  // A red lamp that stays lit.
  draw.fillStyle = `rgb(${Math.min(255, Math.round(235 * exposure))},40,45)`;
  draw.beginPath();
  draw.ellipse(w * 0.5, h * 0.16, 17 * u, 12 * u, 0, 0, 7);
  draw.fill();
}

/** Some fields of grain, larger than the picture, that are laid over it at ever other places. */
function noise(w: number, h: number, sd: number, random: () => number): OffscreenCanvas[] {
  if (!sd) return [];
  return Array.from({ length: 4 }, () => {
    const canvas = new OffscreenCanvas(w + 64, h + 64);
    const draw = canvas.getContext("2d")!;
    const data = draw.createImageData(canvas.width, canvas.height);
    for (let i = 0; i < data.data.length; i += 4) {
      const v = normal(random) * sd;
      data.data.fill(v > 0 ? 255 : 0, i, i + 3);
      data.data[i + 3] = Math.min(255, Math.abs(v) * 1.3);
    }
    draw.putImageData(data, 0, 0);
    return canvas;
  });
}

/** The same film over and over, packets copied: a long one without encoding it. */
async function repeat(bytes: string, times: number): Promise<string> {
  const input = new Input({ source: new BlobSource(blob(bytes)), formats: [MP4, WEBM] });
  const track = (await input.getPrimaryVideoTrack())!;
  const config = (await track.getDecoderConfig())!;
  const target = new BufferTarget();
  const output = new Output({ format: track.codec === "avc" ? new Mp4OutputFormat() : new WebMOutputFormat(), target });
  const source = new EncodedVideoPacketSource(track.codec!);
  output.addVideoTrack(source);
  await output.start();
  const length = await track.computeDuration();
  const sink = new EncodedPacketSink(track);
  for (let k = 0; k < times; k++)
    for await (const packet of sink.packets())
      await source.add(packet.clone({ timestamp: packet.timestamp + k * length }), { decoderConfig: config });
  await output.finalize();
  input.dispose();
  return base64(new Blob([target.buffer!]));
}

/** Demux and decode without looking the film that is in the page's input: what the analysis is measured against. @returns ms and pictures */
async function raw(): Promise<{ ms: number; pictures: number }> {
  const film = document.querySelector("input")!.files![0];
  const started = performance.now();
  const input = new Input({ source: new BlobSource(film), formats: [MP4, WEBM] });
  const track = (await input.getPrimaryVideoTrack())!;
  let pictures = 0;
  for await (const sample of new VideoSampleSink(track).samples()) {
    sample.close();
    pictures++;
  }
  input.dispose();
  return { ms: performance.now() - started, pictures };
}

function blob(bytes: string): Blob {
  return new Blob([Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0))]);
}

function base64(from: Blob): Promise<string> {
  return new Promise((done) => {
    const reader = new FileReader();
    reader.onload = () => done((reader.result as string).split(",")[1]);
    reader.readAsDataURL(from);
  });
}

/** When the lamp changes, for a camera that is made of plain pictures. */
const edges = (dialect: Dialect, codes: string[], ms: number) => encode(dialect, { stored: codes }, ms);

Object.assign(globalThis, { filmMaker: { make, repeat, raw, edges } });
