import { createGlobalStyle, css } from "styled-components";

/** Amber is a lit lamp and nothing else; certainty, danger and done have a shape and a word besides their colour. */
const light = css`
  --paper: #efeee8;
  --sheet: #fcfbf7;
  --ink: #14232b;
  --ink-soft: #4a5b64;
  --line: #c9ccc6;
  --rule: #dfe1db;
  --petrol: #0a4e5c;
  --petrol-hover: #0d6375;
  --on-petrol: #ffffff;
  --tint: #e0ebec;
  --done: #1c6641;
  --danger: #9c1c24;
  --danger-tint: #f7e6e4;
  --band: #101a21;
  --band-line: #33434d;
  color-scheme: light;
`;

const dark = css`
  --paper: #0f181c;
  --sheet: #18242a;
  --ink: #eef1ec;
  --ink-soft: #a9b9bf;
  --line: #3b4b53;
  --rule: #26343b;
  --petrol: #7fd0dc;
  --petrol-hover: #a3e0e9;
  --on-petrol: #06262d;
  --tint: #1d3a42;
  --done: #84d4a4;
  --danger: #ff9d94;
  --danger-tint: #3a1f20;
  --band: #04080a;
  --band-line: #3a4a53;
  color-scheme: dark;
`;

export const GlobalStyle = createGlobalStyle`
  :root { ${light} --lit: #ffb01f; --lit-glow: #ffb01f66; }
  @media (prefers-color-scheme: dark) { :root:not([data-theme="light"]) { ${dark} } }
  :root[data-theme="dark"] { ${dark} }
  /* Paper is white, whatever the screen is. */
  @media print { :root, :root:not([data-theme="light"]), :root[data-theme="dark"] { ${light} } }
  *, *::before, *::after { box-sizing: border-box; }
  html { font: 400 18px/1.45 "Atkinson Hyperlegible Next Variable", system-ui, sans-serif; background: var(--paper); color: var(--ink); -webkit-text-size-adjust: 100%; }
  :root[data-type="large"] { font-size: 22px; }
  body { margin: 0; min-height: 100dvh; }
  h1, h2, h3, p, ul, ol, dl, dd, figure, fieldset { margin: 0; padding: 0; }
  ul, ol { list-style: none; }
  h1, h2, h3 { overflow-wrap: anywhere; }
  h1 { font-size: clamp(1.45rem, 1.1rem + 1.5vw, 1.9rem); line-height: 1.15; font-weight: 700; letter-spacing: -0.01em; text-wrap: balance; }
  h2 { font-size: 1.15rem; line-height: 1.25; font-weight: 700; }
  h3 { font-size: 1rem; font-weight: 700; }
  a { color: var(--petrol); }
  button, input, select, textarea { font: inherit; color: inherit; }
  h1:focus, h2:focus { outline: none; }
  :focus-visible { outline: 3px solid var(--petrol); outline-offset: 2px; border-radius: 6px; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { transition: none !important; animation: none !important; } }
`;

export const mono = css`
  font-family: "B612 Mono", ui-monospace, monospace;
`;

/** Measures, times and shares: of one width each, and a point or colon close to its digits, which the mono face tears apart. */
export const figures = css`
  font-variant-numeric: tabular-nums;
`;

/** Hidden from the eye, there for the ear. */
export const hidden = css`
  position: absolute;
  width: 1px;
  height: 1px;
  margin: -1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: nowrap;
`;

export const wide = "@media (min-width: 1080px)";
export const middle = "@media (min-width: 720px)";
