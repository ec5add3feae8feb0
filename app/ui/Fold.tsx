import { ChevronRight } from "lucide-react";
import type { ReactNode } from "react";
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

/** More, for whoever asks. @param plain it is always there, with nothing to press */
export function Fold({
  label,
  open = false,
  plain = false,
  children,
}: {
  label: string;
  open?: boolean;
  plain?: boolean;
  children: ReactNode;
}) {
  if (plain) return children;
  return (
    <Disclosure defaultExpanded={open}>
      <Trigger slot="trigger">
        <ChevronRight size={20} aria-hidden /> {label}
      </Trigger>
      <DisclosurePanel>{children}</DisclosurePanel>
    </Disclosure>
  );
}
