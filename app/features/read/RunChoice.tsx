import type { Reading } from "@core/record/types";
import { Choice } from "~/ui/Choice";

/** Hard and intermittent cannot be told apart without knowing how the vehicle was run since the clear. */
export function RunChoice({ value, onChange }: { value: Reading["run"]; onChange: (run: Reading["run"]) => void }) {
  return (
    <Choice
      label="Since the clear the vehicle was"
      value={value === "before" ? "key-on" : value}
      onChange={onChange}
      options={[
        { value: "key-on", label: "Only switched on" },
        { value: "idle", label: "Idled" },
        { value: "drive", label: "Driven" },
      ]}
    />
  );
}
