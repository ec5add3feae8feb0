import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import type { Dialect } from "@core/flash/dialect/dialect";
import type { Act } from "@core/pack/way";
import { actPrompt } from "@core/procedure/act-prompt";
import { clock } from "~/store/clock";
import { cue } from "~/store/cue";
import { useSettings } from "~/store/use-settings";
import { Sheet } from "~/ui/bits";
import { figures } from "~/ui/theme";
import type { ReadingSession } from "./session";
import { useSession } from "./use-session";

const Box = styled(Sheet)<{ $now: boolean }>`
  border: 3px solid var(${({ $now }) => ($now ? "--petrol" : "--line")});
  strong {
    font-size: 1.4rem;
  }
  span {
    ${figures}
  }
`;

/** At the one flash of the engine-running test: what to do, and how long there is for it. */
export function ActNow({ session, dialect, act }: { session: ReadingSession; dialect: Dialect; act: Act }) {
  const settings = useSettings();
  const decoded = useSession(session, (s) => s.decoded);
  const watching = useSession(session, (s) => s.phase === "watching");
  const [now, setNow] = useState(0);
  const told = useRef<string | null>(null);
  useEffect(() => {
    if (!watching) return;
    return clock.every(200, () => setNow(session.now()));
  }, [watching, session]);
  const prompt = watching && decoded ? actPrompt(dialect, decoded, now, act.seconds * 1000) : null;
  const kind = prompt?.kind ?? null;
  useEffect(() => {
    if (kind === told.current) return;
    told.current = kind;
    if (kind === "now") cue("end", settings);
    else if (kind === "soon") cue("up", settings);
  }, [kind, settings]);
  if (!prompt) return null;
  const seconds = Math.max(0, Math.ceil(((prompt.kind === "now" ? prompt.until : prompt.at) - now) / 1000));
  return (
    <Box $now={prompt.kind === "now"} role="alert">
      {prompt.kind === "now" ? (
        <p>
          <strong>Now: {act.what}</strong>
        </p>
      ) : (
        <p>
          <strong>Be ready: one flash comes soon.</strong> Then: {act.what}
        </p>
      )}
      <p aria-hidden>
        <span>{seconds} s</span> {prompt.kind === "now" ? "left" : "until it should come"}
      </p>
    </Box>
  );
}
