import { useState } from "react";
import { Form } from "react-aria-components/Form";
import { LIMITS } from "@core/record/types";
import { useDraft } from "~/store/use-draft";
import { Button } from "~/ui/Button";
import { Choices } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { Row, Sheet } from "~/ui/bits";

interface Draft {
  what: string;
  part: string;
  cost: string;
  cures: string[];
}
const isDraft = (v: unknown): v is Draft =>
  typeof v === "object" &&
  v !== null &&
  ["what", "part", "cost"].every((k) => typeof (v as Record<string, unknown>)[k] === "string") &&
  Array.isArray((v as Draft).cures);

/** What was mended, with the part and what it is meant to cure. */
export function RepairForm({
  jobId,
  codes,
  found,
  busy,
  onRepair,
}: {
  jobId: string;
  codes: readonly string[];
  /** What the checks point to: how the repair mostly begins. */
  found: { what: string; cures: string[] } | null;
  busy: boolean;
  onRepair: (told: Draft) => void;
}) {
  const empty: Draft = { what: "", part: "", cost: "", cures: found?.cures ?? [...codes] };
  const [draft, setDraft] = useDraft<Draft>(`${jobId}/repair`, empty, isDraft);
  const [fault, setFault] = useState("");
  const set = (part: Partial<Draft>) => {
    setFault("");
    setDraft({ ...draft, ...part });
  };
  return (
    <Sheet aria-label="Repair">
      <h2>{found ? "Mend it, and note it here" : "Mended something? Note it here"}</h2>
      <Form
        style={{ display: "grid", gap: 14 }}
        onSubmit={(e) => {
          e.preventDefault();
          if (!draft.what.trim()) return setFault("Say in a few words what was done");
          onRepair({ ...draft, what: draft.what.trim(), part: draft.part.trim(), cost: draft.cost.trim() });
          setDraft({ what: "", part: "", cost: "", cures: [...codes] });
        }}
      >
        <Field
          label="What was done"
          description={found ? `For example: ${found.what}` : "Cleaned, mended, replaced"}
          value={draft.what}
          onChange={(what) => set({ what })}
          error={fault || undefined}
          maxLength={LIMITS.name}
        />
        <Row $gap={14} style={{ alignItems: "flex-start" }}>
          <Field
            label="Part and its number"
            description="If there was one"
            value={draft.part}
            onChange={(part) => set({ part })}
            maxLength={LIMITS.name}
            style={{ flex: "1 1 180px" }}
          />
          <Field
            label="Cost"
            description="If you want it kept"
            value={draft.cost}
            onChange={(cost) => set({ cost })}
            maxLength={40}
            style={{ flex: "1 1 120px" }}
          />
        </Row>
        {codes.length > 0 && (
          <Choices
            label="Meant to cure"
            options={[...codes]}
            value={draft.cures}
            onChange={(cures) => set({ cures })}
          />
        )}
        <Row>
          <Button type="submit" isDisabled={busy}>
            Note the repair
          </Button>
        </Row>
      </Form>
    </Sheet>
  );
}
