import { Checkbox } from "react-aria-components/Checkbox";
import { CheckboxGroup } from "react-aria-components/CheckboxGroup";
import { Label } from "react-aria-components/Label";
import { Radio, RadioGroup } from "react-aria-components/RadioGroup";
import styled, { css } from "styled-components";

const group = css`
  display: flex;
  flex-wrap: wrap;
  align-content: start;
  gap: 8px;
  border: 0;
  > span:first-child,
  > label:first-child {
    flex-basis: 100%;
    font-weight: 700;
  }
`;

const tile = css`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 48px;
  padding: 6px 16px 6px 12px;
  border: 2px solid var(--line);
  border-radius: 10px;
  background: var(--sheet);
  cursor: pointer;
  touch-action: manipulation;
  &::before {
    content: "";
    flex: none;
    width: 18px;
    height: 18px;
    border: 2px solid var(--ink-soft);
  }
  &[data-hovered] {
    border-color: var(--petrol);
  }
  &[data-selected] {
    border-color: var(--petrol);
    background: var(--tint);
    font-weight: 650;
    &::before {
      border-color: var(--petrol);
      background: var(--petrol);
      box-shadow: inset 0 0 0 3px var(--tint);
    }
  }
  &[data-indeterminate]::before {
    background: linear-gradient(var(--petrol), var(--petrol)) center / 10px 3px no-repeat;
  }
  &[data-focus-visible] {
    outline: 3px solid var(--petrol);
    outline-offset: 2px;
  }
`;

const Radios = styled(RadioGroup)`
  ${group}
`;
const Checks = styled(CheckboxGroup)`
  ${group}
`;
const RadioTile = styled(Radio)`
  ${tile}
  &::before {
    border-radius: 50%;
  }
`;
const CheckTile = styled(Checkbox)`
  ${tile}
  &::before {
    border-radius: 4px;
  }
`;

export interface Option<V extends string> {
  value: V;
  label: string;
}

/** One of a few: large tiles, a radio group to the keyboard and the ear. */
export function Choice<V extends string>(props: {
  label: string;
  options: readonly Option<V>[];
  value: V | "" | null;
  onChange: (value: V) => void;
  isDisabled?: boolean;
}) {
  return (
    <Radios value={props.value || null} onChange={(v) => props.onChange(v as V)} isDisabled={props.isDisabled ?? false}>
      <Label>{props.label}</Label>
      {props.options.map((o) => (
        <RadioTile key={o.value} value={o.value}>
          {o.label}
        </RadioTile>
      ))}
    </Radios>
  );
}

/** One thing, yes or no. */
export const CheckBox = CheckTile;

/** Any of a few. */
export function Choices(props: {
  label: string;
  options: readonly string[];
  value: readonly string[];
  onChange: (value: string[]) => void;
}) {
  return (
    <Checks value={[...props.value]} onChange={props.onChange}>
      <Label>{props.label}</Label>
      {props.options.map((o) => (
        <CheckTile key={o} value={o}>
          {o}
        </CheckTile>
      ))}
    </Checks>
  );
}
