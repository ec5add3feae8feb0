import type { ReactNode } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components/Tabs";
import styled from "styled-components";
import { watchOf, type Input } from "@core/record/inputs";
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

/** Where an input has more to begin with than a pad: its panel. */
const PANELS: Partial<Record<Input, (p: PanelProps) => ReactNode>> = {
  camera: ({ picture, session }) => <BeginCamera picture={picture} stored={session.home.keep !== null} />,
  film: ({ picture }) => <BeginFilm picture={picture} />,
  trace: ({ session }) => <TraceImport rest={session.home.dialect.rest} onTrace={session.load} />,
  counts: ({ session }) => <Counts session={session} dialect={session.home.dialect} />,
};

interface PanelProps {
  session: ReadingSession;
  picture: PictureWatch;
}

function Panel({ input, ...props }: PanelProps & { input: Input }) {
  const own = PANELS[input];
  return own ? (
    own(props)
  ) : (
    <Pad keys={watchOf(input).pad(props.session.home.dialect)} onDown={props.session.down} onUp={props.session.up} />
  );
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
  inputs: readonly Input[];
  locked: boolean;
}) {
  const input = useSession(session, (s) => s.reading.input);
  return (
    <Tabs
      selectedKey={input}
      onSelectionChange={(k) => {
        if (k === input) return;
        picture.close();
        session.setInput(k as Input);
      }}
    >
      <InputTabs aria-label="How you watch">
        {inputs.map((i) => (
          <InputTab key={i} id={i} isDisabled={locked && i !== input}>
            {watchOf(i).label}
          </InputTab>
        ))}
      </InputTabs>
      <TabPanel key={input} id={input}>
        <Panel key={input} input={input} session={session} picture={picture} />
      </TabPanel>
    </Tabs>
  );
}
