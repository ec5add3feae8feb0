import { withSystem } from "@core/pack/make/build";
import { isLettered, USUAL_SYSTEMS, withNewSystem, withoutSystem } from "@core/pack/make/systems";
import type { Pack, System } from "@core/pack/pack";
import { useMake } from "~/store/use-make";
import { Button } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Row, Sheet, Soft } from "~/ui/bits";
import { LiveField, needed } from "./LiveField";
import { Columns } from "./layout";

/** So many systems a make can have here: tables and buttons for more would be hard to find one's way in. */
const SYSTEMS_MAX = 8;

/** The units that are read: each with its lamp, its fuse and its ground. */
export function Systems({ onEdit }: { onEdit: (to: (pack: Pack) => Pack) => void }) {
  const { pack } = useMake();
  return (
    <>
      {pack.systems.map((s) => (
        <OneSystem
          key={s.id}
          system={s}
          keep={`make/${pack.id}/${s.id}`}
          onTold={(system) => onEdit((p) => withSystem(p, system))}
          {...(pack.systems.length > 1 && { onRemove: () => onEdit((p) => withoutSystem(p, s.id)) })}
        />
      ))}
      {pack.systems.length < SYSTEMS_MAX && (
        <Sheet>
          <h2>Is more of it read?</h2>
          <Soft>
            {isLettered(pack.ways[0].tells)
              ? "Each gets a letter in the display, and a table of its own."
              : "Each gets a way in and a table of its own; the plug can be the same."}
          </Soft>
          <Row>
            {USUAL_SYSTEMS.map((s) => (
              <Button key={s.id} onPress={() => onEdit((p) => withNewSystem(p, s))}>
                {s.name}
              </Button>
            ))}
          </Row>
        </Sheet>
      )}
    </>
  );
}

function OneSystem({
  system,
  keep,
  onTold,
  onRemove,
}: {
  system: System;
  keep: string;
  onTold: (system: System) => void;
  onRemove?: () => void;
}) {
  const set = (field: "feed" | "ground") => (text: string) => {
    const { [field]: _, ...rest } = system;
    onTold(text ? { ...rest, [field]: text } : rest);
  };
  return (
    <Sheet>
      <h2>{onRemove ? system.name : "What is read"}</h2>
      <Columns>
        <LiveField
          label="System"
          description="Engine, brakes, gearbox …"
          keep={`${keep}/name`}
          value={system.name}
          maxLength={60}
          fault={needed("Write what is read, such as Engine.")}
          onStore={(name) => onTold({ ...system, name })}
        />
        <LiveField
          label="Lamp to watch"
          description="The words on the lamp"
          keep={`${keep}/lamp`}
          value={system.lamp}
          maxLength={60}
          fault={needed("Write what stands on the lamp.")}
          onStore={(lamp) => onTold({ ...system, lamp })}
        />
        <LiveField
          label="Its fuse"
          description="Where you know it"
          keep={`${keep}/feed`}
          value={system.feed ?? ""}
          maxLength={100}
          onStore={set("feed")}
        />
        <LiveField
          label="Its ground"
          description="Where you know it"
          keep={`${keep}/ground`}
          value={system.ground ?? ""}
          maxLength={100}
          onStore={set("ground")}
        />
      </Columns>
      <Soft>Fuse and ground are named when the lamp check finds the unit dead.</Soft>
      {onRemove && (
        <Row>
          <ConfirmButton
            label={`Take ${system.name} out`}
            question={`Take ${system.name} out, with its way in and its codes?`}
            sure="Take it out"
            onConfirm={onRemove}
          />
        </Row>
      )}
    </Sheet>
  );
}
