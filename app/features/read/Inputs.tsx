import { Tab, TabList, TabPanel, Tabs } from "react-aria-components/Tabs";
import styled from "styled-components";
import type { Dialect } from "@core/flash/dialect";
import type { LampInput } from "@core/record/types";
import { Counts } from "./Counts";
import { Pad } from "./Pad";
import { BeginCamera, BeginFilm } from "./picture/Begin";
import type { PictureWatch } from "./picture/picture-watch";
import type { ReadingSession } from "./session";
import { TraceImport } from "./TraceImport";
import { useSession } from "./use-session";

const InputTabs = styled(TabList)`
  display: flex;
  overflow-x: auto;
  scrollbar-width: none;
`;

const InputTab = styled(Tab)`
  flex: none;
  display: flex;
  align-items: center;
  min-height: 48px;
  padding: 0 16px;
  font-weight: 700;
  color: var(--ink-soft);
  border-radius: 10px 10px 0 0;
  cursor: pointer;
  &[data-selected] {
    background: var(--petrol);
    color: var(--on-petrol);
  }
  &[data-disabled] {
    opacity: 0.45;
    cursor: default;
  }
`;

interface InputKind {
  id: LampInput;
  label: string;
}

const INPUTS: readonly InputKind[] = [
  { id: "camera", label: "Camera" },
  { id: "film", label: "Film" },
  { id: "tap", label: "Tap" },
  { id: "keys", label: "Two keys" },
  { id: "hold", label: "Hold" },
  { id: "counts", label: "Counts" },
  { id: "trace", label: "Trace file" },
  { id: "press", label: "Button and flashes" },
];

/** Where the dialect is not known: what says most by itself. */
export const ANY_INPUTS = INPUTS.filter((i) => ["camera", "film", "tap", "hold", "trace"].includes(i.id));

/** Long and short cannot be told by taps alone. */
export function inputsFor({ advance, digits }: Dialect): readonly InputKind[] {
  const never = advance === "button" ? ["camera", "film", "tap", "keys", "hold", "trace"] : digits.style === "long-short" ? ["tap", "press"] : ["keys", "press"]; // prettier-ignore
  return INPUTS.filter((i) => !never.includes(i.id));
}

/** The ways to watch, and the one that is taken. */
export function Inputs({
  session,
  picture,
  inputs,
  locked,
}: {
  session: ReadingSession;
  picture: PictureWatch;
  inputs: readonly InputKind[];
  locked: boolean;
}) {
  const { dialect } = session.home;
  const input = useSession(session, (s) => s.reading.input) as LampInput;
  return (
    <Tabs
      selectedKey={input}
      onSelectionChange={(k) => {
        if (k === input) return;
        picture.close();
        session.setInput(k as LampInput);
      }}
    >
      <InputTabs aria-label="How you watch">
        {inputs.map((i) => (
          <InputTab key={i.id} id={i.id} isDisabled={locked && i.id !== input}>
            {i.label}
          </InputTab>
        ))}
      </InputTabs>
      <TabPanel key={input} id={input}>
        {input === "camera" ? (
          <BeginCamera picture={picture} stored={session.home.keep !== null} />
        ) : input === "film" ? (
          <BeginFilm picture={picture} />
        ) : input === "trace" ? (
          <TraceImport rest={dialect.rest} onTrace={session.load} />
        ) : input === "counts" ? (
          <Counts session={session} dialect={dialect} />
        ) : (
          <Pad key={input} input={input} onDown={session.down} onUp={session.up} />
        )}
      </TabPanel>
    </Tabs>
  );
}
