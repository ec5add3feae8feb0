import { useEffect, useRef } from "react";

/** When `what` changes, the focus goes to the first thing found: who reads by ear or keyboard is where the page is. Not when it first opens. */
export function useFocusOn(what: string, selector: string): void {
  const was = useRef(what);
  useEffect(() => {
    if (was.current === what) return;
    was.current = what;
    const next = document.querySelector<HTMLElement>(selector);
    if (!next) return;
    next.tabIndex = -1;
    // A new page is scrolled by the router; within one, what is new comes into sight.
    next.focus({ preventScroll: true });
    next.scrollIntoView({ block: "nearest" });
  }, [what, selector]);
}
