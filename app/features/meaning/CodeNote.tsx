import { Form } from "react-aria-components/Form";
import { useDraft } from "~/store/use-draft";
import { useIntents } from "~/store/use-job";
import { Button } from "~/ui/Button";
import { Field } from "~/ui/Field";
import { Row } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import type { MeaningIntents } from "./intents";

const isText = (v: unknown): v is string => typeof v === "string";

export function NoteButton({
  code,
  there,
  writing,
  onWrite,
}: {
  code: string;
  there: boolean;
  writing: boolean;
  onWrite: () => void;
}) {
  const label = there ? "Change your note" : "Write a note";
  return writing ? null : (
    <Button
      $look="quiet"
      style={{ display: "flex", marginInlineStart: -14 }}
      aria-label={`${label}: code ${code}`}
      onPress={onWrite}
    >
      {there ? "Your note" : "Note"}
    </Button>
  );
}

/** What you know of this code on this make; it is there in every later job. */
export function CodeNote({ of, code, note, onDone }: { of: string; code: string; note: string; onDone: () => void }) {
  const [text, setText] = useDraft(`note/${of}`, note, isText);
  const { send, busy, problem } = useIntents<MeaningIntents>("meaning", onDone);
  return (
    <Form
      style={{ display: "grid", gap: 10 }}
      onSubmit={(e) => {
        e.preventDefault();
        send({ intent: "note", key: of, text });
      }}
    >
      <Field
        label={`Your note to ${code}`}
        description="Belongs to the make: every later job shows it. Leave it empty to remove it."
        rows={2}
        value={text}
        onChange={setText}
        maxLength={1000}
        // Who asked for the field writes in it.
        autoFocus
      />
      <Trouble problem={problem} />
      <Row>
        <Button $look="primary" type="submit" isDisabled={busy}>
          Keep the note
        </Button>
        <Button
          $look="quiet"
          onPress={() => {
            setText(note);
            onDone();
          }}
        >
          Leave it as it was
        </Button>
      </Row>
    </Form>
  );
}
