import { Button as AriaButton } from "react-aria-components/Button";
import { Link } from "react-router";
import styled, { css } from "styled-components";

const look = css<{ $look?: "primary" | "secondary" | "quiet" | "danger" }>`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 10px;
  min-height: 48px;
  min-width: 48px;
  padding: 8px 20px;
  border-radius: 10px;
  border: 2px solid var(--petrol);
  font-weight: 700;
  text-decoration: none;
  cursor: pointer;
  text-align: center;
  white-space: nowrap;
  touch-action: manipulation;
  user-select: none;
  ${({ $look = "secondary" }) =>
    ({
      primary: css`
        background: var(--petrol);
        color: var(--on-petrol);
        &:hover,
        &[data-hovered] {
          background: var(--petrol-hover);
          border-color: var(--petrol-hover);
        }
      `,
      secondary: css`
        background: var(--sheet);
        color: var(--petrol);
        &:hover,
        &[data-hovered] {
          background: var(--tint);
        }
      `,
      quiet: css`
        background: none;
        border-color: transparent;
        color: var(--petrol);
        padding-inline: 12px;
        /* It looks like a link: its text stands on the edge of the text around it. */
        &:first-child {
          margin-inline-start: -14px;
        }
        &:hover,
        &[data-hovered] {
          background: var(--tint);
        }
      `,
      danger: css`
        background: var(--sheet);
        color: var(--danger);
        border-color: var(--danger);
        &:hover,
        &[data-hovered] {
          background: var(--danger-tint);
        }
      `,
    })[$look]}
  &[data-disabled] {
    background: none;
    border-color: ${({ $look }) => ($look === "quiet" ? "transparent" : "var(--line)")};
    color: var(--ink-soft);
    cursor: default;
  }
`;

export const Button = styled(AriaButton)<{ $look?: "primary" | "secondary" | "quiet" | "danger" }>`
  ${look}
`;

export const LinkButton = styled(Link)<{ $look?: "primary" | "secondary" | "quiet" | "danger" }>`
  ${look}
`;
