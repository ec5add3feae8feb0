import { useEffect, useState } from "react";
import { cue } from "~/store/cue";
import { useSettings } from "~/store/use-settings";
import { readyFlashWorkers } from "~/workers/flash";
import type { PictureWatch } from "./picture/picture-watch";
import { usePicture } from "./picture/use-picture";
import type { ReadingSession } from "./session";
import { useSession } from "./use-session";
import { useUndoKey } from "./use-undo-key";

/** Runs a reading and its pictures as long as the page shows them, and tells what most of the page asks for. */
export function useWatch(session: ReadingSession, picture: PictureWatch) {
  useEffect(readyFlashWorkers, []);
  useEffect(() => session.run(), [session]);
  useEffect(() => () => picture.close(), [picture]);
  useSettled(session, picture);
  useUndoKey(session.undo);
  const [playhead, setPlayhead] = useState<number | null>(null);
  const filmed = usePicture(picture, (s) => s.phase === "ended" && s.source === "film");
  // The film that was read stands at its beginning, and so does its strip.
  const [stood, setStood] = useState(false);
  if (filmed !== stood) {
    setStood(filmed);
    setPlayhead(filmed ? 0 : null);
  }
  return {
    phase: useSession(session, (s) => s.phase),
    input: useSession(session, (s) => s.reading.input),
    some: useSession(session, (s) => s.reading.marks.length > 0),
    pictured: usePicture(picture, (s) => s.phase !== "idle"),
    playhead,
    setPlayhead,
  };
}

/** When nothing more can be learned, watching ends by itself, with a sound. */
function useSettled(session: ReadingSession, picture: PictureWatch) {
  const settled = useSession(session, (s) => s.settled);
  const phase = useSession(session, (s) => s.phase);
  const settings = useSettings();
  useEffect(() => {
    if (settled) cue("end", settings);
  }, [settled, settings]);
  useEffect(() => {
    if (phase === "stopped" && picture.state.source === "camera") picture.stop();
  }, [phase, picture]);
}
