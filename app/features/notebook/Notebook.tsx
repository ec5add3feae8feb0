import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { Pencil } from "lucide-react";
import type { Job, Note, StepId } from "@core/record/types";
import { shortTime } from "~/store/format";
import { dropPhoto } from "~/store/photos";
import { useIntents } from "~/store/use-job";
import { Button } from "~/ui/Button";
import { Photo } from "~/ui/Photo";
import { PhotoPicker } from "~/ui/PhotoPicker";
import { Row } from "~/ui/bits";
import { Field } from "~/ui/Field";
import { wide } from "~/ui/theme";
import type { JobIntents } from "~/store/job-intents";
import { Trouble } from "~/ui/Trouble";

const Page = styled.aside`
  background:
    linear-gradient(var(--rule), var(--rule)) 0 0 / 100% 1px no-repeat,
    repeating-linear-gradient(transparent 0 27px, var(--rule) 27px 28px) var(--sheet);
  padding: 14px 18px 18px;
  display: grid;
  grid-template-rows: auto 1fr auto;
  gap: 14px;
  border-left: 3px solid var(--ink);
  h2 {
    line-height: 28px;
  }
  ${wide} {
    position: sticky;
    top: 0;
    max-height: calc(100dvh - 64px);
  }
`;

const Lines = styled.ol`
  font-size: 0.9rem;
  line-height: 28px;
  overflow-y: auto;
  min-height: 84px;
  max-height: 340px;
  ${wide} {
    max-height: none;
  }
  time {
    font-variant-numeric: tabular-nums;
    font-weight: 700;
    font-size: 0.85rem;
    margin-right: 8px;
  }
  li[data-by="person"] {
    font-style: italic;
  }
  li {
    overflow-wrap: anywhere;
  }
`;

/** A line of the person, as high as two lines of the page, so that its button is as large as a thumb. */
const Own = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 48px;
  align-items: center;
  min-height: 56px;
  s {
    display: block;
    color: var(--ink-soft);
  }
`;

const Write = styled.form`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  > :first-child {
    grid-column: 1 / -1;
  }
  > :nth-child(2) {
    justify-self: start;
  }
