import { useState } from "react";
import { Form, useNavigation } from "react-router";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { Columns } from "./layout";

/** What is wrong with the form of a new make, by field. */
export interface NewMakeFaults {
  errors: { make?: string; model?: string; from?: string; to?: string; engine?: string };
  problem: string | null;
}

/** The first page of a make: what it is called. All the rest comes after. */
export function NewMake({ faults }: { faults: NewMakeFaults | undefined }) {
  const [cylinders, setCylinders] = useState("4");
  const busy = useNavigation().state !== "idle";
  const errors = faults?.errors;
  return (
    <Form method="post" noValidate style={{ display: "contents" }}>
      <h1>Which make is it?</h1>
      <Sheet>
        <Columns>
          <Field label="Make" name="make" error={errors?.make} maxLength={60} autoFocus />
          <Field label="Model" name="model" error={errors?.model} maxLength={60} />
          <Field label="First model year" name="from" error={errors?.from} inputMode="numeric" maxLength={4} />
          <Field
            label="Last model year"
            description="Empty: that one year"
            name="to"
            error={errors?.to}
            inputMode="numeric"
            maxLength={4}
          />
          <Field
            label="Engine"
            description="As the manual names it"
            name="engine"
            error={errors?.engine}
            maxLength={40}
          />
        </Columns>
        <Choice
          label="Cylinders"
          value={cylinders}
          onChange={setCylinders}
          options={["1", "2", "3", "4", "5", "6", "8"].map((n) => ({ value: n, label: n }))}
        />
        <input type="hidden" name="cylinders" value={cylinders} />
        <Soft>All of this can be changed later.</Soft>
      </Sheet>
      <Row>
        <Button $look="primary" type="submit" isDisabled={busy}>
          Go on
        </Button>
        <LinkButton $look="quiet" to="/makes">
          Back
        </LinkButton>
      </Row>
      <Trouble problem={faults?.problem} />
    </Form>
  );
}
