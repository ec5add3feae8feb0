import { ChevronRight } from "lucide-react";
import { Button as AriaButton } from "react-aria-components/Button";
import { Disclosure, DisclosurePanel } from "react-aria-components/Disclosure";
import styled from "styled-components";

const Trigger = styled(AriaButton)`
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 48px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--petrol);
  font: inherit;
  font-weight: 700;
  text-align: start;
  cursor: pointer;
  svg {
    flex: none;
    transition: none;
  }
  &[aria-expanded="true"] svg {
    transform: rotate(90deg);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--petrol);
    outline-offset: 2px;
    border-radius: 6px;
  }
`;

const Lines = styled.ul`
  display: grid;
  gap: 4px;
  padding: 0 0 8px 28px;
`;

/** What a sentence rests on, and what would make it surer: told to who asks. */
export function Why({
  label = "Why?",
  lines,
  open = false,
}: {
  label?: string;
  lines: readonly string[];
  open?: boolean;
}) {
  if (!lines.length) return null;
  return (
    <Disclosure defaultExpanded={open}>
      <Trigger slot="trigger">
        <ChevronRight size={20} aria-hidden /> {label}
      </Trigger>
      <DisclosurePanel>
        <Lines>
          {lines.map((l) => (
            <li key={l}>{l}</li>
          ))}
        </Lines>
      </DisclosurePanel>
    </Disclosure>
  );
}
