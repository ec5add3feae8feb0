/** So long the camera may settle by itself before exposure and focus are held, ms. */
const SETTLE_MS = 1200;

/** What of the camera is held; not every device lets itself be. */
export interface Held {
  exposure: boolean;
  focus: boolean;
}

interface Capabilities {
  exposureMode?: string[];
  focusMode?: string[];
  torch?: boolean;
}

/** A lamp that changes the exposure dims all else, and a lit torch drowns it: both are held off where the device lets them. */
export async function holdCamera(track: MediaStreamTrack): Promise<Held> {
  const can = ("getCapabilities" in track ? track.getCapabilities() : {}) as Capabilities;
  const set = (constraint: Record<string, unknown>): Promise<boolean> =>
    track.applyConstraints({ advanced: [constraint as MediaTrackConstraintSet] }).then(
      () => true,
      () => false,
    );
  if (can.torch) await set({ torch: false });
  await new Promise((done) => setTimeout(done, SETTLE_MS));
  return {
    exposure: can.exposureMode?.includes("manual") ? await set({ exposureMode: "manual" }) : false,
    focus: can.focusMode?.includes("manual") ? await set({ focusMode: "manual" }) : false,
  };
}
