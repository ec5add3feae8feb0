import type { InputKind } from "./input";
import { pictureWatch } from "./picture";

export const film: InputKind = {
  known: "seen",
  said: "from a film",
  short: "from a film",
  lamp: { ...pictureWatch, label: "Film", start: "Bring a film of the lamp." },
};
