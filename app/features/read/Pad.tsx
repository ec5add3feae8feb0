import { useEffect, useState } from "react";
import { Button as AriaButton } from "react-aria-components/Button";
import styled from "styled-components";
import type { PadKey } from "@core/record/inputs";
import type { Mark } from "@core/record/types";
import { clock } from "~/store/clock";
import { Kbd } from "~/ui/bits";

const Area = styled.div`
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: 8px;
`;

const Big = styled(AriaButton)`
  display: grid;
  place-content: center;
  gap: 6px;
  min-height: 96px;
  padding: 14px;
  border: 0;
  border-radius: 12px;
  background: var(--petrol);
  color: var(--on-petrol);
  text-align: center;
  cursor: pointer;
  touch-action: none;
  user-select: none;
  -webkit-user-select: none;
  strong {
    font-size: 1.4rem;
  }
  @media (hover: none) {
    span {
      display: none;
    }
  }
  &[data-lit] {
    background: var(--band);
    color: var(--lit);
    box-shadow: inset 0 0 0 4px var(--lit);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--ink);
    outline-offset: 3px;
  }
`;

/** The big pad: by finger, or by key from anywhere on the page. Times are those of the event, not of its handling. */
export function Pad({
  keys,
  onDown,
  onUp,
}: {
  keys: readonly PadKey[];
  onDown: (at: number, kind?: Mark["kind"]) => void;
  onUp: (at: number) => void;
}) {
  const [lit, setLit] = useState<string | null>(null);
  const press = (key: PadKey, at: number) => {
    setLit(key.code);
    onDown(at, key.kind);
  };
  const release = (at: number) => {
    setLit(null);
    onUp(at);
  };
  useEffect(() => {
    const elsewhere = (e: KeyboardEvent) =>
      (e.target as HTMLElement).closest(
        "input:not(:checked), textarea, select, button, [role=tab]:not([aria-selected=true])",
      );
    const onKeyDown = (e: KeyboardEvent) => {
      if (e.repeat || e.ctrlKey || e.metaKey || e.altKey) return;
      const typing = (e.target as HTMLElement).closest("input, textarea, select");
      const key = keys.find((k) => k.code === e.code);
      const own = (e.target as HTMLElement).closest("[data-pad]");
      if (!key || (key.code === "Space" ? elsewhere(e) && !own : typing)) return;
      e.preventDefault();
      // A key is its own pad's, whichever of the pads has the focus.
      e.stopPropagation();
      press(key, clock.of(e));
    };
    const onKeyUp = (e: KeyboardEvent) => {
      if (!keys.some((k) => k.code === e.code) || lit !== e.code) return;
      e.preventDefault();
      e.stopPropagation();
      release(clock.of(e));
    };
    addEventListener("keydown", onKeyDown, true);
    addEventListener("keyup", onKeyUp, true);
    return () => {
      removeEventListener("keydown", onKeyDown, true);
      removeEventListener("keyup", onKeyUp, true);
    };
  });
  return (
    <Area>
      {keys.map((key, i) => (
        <Big
          key={key.code}
          autoFocus={i === 0}
          data-pad
          data-lit={lit === key.code || undefined}
          onPressStart={() => press(key, clock.ticks())}
          onPressEnd={() => release(clock.ticks())}
        >
          <strong>{key.label}</strong>
          <span>
            here or <Kbd>{key.keyName}</Kbd>
          </span>
        </Big>
      ))}
    </Area>
  );
}
