import { Link } from "react-router";
import { assumedIn, assumedOf } from "@core/pack/assumed";
import type { Pack, PackPart } from "@core/pack/pack";
import type { Way } from "@core/pack/way";
import { makePath } from "~/store/paths";
import { Caution } from "./bits";

const SAYS: Record<PackPart, string> = {
  way: "Nobody has said how this make is asked: compare the steps with the manual.",
  plug: "Nobody has said what this plug looks like: compare it with the manual before a wire goes in.",
  talk: "Nobody has said how this lamp talks: what is read by it stays likely at most.",
  clears: "Nobody has said how this make is cleared.",
  proving: "Nobody has said how long this make is driven before a re-read counts.",
};

/** Where a make says nothing of a part and Klinko takes what is usual: said at the step where it matters. @param way that it is about */
export function Assumed({ pack, parts, way }: { pack: Pack; parts: readonly PackPart[]; way?: Way }) {
  const open = new Set<PackPart>([...assumedIn(pack), ...(way ? assumedOf(pack, way) : [])]);
  return parts
    .filter((p) => open.has(p))
    .map((p) => (
      <Caution key={p}>
        {SAYS[p]} <Link to={makePath(pack.id, p === "proving" ? "clears" : p)}>Tell it</Link>
      </Caution>
    ));
}
