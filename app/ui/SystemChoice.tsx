import type { SystemAccess } from "@core/pack/scope";
import { Choice } from "./Choice";

/** Which unit's lamp is watched, where the vehicle has more than one that can be read. */
export function SystemChoice({
  systems,
  value,
  onChange,
}: {
  systems: SystemAccess[];
  value: string;
  onChange: (system: string) => void;
}) {
  if (systems.length < 2) return null;
  const several = new Set(systems.map((s) => s.lamp)).size > 1;
  return (
    <Choice
      label={several ? "Which lamp" : "Which system"}
      value={value}
      onChange={onChange}
      options={systems.map((s) => ({ value: s.system, label: several ? `${s.lamp} · ${s.name}` : s.name }))}
    />
  );
}
