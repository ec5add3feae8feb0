import { useState } from "react";
import { Switch } from "react-aria-components/Switch";
import styled from "styled-components";
import { CONDITIONS } from "@core/diagnosis/conditions";
import { NO_SYMPTOM, SYMPTOMS } from "@core/diagnosis/observations";
import { AREA_NAMES } from "@core/diagnosis/worked";
import { EMPTY_STORY } from "@core/record/job";
import { storyRule, toldRule, type Story, type Vehicle } from "@core/record/types";
import { flag, holds, object, type Of } from "@core/schema/rule";
import { useDraft } from "~/store/use-draft";
import { useIntents, useJob } from "~/store/use-job";
import { useSettings } from "~/store/use-settings";
import { Button } from "~/ui/Button";
import { Choice, Choices } from "~/ui/Choice";
import { ChangeText } from "~/ui/ChangeText";
import { Field } from "~/ui/Field";
import { Row, Sheet, Soft, StepAction } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import type { StoryIntents } from "./intents";

const Toggle = styled(Switch)`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 48px;
  cursor: pointer;
  &::before {
    content: "";
    flex: none;
    width: 52px;
    height: 30px;
    border-radius: 15px;
    border: 2px solid var(--ink-soft);
    background: radial-gradient(circle at 13px 50%, var(--ink-soft) 9px, transparent 10px) var(--sheet);
  }
  &[data-selected]::before {
    border-color: var(--petrol);
    background: radial-gradient(circle at 35px 50%, var(--on-petrol) 9px, transparent 10px) var(--petrol);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--petrol);
    outline-offset: 2px;
    border-radius: 8px;
  }
`;

const Columns = styled.div`
  display: grid;
  align-items: start;
  gap: 18px 28px;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 300px), 1fr));
`;

const WORKED = "Just worked on";
const BEFORE = ["Just washed", "Just refuelled", WORKED, "Battery was off", "Stood for weeks"];

const AND = " and ";

/** What was told, and what the form began with: what another tab changes meanwhile is not taken back, also after a reload. */
const draftRule = object({ story: storyRule, handOver: flag, base: toldRule });
type Draft = Of<typeof draftRule>;
const isDraft = (v: unknown): v is Draft => "value" in holds(draftRule, v);

/** What the owner says, in a form that later steps can reason with. */
export function StoryForm() {
  const { job, vehicle, systems } = useJob();
  const { send, busy, problem, asks } = useIntents<StoryIntents>("story");
  const told: Draft = {
    story: { ...job.story, lamp: job.story.lamp || systems[0].about.lamp },
    handOver: job.handOver,
    base: { story: job.story, handOver: job.handOver },
  };
  const [draft, setDraft] = useDraft<Draft>(`${job.id}/story`, told, isDraft);
  const { handOver, base } = draft;
  // A draft of an older Klinko lacks what is new.
  const story: Story = { ...EMPTY_STORY, ...draft.story };
  const setHandOver = (on: boolean) => setDraft({ ...draft, handOver: on });
  const set = (part: Partial<Story>) => setDraft({ ...draft, story: { ...story, ...part } });
  const lamps = [...new Set(systems.map((s) => s.about.lamp))];
  return (
    <form
      style={{ display: "contents" }}
      onSubmit={(e) => {
        e.preventDefault();
        // What was written before stays until this is stored.
        send({ intent: "story", mine: { story, handOver }, base, sure: asks });
      }}
    >
      <h1>What does the owner say?</h1>
      <Sheet>
        <Choices
          label="Which lamp, or lamps"
          options={[...lamps, "Another lamp"]}
          value={story.lamp.split(AND).filter(Boolean)}
          onChange={(on) => set({ lamp: [...lamps, "Another lamp"].filter((l) => on.includes(l)).join(AND) })}
        />
        <Columns>
          <Field
            label="Since when"
            description="A date, a trip, a repair"
            value={story.since}
            onChange={(since) => set({ since })}
            maxLength={200}
          />
          <Choice
            label="Does it go out again"
            value={story.goesOut}
            onChange={(goesOut) => set({ goesOut })}
            options={[
              { value: "yes", label: "Yes" },
              { value: "sometimes", label: "Sometimes" },
              { value: "no", label: "No" },
            ]}
          />
        </Columns>
        <Soft>A lamp that came on once and went out still leaves a stored code.</Soft>
      </Sheet>
      <When story={story} set={set} />
      <Changed vehicle={vehicle} />
      <Sheet>
        <Choices
          label="What the engine does"
          options={[...SYMPTOMS, NO_SYMPTOM]}
          value={story.symptoms}
          onChange={(symptoms) => set({ symptoms })}
        />
        <Field
          label="In the owner's words"
          rows={3}
          value={story.words}
          onChange={(words) => set({ words })}
          maxLength={2000}
        />
        <Toggle isSelected={handOver} onChange={setHandOver}>
          Another workshop will diagnose it next: do not clear
        </Toggle>
        <Toggle isSelected={story.forSale} onChange={(forSale) => set({ forSale })}>
          It is for sale
        </Toggle>
      </Sheet>
      <Trouble problem={problem} />
      <StepAction>
        <Button $look="primary" type="submit" isDisabled={busy}>
          Write the story down
        </Button>
      </StepAction>
    </form>
  );
}

