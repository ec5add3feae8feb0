import { useSyncExternalStore } from "react";
import type { ReadingSession, SessionState } from "./session";

/** A part of a session's state; what uses it is drawn again only when that part changes. */
export function useSession<T>(session: ReadingSession, select: (state: SessionState) => T): T {
  const get = () => select(session.state);
  return useSyncExternalStore(session.subscribe, get, get);
}
