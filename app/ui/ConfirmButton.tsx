import { useState } from "react";
import { Button } from "./Button";
import { Row } from "./bits";

/** A step that cannot be undone asks once, in place. */
export function ConfirmButton({
  label,
  question,
  sure,
  onConfirm,
  of,
  keep = "Keep it",
}: {
  label: string;
  /** Names what the step is for, where several such buttons stand on a page. */
  of?: string;
  question: string;
  sure: string;
  onConfirm: () => void;
  /** What the harmless answer says. It has the focus, and Escape gives it. */
  keep?: string;
}) {
  const [state, setState] = useState<"idle" | "asking" | "kept">("idle");
  if (state !== "asking")
    return (
      <Button
        $look="quiet"
        aria-label={of && `${label}: ${of}`}
        // Who keeps it is back where they were.
        autoFocus={state === "kept"}
        onPress={() => setState("asking")}
      >
        {label}
      </Button>
    );
  return (
    <Row
      role="group"
      aria-label={question}
      onKeyDown={(e) => {
        if (e.key !== "Escape") return;
        e.stopPropagation();
        setState("kept");
      }}
    >
      <strong>{question}</strong>
      <Button
        $look="danger"
        onPress={() => {
          setState("idle");
          onConfirm();
        }}
      >
        {sure}
      </Button>
      <Button $look="quiet" autoFocus onPress={() => setState("kept")}>
        {keep}
      </Button>
    </Row>
  );
}
