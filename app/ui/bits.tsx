import { TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";
import styled from "styled-components";
import { hidden, mono } from "./theme";

export const Sheet = styled.section`
  background: var(--sheet);
  border-radius: 12px;
  padding: 18px 20px;
  display: grid;
  gap: 14px;
  align-content: start;
  min-width: 0;
`;

export const Stack = styled.div<{ $gap?: number }>`
  display: grid;
  gap: ${({ $gap = 16 }) => $gap}px;
  align-content: start;
  min-width: 0;
`;

export const Row = styled.div<{ $gap?: number }>`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${({ $gap = 12 }) => $gap}px;
`;

/** The step's own action: in sight however long the step is. */
export const StepAction = styled(Row)`
  position: sticky;
  bottom: 0;
  z-index: 1;
  padding: 14px 0 8px;
  background: linear-gradient(transparent, var(--paper) 14px);
  /* Two under one another would hide too much of a phone. */
  @media (max-width: 719px) {
    :root[data-hand="right"] & {
      flex-direction: row-reverse;
    }
    &:has(> :nth-child(2)) {
      position: static;
    }
  }
`;

/** An entry of a list between fine rules: what it says, and at its end what can be done with it. */
export const Ruled = styled.li`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 4px 16px;
  padding: 10px 0;
  border-top: 1px solid var(--rule);
  overflow-wrap: anywhere;
  &:first-child {
    border-top: 0;
  }
`;

export const Soft = styled.p`
  color: var(--ink-soft);
`;

/** How much of something is over; its words stand beside it. */
export const Bar = styled.div`
  height: 16px;
  border-radius: 8px;
  background: var(--rule);
  overflow: hidden;
  > i {
    display: block;
    height: 100%;
    background: var(--petrol);
  }
`;

export const Mono = styled.span`
  ${mono}
`;

export const Hidden = styled.span`
  ${hidden}
`;

/** A vehicle's face. */
export const Plate = styled.span`
  ${mono}
  display: inline-block;
  padding: 3px 12px;
  border: 2px solid var(--ink);
  border-radius: 6px;
  background: var(--sheet);
  font-weight: 700;
  letter-spacing: 0.03em;
  white-space: nowrap;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
`;

export const Kbd = styled.kbd`
  ${mono}
  font-size: 0.75rem;
  font-weight: 700;
  padding: 2px 7px;
  border: 1.5px solid currentColor;
  border-radius: 5px;
  @media (hover: none) {
    display: none;
  }
`;

const CautionBox = styled.div`
  display: flex;
  gap: 12px;
  align-items: flex-start;
  padding: 12px 14px;
  border-left: 8px solid var(--danger);
  background: var(--danger-tint);
  border-radius: 4px 10px 10px 4px;
  svg {
    flex: none;
    margin-top: 1px;
    color: var(--danger);
  }
`;

export function Caution({ children }: { children: ReactNode }) {
  return (
    <CautionBox role="note">
      <TriangleAlert size={24} aria-hidden />
      <p>
        <Hidden>Caution: </Hidden>
        {children}
      </p>
    </CautionBox>
  );
}

const Shape = styled.span<{ $word: string }>`
  white-space: nowrap;
  font-weight: 700;
  &::before {
    content: "";
    display: inline-block;
    width: 0.72em;
    height: 0.72em;
    margin-right: 0.4em;
    border: 2px solid currentColor;
    border-radius: 50%;
    background: ${({ $word }) =>
      $word === "certain"
        ? "currentColor"
        : $word === "likely"
          ? "linear-gradient(90deg, currentColor 50%, transparent 50%)"
          : "none"};
  }
`;

/** Certainty as a shape and a word. */
export function Certainty({ word }: { word: "certain" | "likely" | "unsure" }) {
  return <Shape $word={word}>{word}</Shape>;
}

const EmptyBox = styled(Sheet)`
  justify-items: start;
  padding: 32px 28px;
`;

/** Nothing here yet: what it is for, and what to do next. */
export function Empty({ title, level = 2, children }: { title: string; level?: 1 | 2; children: ReactNode }) {
  return (
    <EmptyBox>
      {level === 1 ? <h1>{title}</h1> : <h2>{title}</h2>}
      {children}
    </EmptyBox>
  );
}
