import { useEffect } from "react";

const TYPED = "textarea, select, input:not([type=radio], [type=checkbox], [type=range])";

/** Z, alone or with Ctrl, takes the last mark or correction back, from anywhere but a field that is typed in. */
export function useUndoKey(undo: () => void): void {
  useEffect(() => {
    const onKeyDown = (e: KeyboardEvent) => {
      if (e.key.toLowerCase() !== "z" || e.altKey || e.shiftKey) return;
      if ((e.target as HTMLElement).closest(TYPED)) return;
      e.preventDefault();
      undo();
    };
    addEventListener("keydown", onKeyDown);
    return () => removeEventListener("keydown", onKeyDown);
  }, [undo]);
}
