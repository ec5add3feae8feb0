import { ChevronRight } from "lucide-react";
import { useState } from "react";
import { Button as AriaButton } from "react-aria-components/Button";
import { Disclosure, DisclosurePanel } from "react-aria-components/Disclosure";
import styled from "styled-components";
import { reasonsFor } from "@core/diagnosis/reasons";
import { groupTitle } from "@core/diagnosis/words";
import type { Group } from "@core/diagnosis/weigh";
import type { SuspectsAsked } from "@core/job/suspects";
import { Button } from "~/ui/Button";
import { Sheet, Soft } from "~/ui/bits";
import { figures } from "~/ui/theme";
import { percent } from "~/ui/percent";

const List = styled.ol`
  display: grid;
  li {
    padding: 2px 0 10px;
    border-top: 1px solid var(--rule);
    &:first-child {
      border-top: 0;
    }
  }
`;

const Trigger = styled(AriaButton)`
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr) max-content;
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 48px;
  padding: 0;
  border: 0;
  background: none;
  font: inherit;
  text-align: left;
  cursor: pointer;
  svg {
    color: var(--petrol);
  }
  &[aria-expanded="true"] svg {
    transform: rotate(90deg);
  }
  b {
    ${figures}
    font-size: 1.15rem;
  }
  &[data-focus-visible] {
    outline: 3px solid var(--petrol);
    outline-offset: 2px;
    border-radius: 6px;
  }
`;

const Bar = styled.i<{ $p: number }>`
  display: block;
  height: 10px;
  margin-left: 30px;
  border-radius: 5px;
  background: linear-gradient(var(--petrol), var(--petrol)) 0 0 / ${({ $p }) => Math.max(0.5, 100 * $p)}% 100% no-repeat
    var(--rule);
`;

const Reasons = styled.ul`
  display: grid;
  gap: 4px;
  padding: 10px 0 4px 30px;
`;

const FIRST = 4;

/** What can be wrong, the likeliest first, with its reasons. */
export function SuspectList({ groups, asked }: { groups: readonly Group[]; asked: SuspectsAsked }) {
  const [all, setAll] = useState(false);
  const known = groups.filter((g) => g.p >= 0.005);
  const shown = all ? known : known.slice(0, FIRST);
  return (
    <Sheet aria-label="What can be wrong">
      <h2>What can be wrong</h2>
      <List>
        {shown.map((g) => (
          <li key={g.id}>
            <Disclosure>
              <Trigger slot="trigger">
                <ChevronRight size={20} aria-hidden />
                <span>{groupTitle(g)}</span>
                <b>{percent(g.p)}</b>
              </Trigger>
              <Bar $p={g.p} aria-hidden />
              <DisclosurePanel>
                <Reasons>
                  {reasonsFor(g, asked).map((r) => (
                    <li key={r}>{r}</li>
                  ))}
                </Reasons>
              </DisclosurePanel>
            </Disclosure>
          </li>
        ))}
      </List>
      {known.length > FIRST && !all && (
        <div>
          <Button $look="quiet" onPress={() => setAll(true)}>
            {known.length - FIRST} more
          </Button>
        </div>
      )}
      <Soft>
        Weighed from the codes, the story and your checks. Two things can be wrong at once and a code can be an old
        story, so this does not add up to 100.
      </Soft>
    </Sheet>
  );
}
