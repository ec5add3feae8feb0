import { useState } from "react";
import { Button } from "./Button";
import { Row } from "./bits";

/** A step that cannot be undone asks once, in place. */
export function ConfirmButton({
  label,
  question,
  sure,
  onConfirm,
}: {
  label: string;
  question: string;
  sure: string;
  onConfirm: () => void;
}) {
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <Button $look="quiet" onPress={() => setAsking(true)}>
        {label}
      </Button>
    );
  return (
    <Row role="group" aria-label={question}>
      <strong>{question}</strong>
      <Button
        $look="danger"
        autoFocus
        onPress={() => {
          setAsking(false);
          onConfirm();
        }}
      >
        {sure}
      </Button>
      <Button $look="quiet" onPress={() => setAsking(false)}>
        Keep it
      </Button>
    </Row>
  );
}
