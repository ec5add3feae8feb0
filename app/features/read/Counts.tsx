import { useState } from "react";
import { calledOf } from "@core/flash/seen/called";
import type { Dialect } from "@core/flash/dialect/dialect";
import { CheckBox } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { Caution, Mono, Soft } from "~/ui/bits";
import type { ReadingSession } from "./session";
import { useSession } from "./use-session";

const HOW: Record<Dialect["digits"]["style"], string> = {
  counted:
    "One number a digit, in any spacing: 1 3 1 3 2 6 or 13 13 26. Count on over the end of the list. Flashes evenly without end: even.",
  "long-short": "Long flashes, then short ones: 23 or 2-3 is two long and three short; 5 is five short.",
  total: "One number a run of flashes.",
};

/** Counts that somebody calls out from the vehicle, typed by whoever sits at the screen. */
export function Counts({ session, dialect }: { session: ReadingSession; dialect: Dialect }) {
  const stored = useSession(session, (s) => s.reading.counts ?? "");
  const withKey = useSession(session, (s) => s.reading.keyOn ?? false);
  const [text, setText] = useState(stored);
  const { understood, wrong } = calledOf(text, dialect);
  return (
    <div style={{ display: "grid", gap: 8 }}>
      <Field
        label="Counts"
        description={HOW[dialect.digits.style]}
        rows={2}
        value={text}
        onChange={(value) => {
          setText(value);
          session.setCounts(value);
        }}
        autoFocus
        maxLength={3000}
      />
      <CheckBox isSelected={withKey} onChange={session.setWithKey}>
        Counted from the moment the key went on
      </CheckBox>
      {understood.length > 0 && (
        <Soft>
          Understood: <Mono>{understood.slice(-30).join(" · ")}</Mono>
        </Soft>
      )}
      {wrong.length > 0 && (
        <Caution>Not understood, and left out: {[...new Set(wrong)].slice(0, 8).join(", ")}</Caution>
      )}
    </div>
  );
}
