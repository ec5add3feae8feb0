import styled from "styled-components";
import { buyingResult, buyingRule, NOTHING_SEEN, SIGNS, type Buying } from "@core/buying/buying";
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

const minutes = (typed: string): number | null => {
  const n = Number(typed.replace(",", "."));
  return typed.trim() !== "" && n >= 0 && n <= 1440 ? n : null;
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

function Look({ seen, set }: { seen: Buying; set: (part: Partial<Buying>) => void }) {
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
        <Choice
          label="Key on, engine off: the trouble lamp"
          value={seen.keyOn}
          onChange={(keyOn) => set({ keyOn })}
          options={[
            { value: "lit", label: "Lights" },
            { value: "dark", label: "Stays dark" },
            { value: "not-looked", label: "Not looked" },
          ]}
        />
        <Choice
          label="Engine running: the trouble lamp"
          value={seen.running}
          onChange={(running) => set({ running })}
          options={[
            { value: "out", label: "Goes out" },
            { value: "on", label: "Stays on" },
            { value: "flashes", label: "Flashes" },
            { value: "not-looked", label: "Not looked" },
          ]}
        />
      </Sheet>
      <Sheet>
        <Choice
          label="What is stored"
          value={seen.codes}
          onChange={(codes) => set({ codes })}
          options={[
            { value: "none", label: "Read: no code" },
            { value: "some", label: "Codes" },
            { value: "not-read", label: "Could not be read" },
            { value: "not-looked", label: "Not read yet" },
          ]}
        />
        {seen.codes === "some" && (
          <Field label="Which codes" value={seen.list} onChange={(list) => set({ list })} maxLength={200} />
        )}
        <Row>
          <LinkButton to="/watch">Watch its lamp</LinkButton>
          <LinkButton to="/find">Find the way in</LinkButton>
        </Row>
        <Choice
          label="Readiness"
          value={seen.readiness}
          onChange={(readiness) => set({ readiness })}
          options={[
            { value: "complete", label: "Complete" },
            { value: "not-complete", label: "Not complete" },
            { value: "unknown", label: "It has none, or not known" },
            { value: "not-looked", label: "Not looked" },
          ]}
        />
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
          value={seen.minutes === null ? "" : String(seen.minutes)}
          inputMode="numeric"
          onChange={(m) => set({ minutes: minutes(m) })}
          maxLength={5}
        />
        {seen.minutes !== null && seen.minutes > 0 && (
          <Choice
            label="Did the lamp come on"
            value={seen.cameOn}
            onChange={(cameOn) => set({ cameOn })}
            options={[
              { value: "no", label: "No" },
              { value: "yes", label: "Yes" },
            ]}
          />
        )}
        <Caution>Insurance and permission first. Nobody reads a screen while driving.</Caution>
      </Sheet>
    </>
  );
}
