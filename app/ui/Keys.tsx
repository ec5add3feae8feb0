import { lazy, Suspense, useEffect, useState } from "react";
import { useLocation, useNavigate } from "react-router";

const KeySheet = lazy(() => import("./KeySheet"));

const TYPED = "input:not([type=radio], [type=checkbox], [type=range]), textarea, select, [contenteditable]";

/** Where a search in the garage begins; in the address, so that it does after the page has come. */
export const SEARCH_HASH = "#search";

/** Keys that work on every page: the sheet of all keys, the search, a line in the notebook. */
export function Keys() {
  const [open, setOpen] = useState(false);
  const { pathname } = useLocation();
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || e.defaultPrevented) return;
      // A sheet that is open has the keys to itself.
      if ((e.target as HTMLElement).closest(`${TYPED}, [role=dialog]`)) return;
      // Where a lamp is tapped a finger that slips to the next key must not lead away from it.
      if (e.key !== "?" && document.querySelector("[data-pad]")) return;
      const focus = (field: string): boolean => {
        const found = document.querySelector<HTMLElement>(field);
        found?.focus();
        return found !== null;
      };
      if (e.key === "?") setOpen(true);
      else if (e.key === "/" && !(pathname === "/" && focus("input[type=search]"))) void navigate(`/${SEARCH_HASH}`);
      else if (e.key === "n" && !focus("[aria-label=Notebook] input")) return;
      else if (!["?", "/", "n"].includes(e.key)) return;
      e.preventDefault();
    };
    addEventListener("keydown", onKey);
    const onAsk = () => setOpen(true);
    addEventListener(ASK_KEYS, onAsk);
    return () => {
      removeEventListener("keydown", onKey);
      removeEventListener(ASK_KEYS, onAsk);
    };
  }, [pathname, navigate]);
  return <Suspense>{open && <KeySheet onClose={() => setOpen(false)} />}</Suspense>;
}

const ASK_KEYS = "klinko-keys";
/** Opens the sheet of keys, for whoever has none to press. */
export const askForKeys = (): void => void dispatchEvent(new Event(ASK_KEYS));
