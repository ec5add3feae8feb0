import { lettersOf, withLetter, type Lettered } from "@core/pack/make/systems";
import type { Tells, Way } from "@core/pack/way";
import { Link } from "react-router";
import { makePath } from "~/store/paths";
import { useMake } from "~/store/use-make";
import { Sheet, Soft } from "~/ui/bits";
import { LiveField } from "./LiveField";
import { Columns } from "./layout";

/** Under which letter a display tells of each system. */
export function Letters({ way, tells, onTold }: { way: Way; tells: Lettered; onTold: (tells: Tells) => void }) {
  const { pack } = useMake();
  const all = lettersOf(tells);
  // A number in an instrument that tells of one system needs none.
  const none = tells.kind === "text" && all.length === 1;
  const faultOf = (system: string) => (text: string) => {
    if (!text && none) return null;
    if (!/^[A-Z]$/.test(text)) return "Write one letter, as the display shows it.";
    if (all.some((l) => l.system !== system && l.letter.toUpperCase() === text))
      return "Another system has that letter already.";
    return null;
  };
  return (
    <Sheet>
      <h2>Letters that the display shows</h2>
      <Columns>
        {all.map(({ system, letter }) => (
          <LiveField
            key={system}
            label={pack.systems.find((s) => s.id === system)?.name ?? system}
            {...(none && { description: "Where it shows one" })}
            keep={`make/${pack.id}/${way.id}/letter-${system}`}
            value={letter}
            maxLength={1}
            fault={faultOf(system)}
            written={(text) => text.toUpperCase()}
            onStore={(text) => onTold(withLetter(tells, system, text))}
          />
        ))}
      </Columns>
      <Soft>
        Does it tell of more? <Link to={makePath(pack.id, "vehicle")}>Add what is read</Link>, and it gets a letter
        here.
      </Soft>
    </Sheet>
  );
}
