import styled, { css, keyframes } from "styled-components";

const blink = keyframes`0%, 49% { opacity: 1 } 50%, 100% { opacity: 0 }`;
const once = keyframes`0%, 60% { opacity: 1 } 75%, 100% { opacity: 0 }`;

const Bed = styled.span<{ $look: string }>`
  position: relative;
  display: inline-block;
  width: 84px;
  height: 44px;
  border-radius: 8px;
  background: var(--band);
  &::after {
    content: "";
    position: absolute;
    inset: 11px 24px;
    border-radius: 11px;
    background: var(--lit);
    ${({ $look }) =>
      ({
        steady: "",
        dark: css`
          background: none;
          border: 2px dashed var(--band-line);
        `,
        flashing: css`
          animation: ${blink} 1.1s infinite;
        `,
        "goes-out": css`
          animation: ${once} 2.6s infinite;
        `,
      })[$look]}
  }
`;

/** A small picture of a lamp and what it does; slow enough to harm nobody, still where motion is not wanted. */
export function LampGlyph({ look }: { look: "steady" | "dark" | "flashing" | "goes-out" }) {
  return <Bed $look={look} aria-hidden />;
}
