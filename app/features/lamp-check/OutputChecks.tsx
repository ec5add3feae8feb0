import { Disclosure, DisclosurePanel } from "react-aria-components/Disclosure";
import type { System } from "@core/pack/pack";
import type { OutputSeen } from "@core/procedure/unit-check";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Sheet } from "~/ui/bits";

/** What else a unit drives: whether each thing works tells a dead lamp from a dead unit. */
export function OutputChecks({
  about,
  open,
  seen,
  onChange,
}: {
  about: Pick<System, "unit" | "drives">;
  open: boolean;
  seen: Readonly<Record<string, OutputSeen>>;
  onChange: (seen: Record<string, OutputSeen>) => void;
}) {
  const outputs = about.drives ?? [];
  const choices = outputs.map((o) => (
    <Choice<OutputSeen>
      key={o.id}
      label={`${o.name}: ${o.expect}?`}
      value={seen[o.id] ?? null}
      onChange={(value) => onChange({ ...seen, [o.id]: value })}
      options={[
        { value: "works", label: "Yes" },
        { value: "dead", label: "No" },
      ]}
    />
  ));
  if (open)
    return (
      <Sheet>
        <h3>What else the {about.unit} drives, at key-on</h3>
        {choices}
      </Sheet>
    );
  return (
    <Disclosure>
      <Button slot="trigger" $look="quiet">
        What else the {about.unit} drives
      </Button>
      <DisclosurePanel>
        <Sheet>{choices}</Sheet>
      </DisclosurePanel>
    </Disclosure>
  );
}