/** The conditions under which the lamp comes on. */
function When({ story, set }: { story: Story; set: (part: Partial<Story>) => void }) {
  const { speed } = useSettings();
  const [slow, fast] = speed === "mph" ? ["30 mph", "55 mph"] : ["50 km/h", "90 km/h"];
  return (
    <Sheet>
      <h2>When it comes on</h2>
      <Columns>
        <Choice
          label="Engine"
          value={story.engine}
          onChange={(engine) => set({ engine })}
          options={[
            { value: "cold", label: "Cold" },
            { value: "warm", label: "Warm" },
            { value: "any", label: "Either" },
          ]}
        />
        <Choice
          label="Load"
          value={story.load}
          onChange={(load) => set({ load })}
          options={[
            { value: "light", label: "Light" },
            { value: "hill", label: "Uphill" },
            { value: "hard", label: "Full throttle" },
            { value: "any", label: "Any" },
          ]}
        />
      </Columns>
      <Choice
        label="Speed"
        value={story.speed}
        onChange={(speed) => set({ speed })}
        options={[
          { value: "standing", label: "Standing" },
          { value: "town", label: `Below ${slow}` },
          { value: "country", label: `${slow} to ${fast}` },
          { value: "motorway", label: `Above ${fast}` },
          { value: "any", label: "Any" },
        ]}
      />
      <Choices
        label="Weather"
        options={[...CONDITIONS.Weather]}
        value={story.weather}
        onChange={(weather) => set({ weather })}
      />
      <Choices
        label="What was done before"
        options={BEFORE}
        value={story.before}
        onChange={(before) => set({ before, worked: before.includes(WORKED) ? story.worked : [] })}
      />
      {story.before.includes(WORKED) && (
        <Choices
          label="Where it was worked on"
          options={[...AREA_NAMES]}
          value={story.worked}
          onChange={(worked) => set({ worked })}
        />
      )}
    </Sheet>
  );
}

/** What was changed on the vehicle explains codes: it is told here, and belongs to the vehicle. */
function Changed({ vehicle }: { vehicle: Vehicle }) {
  const [changed, setChanged] = useState({ text: "", codes: "" });
  const change = useIntents<StoryIntents>("story", () => setChanged({ text: "", codes: "" }));
  return (
    <Sheet>
      <h2>Changed on the vehicle</h2>
      <Soft>
        Exhaust, ignition, second-hand unit, things taken off: a change often explains a code, which is then expected.
      </Soft>
      {vehicle.changes.length > 0 && (
        <ul>
          {vehicle.changes.map((c, i) => (
            <li key={i}>
              <ChangeText change={c} />
            </li>
          ))}
        </ul>
      )}
      <Columns>
        <Field
          label="What was changed"
          value={changed.text}
          onChange={(text) => setChanged({ ...changed, text })}
          maxLength={200}
        />
        <Field
          label="Codes to expect"
          description="Numbers, or leave it empty"
          value={changed.codes}
          onChange={(codes) => setChanged({ ...changed, codes })}
          maxLength={60}
        />
      </Columns>
      <Row>
        <Button
          isDisabled={!changed.text.trim() || change.busy}
          onPress={() =>
            change.send({ intent: "change", text: changed.text.trim(), codes: changed.codes.match(/\d{1,4}/g) ?? [] })
          }
        >
          Add the change
        </Button>
      </Row>
      <Trouble problem={change.problem} />
    </Sheet>
  );
}
