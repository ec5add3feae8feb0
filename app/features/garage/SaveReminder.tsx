import { useState } from "react";
import type { Unsaved } from "@core/record/saved";
import { Button } from "~/ui/Button";
import { Row, Sheet } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

/** The records are in this browser alone: who keeps them for years wants a file. */
export function SaveReminder({ days, vehicles, onSaved }: Unsaved & { onSaved: () => void }) {
  const [problem, tell] = useState<string | null>(null);
  return (
    <Sheet aria-label="Save your records">
      <Row>
        <p style={{ flex: "1 1 280px" }}>
          {days === null
            ? "These records are in this browser alone. Keep a file of them, too."
            : `Saved as a file ${days} days ago; ${vehicles === 1 ? "one vehicle has" : `${vehicles} vehicles have`} news since.`}
        </p>
        <Button
          onPress={() =>
            // What writes files is only loaded then: a garage that opens does not wait for it.
            void import("~/store/save-all")
              .then(({ saveEverything }) => saveEverything())
              .then(onSaved, (error: Error) => tell(error.message))
          }
        >
          Save all records as a file
        </Button>
      </Row>
      <Trouble problem={problem} />
    </Sheet>
  );
}
