import type { Remote } from "comlink";
import type { LampApi } from "~/workers/lamp.worker";

/** Long side to which the page draws pictures that a worker cannot fetch itself. */
const LONG_SIDE = 640;

/**
 * Brings the pictures of a playing video element to the worker, where the browser has no other way: drawn small, each with its own
 * time stamp. Pictures that come faster than they are read are dropped.
 * @returns the way to stop
 */
export function bringFrames(video: HTMLVideoElement, api: Remote<LampApi>): () => void {
  const canvas = document.createElement("canvas");
  const drawn = canvas.getContext("2d", { willReadFrequently: true })!;
  let busy = false;
  let stopped = false;
  const take = (now: number, { mediaTime }: VideoFrameCallbackMetadata): void => {
    if (stopped) return;
    video.requestVideoFrameCallback(take);
    if (busy || !video.videoWidth) return;
    busy = true;
    const scale = Math.min(1, LONG_SIDE / Math.max(video.videoWidth, video.videoHeight));
    const [w, h] = [Math.round(video.videoWidth * scale), Math.round(video.videoHeight * scale)];
    if (canvas.width !== w || canvas.height !== h) [canvas.width, canvas.height] = [w, h];
    drawn.drawImage(video, 0, 0, w, h);
    const { data } = drawn.getImageData(0, 0, w, h);
    // A camera's pictures have no media time.
    const t = video.srcObject ? now : mediaTime * 1000;
    const free = () => void (busy = false);
    // Whoever ended the worker knows that this picture was not taken.
    void api.bring(t, w, h, data.buffer).then(free, free);
  };
  video.requestVideoFrameCallback(take);
  return () => {
    stopped = true;
  };
}
