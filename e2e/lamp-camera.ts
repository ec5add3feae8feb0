import type { Page } from "@playwright/test";

/** When the lamp changes, ms, and its state then. */
type Edges = readonly (readonly [number, 0 | 1])[];

interface LampWindow {
  /** The lamp talks from now on. */
  lampTalks?: () => void;
}

/**
 * A camera that looks at a plain wall with an amber lamp in its middle, 30 pictures a second. The lamp keeps true time however late a
 * picture is drawn, as real ones do; the browser's own stand-in plays its film on from where it was held up, so that a slow machine shows
 * a lamp that falters.
 * @param edges after the last one it begins anew at `round` ms
 * @param waits the lamp stays as at first until {@link lampTalks}, else it begins with the camera
 */
export async function lampCamera(page: Page, edges: Edges, round: number, waits = false): Promise<void> {
  await page.addInitScript(
    ({ edges, round, waits }) => {
      let from = waits ? Infinity : NaN;
      (window as LampWindow).lampTalks = () => (from = performance.now());
      navigator.mediaDevices.getUserMedia = () => {
        if (Number.isNaN(from)) from = performance.now();
        const canvas = Object.assign(document.createElement("canvas"), { width: 320, height: 180 });
        const wall = canvas.getContext("2d")!;
        const stream = canvas.captureStream(0);
        const [track] = stream.getVideoTracks() as CanvasCaptureMediaStreamTrack[];
        const draw = () => {
          if (track.readyState === "ended") return clearInterval(drawing);
          const t = Math.max(0, performance.now() - from) % round;
          for (let y = 0; y * 16 < 180; y++)
            for (let x = 0; x < 20; x++) {
              const grey = 50 + ((x * 7 + y * 5) % 40);
              wall.fillStyle = `rgb(${grey} ${grey} ${grey})`;
              wall.fillRect(16 * x, 16 * y, 16, 16);
            }
          if (edges.findLast(([at]) => at <= t)?.[1]) {
            wall.fillStyle = "rgb(255 180 60)";
            wall.fillRect(150, 85, 20, 10);
          }
          track.requestFrame();
        };
        const drawing = setInterval(draw, 1000 / 30);
        return Promise.resolve(stream);
      };
    },
    { edges, round, waits },
  );
}

export const lampTalks = (page: Page): Promise<void> => page.evaluate(() => (window as LampWindow).lampTalks!());
