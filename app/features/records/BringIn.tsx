import { proxy } from "comlink";
import { startTransition, useEffect, useRef, useState } from "react";
import { shortTime } from "~/store/format";
import { takeHandedOver } from "~/store/handed-over";
import type { Live } from "~/workers/live";
import { WorkerDied } from "~/workers/live";
import { recordsWorker } from "~/workers/records";
import type { BroughtIn, PlanTold, RecordsApi } from "~/workers/records.worker";
import { FileDrop } from "~/ui/FileDrop";
import { LongWork } from "~/ui/LongWork";
import { Caution, Soft } from "~/ui/bits";
import { PlanSheet } from "./PlanSheet";
import { ScanIn } from "./ScanIn";

const NOT_WHOLE =
  "It could not be brought in as a whole: this browser has no room for it, or lost hold of its store. What was here stays, and what came in too; free some room, then bring the file again.";

type Decided = Parameters<Parameters<typeof PlanSheet>[0]["onDone"]>;

type State =
  | { phase: "idle" }
  | { phase: "reading"; name: string }
  | { phase: "refused"; name: string; why: string }
  | { phase: "planned"; name: string; plan: PlanTold }
  | { phase: "bringing"; done: number; of: number }
  | { phase: "left" }
  | { phase: "done"; told: BroughtIn };

/** Brings in the records of a file that was saved here or on another device, as somebody decides who has seen what it brings. */
export function BringIn() {
  const [state, setState] = useState<State>({ phase: "idle" });
  // It holds the file from the plan to the end: the page never has all of it at once.
  const worker = useRef<Live<RecordsApi> | null>(null);
  const end = () => {
    worker.current?.end();
    worker.current = null;
  };
  useEffect(() => end, []);
  const open = async (file: File) => {
    const { name } = file;
    end();
    const own = (worker.current = recordsWorker());
    setState({ phase: "reading", name });
    try {
      const plan = await own.api.plan(file);
      if ("fault" in plan) {
        end();
        return setState({ phase: "refused", name, why: `${plan.fault} Your records are as they were.` });
      }
      // Where there is nothing to decide nothing is asked: makes and notes come in, and nothing is written over.
      if (plan.vehicles.length) startTransition(() => setState({ phase: "planned", name, plan }));
      else await bring(name, new Set(), new Map());
    } catch (error) {
      if (worker.current === own) end();
      setState(error instanceof WorkerDied ? { phase: "left" } : { phase: "refused", name, why: NOT_WHOLE });
    }
  };
  const bring = async (name: string, ...decided: Decided) => {
    setState({ phase: "bringing", done: 0, of: 0 });
    try {
      const told = await worker.current!.api.bring(
        ...decided,
        // What is told comes by a way of its own, and may come after the end.
        proxy((done: number, of: number) =>
          setState((now) => (now.phase === "bringing" ? { phase: "bringing", done, of } : now)),
        ),
      );
      setState({ phase: "done", told });
    } catch {
      setState({ phase: "refused", name, why: NOT_WHOLE });
    } finally {
      end();
    }
  };
  const given = useRef<(file: File) => void>(() => undefined);
  useEffect(() => {
    given.current = (file) => void open(file);
  });
  useEffect(() => {
    void takeHandedOver((file) => given.current(file)).catch(() => undefined);
  }, []);
  const leave = () => {
    end();
    setState({ phase: "left" });
  };
  return (
    <div style={{ display: "grid", gap: 10 }}>
      <FileDrop
        label="Drop a file of records here"
        pick="Bring records in"
        accept={[".json", "application/json", ".txt"]}
        onFile={(file) => void open(file)}
      >
        From this device or another. What it would change is shown before anything is done.
      </FileDrop>
      <ScanIn onFile={(file) => void open(file)} />
      {state.phase === "reading" && <LongWork what={`Reading ${state.name}`} done={0} of={0} onCancel={leave} />}
      {state.phase === "bringing" && (
        <LongWork
          what="Bringing it in"
          done={state.done}
          of={state.of}
          onCancel={() => void worker.current?.api.stop()}
        />
      )}
      {state.phase === "refused" && (
        <div role="alert">
          <Caution>
            {state.name}: {state.why}
          </Caution>
        </div>
      )}
      {state.phase === "planned" && (
        <PlanSheet plan={state.plan} onDone={(...decided) => void bring(state.name, ...decided)} onLeave={leave} />
      )}
      {state.phase === "left" && <Soft role="status">Nothing was brought in. Your records are as they were.</Soft>}
      {state.phase === "done" && <Told {...state.told} />}
    </div>
  );
}

const records = (n: number): string => `${n} ${n === 1 ? "record" : "records"}`;
const were = (n: number): string => `${records(n)} ${n === 1 ? "was" : "were"}`;

function Told({ savedAt, makes, added, same, kept, joined, pictures, broken, left }: BroughtIn) {
  return (
    <div role="status" style={{ display: "grid", gap: 8 }}>
      <p>
        <strong>{added ? `${records(added)} brought in` : "Nothing new"}</strong> from the file of {shortTime(savedAt)}.
        {joined > 0 && ` ${were(joined)} joined with what is here.`}
      </p>
      {broken && <p>Broken off: what came in before stays. Bring the same file once more to go on.</p>}
      {pictures > 0 && <Soft>With {pictures === 1 ? "one photo or film" : `${pictures} photos and films`}.</Soft>}
      {makes.length > 0 && (
        <Soft>
          With {makes.length === 1 ? "the make" : "the makes"} {makes.join(", ")}.
        </Soft>
      )}
      {same > 0 && <Soft>{were(same)} here already.</Soft>}
      {kept > 0 && <Soft>{were(kept)} here already, in a state that stays.</Soft>}
      {left.length > 0 && (
        <>
          <Caution>{records(left.length)} left out:</Caution>
          <ul>
            {left.slice(0, 20).map(({ key, message }) => (
              <li key={key}>
                {key}: {message}
              </li>
            ))}
          </ul>
          {left.length > 20 && <Soft>And {left.length - 20} more.</Soft>}
        </>
      )}
    </div>
  );
}
