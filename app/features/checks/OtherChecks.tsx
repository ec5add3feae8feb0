import { Disclosure, DisclosurePanel } from "react-aria-components/Disclosure";
import styled from "styled-components";
import { checkWords } from "@core/diagnosis/words";
import type { ProposedCheck } from "@core/diagnosis/weigh";
import { TOOLS, type Tool } from "@core/diagnosis/checks";
import { Button } from "~/ui/Button";
import { Choices } from "~/ui/Choice";
import { Sheet, Soft } from "~/ui/bits";
import { TOOL_WORDS } from "./tools";

const List = styled.ul`
  display: grid;
  gap: 4px;
  padding-top: 14px;
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: 4px 14px;
    border-top: 1px solid var(--rule);
    padding-top: 4px;
  }
`;

/** All other checks, those that tell most a minute first, and the tools they need: nobody is forced. */
export function OtherChecks({
  checks,
  tools,
  onChoose,
  onTools,
}: {
  checks: readonly ProposedCheck[];
  tools: readonly Tool[];
  onChoose: (id: string) => void;
  onTools: (tools: Tool[]) => void;
}) {
  return (
    <Sheet>
      <Disclosure>
        <Button $look="quiet" slot="trigger">
          Other checks and tools ({checks.length})
        </Button>
        <DisclosurePanel>
          <Choices
            label="Tools at hand"
            options={TOOLS.map((t) => TOOL_WORDS[t])}
            value={tools.map((t) => TOOL_WORDS[t])}
            onChange={(on) => onTools(TOOLS.filter((t) => on.includes(TOOL_WORDS[t])))}
          />
          <List>
            {checks.map((c) => (
              <li key={c.id}>
                <span>
                  {checkWords(c).title} <Soft as="span">{c.minutes} min</Soft>
                </span>
                <Button $look="quiet" aria-label={`Do this one: ${checkWords(c).title}`} onPress={() => onChoose(c.id)}>
                  This one
                </Button>
              </li>
            ))}
          </List>
        </DisclosurePanel>
      </Disclosure>
    </Sheet>
  );
}
