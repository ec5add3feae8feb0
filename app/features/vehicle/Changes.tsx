import { useEffect, useRef } from "react";
import { Form, useSubmit } from "react-router";
import type { Vehicle } from "@core/record/types";
import { Button } from "~/ui/Button";
import { ChangeText } from "~/ui/ChangeText";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Field } from "~/ui/Field";
import { Sheet, Soft, Ruled } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

/** What was changed on the vehicle, with the codes that are expected because of it. */
export function Changes({
  vehicle,
  error,
  problem,
}: {
  vehicle: Vehicle;
  error: string | undefined;
  problem: string | undefined;
}) {
  const submit = useSubmit();
  const form = useRef<HTMLFormElement>(null);
  // What was typed goes when it is stored, and not before.
  const added = vehicle.changes.length;
  useEffect(() => form.current?.reset(), [added]);
  return (
    <Sheet>
      <h2>Changed on it</h2>
      <Soft>A change often explains a code: write which, and it is shown as expected.</Soft>
      <ul>
        {vehicle.changes.map((c, i) => (
          <Ruled key={i}>
            <span>
              <ChangeText change={c} />
            </span>
            <ConfirmButton
              label="Remove"
              of={c.text}
              question="Remove this change?"
              sure="Remove it"
              onConfirm={() => void submit({ intent: "remove-change", text: c.text }, { method: "post" })}
            />
          </Ruled>
        ))}
      </ul>
      <Form method="post" ref={form} style={{ display: "grid", gap: 10 }}>
        <Field label="What was changed" name="text" error={error} maxLength={200} />
        <Field label="Codes to expect" name="codes" description="Numbers, or leave it empty." />
        <Button type="submit" name="intent" value="add-change">
          Write it down
        </Button>
        <Trouble problem={problem} />
      </Form>
    </Sheet>
  );
}
