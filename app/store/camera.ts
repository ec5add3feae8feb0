/** Why a camera gives no picture. */
export type CameraProblem = "refused" | "no-camera" | "busy" | "unplugged" | "no-api";

/** Opens the camera that looks away from the person. */
export async function openCamera(): Promise<MediaStream | CameraProblem> {
  // Without a secure page the browser gives none.
  const devices = navigator.mediaDevices as MediaDevices | undefined;
  if (!devices) return "no-api";
  try {
    return await devices.getUserMedia({
      audio: false,
      video: {
        facingMode: { ideal: "environment" },
        width: { ideal: 1280 },
        height: { ideal: 720 },
        frameRate: { ideal: 30 },
      },
    });
  } catch (error) {
    const { name } = error as DOMException;
    if (name === "NotAllowedError" || name === "SecurityError") return "refused";
    return name === "NotFoundError" || name === "OverconstrainedError" ? "no-camera" : "busy";
  }
}
