import type { Pack } from "@core/pack/pack";
import { connectorIdOf } from "@core/pack/way";
import { MAKE_PARTS, type MakePart } from "~/store/paths";

export const PART_NAMES: Record<MakePart, string> = {
  vehicle: "Vehicle",
  way: "Way in",
  plug: "Plug",
  talk: "How it talks",
  codes: "Codes",
  clears: "Clear and prove",
  "hand-over": "Hand over",
};

/** The parts that this make has: one without a plug has no page for it. */
export const partsOf = (pack: Pack): MakePart[] =>
  MAKE_PARTS.filter(
    (p) =>
      (p !== "plug" || pack.ways.some((w) => connectorIdOf(w))) &&
      (p !== "talk" || pack.ways.some((w) => w.tells.kind === "lamp")),
  );
