import styled from "styled-components";
import { buyingResult, buyingRule, NOTHING_SEEN, SIGNS, type Buying } from "@core/buying/buying";
import { readMinutes } from "@core/minutes";
import { holds } from "@core/schema/rule";
import { clock } from "~/store/clock";
import { shortDate } from "~/store/format";
import { useDraft } from "~/store/use-draft";
import { LinkButton } from "~/ui/Button";
import { Choice, Choices } from "~/ui/Choice";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Field } from "~/ui/Field";
import { Paper } from "~/ui/Paper";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";

const Form = styled.div`
  display: grid;
  gap: 14px;
`;

const isBuying = (v: unknown): v is Buying => "value" in holds(buyingRule, v);

/** What is asked with a few answers, by what it is kept under. */
type Asked = {
  [K in keyof Buying]: Buying[K] extends string ? (string extends Buying[K] ? never : K) : never;
}[keyof Buying];
const QUESTIONS: { [K in Asked]: { label: string; answers: Partial<Record<Buying[K], string>> } } = {
  keyOn: {
    label: "Key on, engine off: the trouble lamp",
    answers: { lit: "Lights", dark: "Stays dark", "not-looked": "Not looked" },
  },
  running: {
    label: "Engine running: the trouble lamp",
    answers: { out: "Goes out", on: "Stays on", flashes: "Flashes", "not-looked": "Not looked" },
  },
  codes: {
    label: "What is stored",
    answers: { none: "Read: no code", some: "Codes", "not-read": "Could not be read", "not-looked": "Not read yet" },
  },
  readiness: {
    label: "Readiness",
    answers: {
      complete: "Complete",
      "not-complete": "Not complete",
      unknown: "It has none, or not known",
      "not-looked": "Not looked",
    },
  },
  cameOn: { label: "Did the lamp come on", answers: { no: "No", yes: "Yes" } },
};

/** A short look at a stranger's vehicle, and what it says on one page. */
export function BuyingPage() {
  const [seen, setSeen] = useDraft<Buying>("buying", NOTHING_SEEN, isBuying);
  const set = (part: Partial<Buying>) => setSeen({ ...seen, ...part });
  const { headline, seen: says, unseen, ask, is } = buyingResult(seen);
  return (
    <Paper
      more={
        <>
          <LinkButton to="/">To the garage</LinkButton>
          <ConfirmButton
            label="Begin with another vehicle"
            of="this look"
            question="Forget what was seen of this one?"
            sure="Yes, begin anew"
            keep="Keep it"
            onConfirm={() => setSeen(NOTHING_SEEN)}
          />
        </>
      }
    >
      <h1 aria-live="polite">{headline}</h1>
      <Form data-screen>
        <Look seen={seen} set={set} />
      </Form>
      {is !== "nothing" && (
        <p>
          {seen.vehicle || "A vehicle"}, looked at {shortDate(new Date(clock.now()).toISOString())}.
        </p>
      )}
      {says.length > 0 && (
        <section>
          <h2>Seen</h2>
          <ul>
            {says.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
        </section>
      )}
      {unseen.length > 0 && is !== "nothing" && <p>Not looked at: {unseen.join(", ")}.</p>}
      {is !== "nothing" && (
        <section>
          <h2>Ask before you buy</h2>
          <ul>
            {ask.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
        </section>
      )}
      {is !== "nothing" && (
        <Soft>Written by Klinko from what somebody saw and wrote down. It says nothing of brakes, rust or wear.</Soft>
      )}
    </Paper>
  );
}

interface Looking {
  seen: Buying;
  set: (part: Partial<Buying>) => void;
}

function Ask({ of, seen, set }: Looking & { of: Asked }) {
  const { label, answers } = QUESTIONS[of];
  const options = Object.entries(answers).map(([value, text]) => ({ value, label: text }));
  return <Choice label={label} options={options} value={seen[of]} onChange={(value) => set({ [of]: value })} />;
}

function Look({ seen, set }: Looking) {
  const minutes = readMinutes(seen.minutes);
  return (
    <>
      <Sheet>
        <Field
          label="Which vehicle"
          description="Make, year, plate, as you like"
          value={seen.vehicle}
          onChange={(vehicle) => set({ vehicle })}
          maxLength={200}
        />
        <Ask of="keyOn" seen={seen} set={set} />
        <Ask of="running" seen={seen} set={set} />
      </Sheet>
      <Sheet>
        <Ask of="codes" seen={seen} set={set} />
        {seen.codes === "some" && (
          <Field label="Which codes" value={seen.list} onChange={(list) => set({ list })} maxLength={200} />
        )}
        <Row>
          <LinkButton to="/watch">Watch its lamp</LinkButton>
          <LinkButton to="/find">Find the way in</LinkButton>
        </Row>
        <Ask of="readiness" seen={seen} set={set} />
        <Choices
          label="Signs of a fresh wipe"
          options={SIGNS}
          value={seen.signs}
          onChange={(signs) => set({ signs })}
        />
      </Sheet>
      <Sheet>
        <Field
          label="Minutes driven"
          value={seen.minutes}
          inputMode="decimal"
          onChange={(typed) => set({ minutes: typed })}
          error={seen.minutes.trim() && minutes === null ? "Minutes as a number, up to 1440" : undefined}
          maxLength={10}
        />
        {minutes !== null && minutes > 0 && <Ask of="cameOn" seen={seen} set={set} />}
        <Caution>Insurance and permission first. Nobody reads a screen while driving.</Caution>
      </Sheet>
    </>
  );
}
