import type { InputKind } from "./input";
import { pictureWatch } from "./picture";

export const camera: InputKind = {
  known: "seen",
  said: "by camera",
  short: "by camera",
  lamp: { ...pictureWatch, label: "Camera", start: "Point the camera at the lamp." },
};
