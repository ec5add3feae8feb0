import styled from "styled-components";
import type { Option } from "./Choice";

const Frame = styled.label`
  display: grid;
  gap: 6px;
  min-width: 0;
  font-weight: 700;
  select {
    font: inherit;
    font-weight: 400;
    width: 100%;
    min-height: 48px;
    padding: 8px 14px;
    color: var(--ink);
    background: var(--sheet);
    border: 2px solid var(--line);
    border-radius: 10px;
    &:focus-visible {
      border-color: var(--petrol);
      outline: 3px solid var(--petrol);
      outline-offset: 1px;
    }
  }
`;

/** One of a few where tiles would take too much room: the browser's own list, which a phone shows as its own. */
export function Select<V extends string>(props: {
  label: string;
  options: readonly Option<V>[];
  value: V;
  onChange: (value: V) => void;
}) {
  return (
    <Frame>
      {props.label}
      <select value={props.value} onChange={(e) => props.onChange(e.target.value as V)}>
        {props.options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </Frame>
  );
}
