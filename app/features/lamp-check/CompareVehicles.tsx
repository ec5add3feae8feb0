import { useState } from "react";
import type { System } from "@core/pack/pack";
import { compareVehicles, type OutputSeen, type UnitSeen } from "@core/procedure/unit-check";
import { Choice } from "~/ui/Choice";
import { Sheet, Soft } from "~/ui/bits";

/** A second vehicle of the same kind beside this one: what works there and not here is wrong here. */
export function CompareVehicles({
  about,
  here,
}: {
  about: Pick<System, "id" | "name" | "unit" | "drives">;
  here: UnitSeen;
}) {
  const [there, setThere] = useState<UnitSeen>({ lamp: null, outputs: {} });
  const { wrongHere, sameOnBoth } = compareVehicles(here, there, about);
  return (
    <Sheet>
      <h3>Compare with a good vehicle of the same kind</h3>
      <Soft>Key on, engine off, on the other one. Same year and engine, else the comparison misleads.</Soft>
      <Choice
        label="Its lamp"
        value={there.lamp}
        onChange={(lamp) => setThere({ ...there, lamp })}
        options={[
          { value: "steady", label: "Stays lit" },
          { value: "dark", label: "Stays dark" },
        ]}
      />
      {(about.drives ?? []).map((o) => (
        <Choice<OutputSeen>
          key={o.id}
          label={`There: ${o.name}`}
          value={there.outputs[o.id] ?? null}
          onChange={(value) => setThere({ ...there, outputs: { ...there.outputs, [o.id]: value } })}
          options={[
            { value: "works", label: `Yes: ${o.expect}` },
            { value: "dead", label: "No" },
          ]}
        />
      ))}
      <div aria-live="polite">
        {wrongHere.length > 0 && (
          <p>
            <strong>Works there and not here:</strong> {wrongHere.join(", ")}.
          </p>
        )}
        {sameOnBoth.length > 0 && (
          <p>
            <strong>Dead on both:</strong> {sameOnBoth.join(", ")}. That may be how it is built, or how it was looked
            at.
          </p>
        )}
      </div>
    </Sheet>
  );
}