`;

const LONGEST = 1000;
/** So many lines are shown at first, and so many more each time they are asked for. */
const LATEST = 100;
const EARLIER = 300;

/** One line: its time, what it says, what it said before, and its photos. */
function Line({ line, onCorrect }: { line: Note; onCorrect: () => void }) {
  const { at, by, text, photos = [], was = [] } = line;
  const time = <time dateTime={at}>{shortTime(at)}</time>;
  return (
    <li data-by={by}>
      {by === "person" ? (
        <Own>
          <span>
            {time}
            {text}
            {was.map((w) => (
              <s key={w.at}>{w.text}</s>
            ))}
          </span>
          <Button $look="quiet" aria-label={`Correct the line: ${text.slice(0, 60)}`} onPress={onCorrect}>
            <Pencil size={18} aria-hidden />
          </Button>
        </Own>
      ) : (
        <>
          {time}
          {text}
        </>
      )}
      {photos.length > 0 && (
        <Row $gap={8}>
          {photos.map((id, i) => (
            <Photo key={id} id={id} of={`${i + 1} of the line: ${text.slice(0, 60)}`} height={80} />
          ))}
        </Row>
      )}
    </li>
  );
}

/** A line of the person put right: what it said before stays with it. */
function Correct({ line, onDone }: { line: Note; onDone: () => void }) {
  const [text, setText] = useState(line.text);
  const { send, busy, problem } = useIntents<JobIntents>(null, onDone);
  return (
    <li data-by="correcting">
      <form
        style={{ display: "grid", gap: 8, padding: "6px 2px" }}
        onSubmit={(e) => {
          e.preventDefault();
          const told = text.trim();
          if (told === line.text) onDone();
          else if (told && !busy) send({ intent: "correct", at: line.at, was: line.text, text: told });
        }}
        onKeyDown={(e) => {
          if (e.key !== "Escape") return;
          e.stopPropagation();
          onDone();
        }}
      >
        <Field
          label="Correct the line"
          description="What it said before stays beside it."
          value={text}
          onChange={setText}
          maxLength={LONGEST}
          rows={3}
          autoFocus
        />
        <Row $gap={8}>
          <Button type="submit" isDisabled={!text.trim()}>
            Save it
          </Button>
          <Button $look="quiet" onPress={onDone}>
            Leave it
          </Button>
        </Row>
        <Trouble problem={problem} />
      </form>
    </li>
  );
}

/** A line for the notebook, typed, with photos. */
function WriteLine({ job, step }: { job: Job; step: StepId }) {
  const [text, setText] = useState("");
  const [photos, setPhotos] = useState<readonly string[]>([]);
  const [why, tell] = useState<string | null>(null);
  const { send, busy, problem } = useIntents<JobIntents>(null, () => {
    setText("");
    setPhotos([]);
  });
  return (
    <>
      <div style={{ display: "grid", gap: 8 }}>
        {photos.length > 0 && (
          <Row $gap={8}>
            {photos.map((id, i) => (
              <Photo key={id} id={id} of={`${i + 1} for the line`} />
            ))}
            <Button
              $look="quiet"
              onPress={() => {
                for (const id of photos) void dropPhoto(id);
                setPhotos([]);
              }}
            >
              Without {photos.length === 1 ? "the photo" : "the photos"}
            </Button>
          </Row>
        )}
        <Write
          onSubmit={(e) => {
            e.preventDefault();
            // What was typed stays until it is stored. A photo says something by itself.
            const said = text.trim() || (photos.length ? "Photo." : "");
            if (said && !busy)
              send({ intent: "note", step, text: said, ...(photos.length && { photos: [...photos] }) });
          }}
        >
          <Field label="Write a line" value={text} onChange={setText} maxLength={LONGEST} />
          <PhotoPicker
            label="Add a photo"
            of={{ vehicle: job.vehicle, job: job.id }}
            iconOnly
            onKept={(id) => setPhotos((all) => [...all, id])}
            onProblem={tell}
          />
          <Button type="submit">Add</Button>
        </Write>
      </div>
      <Trouble problem={problem ?? why} />
    </>
  );
}

/** The notebook of a job: it fills itself, and takes typed lines and photos. Of a long one the latest lines are shown first. */
export function Notebook({ job, step }: { job: Job; step: StepId }) {
  const [shown, show] = useState(LATEST);
  const [correcting, correct] = useState<number | null>(null);
  const lines = useRef<HTMLOListElement>(null);
  const earlier = Math.max(0, job.notebook.length - shown);
  useEffect(() => {
    lines.current?.scrollTo({ top: lines.current.scrollHeight });
  }, [job.notebook.length]);
  return (
    <Page aria-label="Notebook">
      <h2>Notebook</h2>
      <Lines ref={lines} tabIndex={0} aria-label="Lines of the notebook">
        {earlier > 0 && (
          <li>
            <Button
              $look="quiet"
              onPress={() => {
                show(shown + EARLIER);
                // With the last of them the button goes; who is at the keyboard stays in the list.
                if (earlier <= EARLIER) lines.current?.focus();
              }}
            >
              Show {Math.min(earlier, EARLIER).toLocaleString("en")} earlier lines
              {earlier > EARLIER && ` of ${earlier.toLocaleString("en")}`}
            </Button>
          </li>
        )}
        {job.notebook.slice(earlier).map((n, k) => {
          const i = earlier + k;
          return correcting === i ? (
            <Correct key={i} line={n} onDone={() => correct(null)} />
          ) : (
            <Line key={i} line={n} onCorrect={() => correct(i)} />
          );
        })}
      </Lines>
      <WriteLine job={job} step={step} />
    </Page>
  );
}
