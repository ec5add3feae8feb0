import { useState } from "react";
import type { BackupRead, Merge } from "@core/record/backup";
import { bringIn } from "~/store/transfer";
import { shortTime } from "~/store/format";
import { flashWorker } from "~/workers/flash";
import { FileDrop } from "~/ui/FileDrop";
import { Caution, Soft } from "~/ui/bits";

type State =
  | { phase: "idle" }
  | { phase: "reading"; name: string }
  | { phase: "refused"; name: string; why: string }
  | { phase: "done"; read: BackupRead; merge: Merge };

/** Brings in the records of a file that was saved here or on another device. Nothing that is here is written over. */
export function BringIn() {
  const [state, setState] = useState<State>({ phase: "idle" });
  const open = async (file: File) => {
    const { name } = file;
    setState({ phase: "reading", name });
    try {
      const read = await flashWorker().readBackup(file);
      if ("fault" in read)
        return setState({ phase: "refused", name, why: `${read.fault} Your records are as they were.` });
      setState({ phase: "done", read, merge: await bringIn(read.docs, read.makes, read.notes) });
    } catch {
      setState({
        phase: "refused",
        name,
        why: "It could not be brought in as a whole: this browser has no room for it, or lost hold of its store. What was here stays, and what came in too; free some room, then bring the file again.",
      });
    }
  };
  return (
    <div style={{ display: "grid", gap: 10 }}>
      <FileDrop
        label={state.phase === "reading" ? `Reading ${state.name} …` : "Drop a file of records here"}
        pick="Bring records in"
        accept={[".json", "application/json"]}
        onFile={(file) => void open(file)}
      >
        From this device or another. What is here already stays as it is.
      </FileDrop>
      {state.phase === "refused" && (
        <div role="alert">
          <Caution>
            {state.name}: {state.why}
          </Caution>
        </div>
      )}
      {state.phase === "done" && <Told {...state} />}
    </div>
  );
}

const records = (n: number): string => `${n} ${n === 1 ? "record" : "records"}`;
const were = (n: number): string => `${records(n)} ${n === 1 ? "was" : "were"}`;

function Told({ read, merge }: { read: BackupRead; merge: Merge }) {
  const out = [
    ...read.faults,
    ...merge.astray.map((key) => ({ key, message: "What it belongs to is neither in the file nor here." })),
  ];
  return (
    <div role="status" style={{ display: "grid", gap: 8 }}>
      <p>
        <strong>{merge.add.length ? `${records(merge.add.length)} brought in` : "Nothing new"}</strong> from the file of{" "}
        {shortTime(read.savedAt)}.
      </p>
      {read.makes.length > 0 && (
        <Soft>
          With {read.makes.length === 1 ? "the make" : "the makes"} {read.makes.map((m) => m.make).join(", ")}.
        </Soft>
      )}
      {merge.same > 0 && <Soft>{were(merge.same)} here already.</Soft>}
      {merge.kept.length > 0 && <Soft>{were(merge.kept.length)} here in another state: what is here stays.</Soft>}
      {out.length > 0 && (
        <>
          <Caution>{records(out.length)} left out:</Caution>
          <ul>
            {out.slice(0, 20).map(({ key, message }) => (
              <li key={key}>
                {key}: {message}
              </li>
            ))}
          </ul>
          {out.length > 20 && <Soft>And {out.length - 20} more.</Soft>}
        </>
      )}
    </div>
  );
}
