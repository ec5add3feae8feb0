import { useCallback, useEffect, useRef, useState } from "react";
import type { Decoded } from "@core/flash/decode";
import { entriesFor } from "@core/pack/scope";
import { editMarks, type MarkEdit } from "@core/record/edit";
import { evidenceOf } from "@core/record/evidence";
import { RECORD_VERSION, type Input, type Mark, type Reading } from "@core/record/types";
import { newId, readingWriter, remove } from "~/store/db";
import type { JobData } from "~/store/job-data";
import { flashWorker } from "~/workers/flash";

/** Watching is taken to have begun this long before the first mark. */
const LEAD_MS = 600;
/** What came in this time after the last mark was still watched, when the page was closed. */
const TAIL_MS = 1500;

export type Phase = "ready" | "watching" | "stopped" | "interrupted";

/** One reading while it is made: marks in, every one stored as it comes, decoded in the worker as it grows. */
export interface LiveReading {
  phase: Phase;
  reading: Reading;
  decoded: Decoded | null;
  /** ms since the start of watching. */
  now: () => number;
  canUndo: boolean;
  setInput: (input: Input) => void;
  setRun: (run: Reading["run"]) => void;
  /** Begins to watch without a mark. */
  watch: () => void;
  /** A flash begins (or is tapped) at the clock time `at`. */
  down: (at: number, kind?: Mark["kind"]) => void;
  /** A held flash ends. */
  up: (at: number) => void;
  edit: (edit: MarkEdit) => void;
  undo: () => void;
  stop: () => void;
  goOn: () => void;
  startOver: () => Promise<void>;
  load: (marks: Mark[], until: number) => void;
  /** The reading with its final result, stored. */
  finish: () => Promise<Reading>;
}

function blank({ job, vehicle, access }: JobData, input: Input): Reading {
  return {
    version: RECORD_VERSION,
    kind: "reading",
    id: newId(),
    job: job.id,
    vehicle: vehicle.id,
    system: access.system,
    way: access.way.id,
    dialect: access.dialect.id,
    input,
    run: job.clears.length ? "key-on" : "before",
    startedAt: new Date(0).toISOString(),
    marks: [],
    pauses: [],
    until: null,
    result: null,
    recordedAt: null,
  };
}

export function useReading(data: JobData): LiveReading {
  const { access, pack, vehicle, readings } = data;
  const { dialect, system } = access;
  const usual: Input = dialect.digits.style === "long-short" ? "hold" : "tap";
  const stored = readings.findLast((r) => !r.recordedAt && r.system === system);
  const [reading, setReading] = useState<Reading>(() => stored ?? blank(data, usual));
  const [phase, setPhase] = useState<Phase>(() =>
    !stored ? "ready" : stored.until === null ? "interrupted" : "stopped",
  );
  const [undone, setUndone] = useState<Mark[][]>([]);
  const [decoded, setDecoded] = useState<Decoded | null>(null);
  const [save] = useState(readingWriter);
  const held = useRef<number | null>(null);
  /** The state that the next event builds on: events may come faster than renders. */
  const latest = useRef(reading);

  const put = useCallback(
    (next: Reading, keepUndo = true) => {
      if (keepUndo) setUndone((u) => [...u.slice(-99), latest.current.marks]);
      latest.current = next;
      setReading(next);
      void save(next);
    },
    [save],
  );

  const started = () => Date.parse(latest.current.startedAt);
  const now = useCallback(() => Math.max(0, Date.now() - Date.parse(latest.current.startedAt)), []);

  // Decode: one at a time, always the newest state.
  const busy = useRef(false);
  const again = useRef(false);
  const request = useCallback(
    (watching: boolean) => {
      const table = entriesFor(pack, vehicle, system).map((e) => e.code);
      const run = async () => {
        const r = latest.current;
        if (r.marks.length === 0 && r.startedAt.startsWith("1970")) return setDecoded(null);
        busy.current = true;
        const end = r.until ?? r.marks.reduce((t, m) => Math.max(t, m.up ?? m.t), 0) + TAIL_MS;
        const until = r.until ?? Math.max(watching ? now() : 0, end - TAIL_MS);
        const answer = await flashWorker().decode(dialect, evidenceOf(r, until, dialect.rest), table);
        busy.current = false;
        if (latest.current.id === r.id) setDecoded(answer);
        if (again.current) {
          again.current = false;
          void run();
        }
      };
      if (busy.current) again.current = true;
      else void run();
    },
    [dialect, now, pack, system, vehicle],
  );

  useEffect(() => {
    const watching = phase === "watching";
    request(watching);
    if (!watching) return;
    const timer = setInterval(() => request(true), 1000);
    return () => clearInterval(timer);
  }, [phase, reading.marks, request]);

  const begin = (at: number, lead: number) => {
    if (latest.current.startedAt.startsWith("1970"))
      latest.current = { ...latest.current, startedAt: new Date(Math.round(at - lead)).toISOString() };
    setPhase("watching");
  };

  return {
    phase,
    reading,
    decoded,
    now,
    canUndo: undone.length > 0,
    setInput: (input) => {
      latest.current = { ...latest.current, input };
      setReading(latest.current);
    },
    setRun: (run) => {
      latest.current = { ...latest.current, run };
      setReading(latest.current);
      if (phase !== "ready") void save(latest.current);
    },
    watch: () => {
      begin(Date.now(), 0);
      put(latest.current, false);
    },
    down: (at, kind) => {
      if (phase !== "ready" && phase !== "watching") return;
      begin(at, LEAD_MS);
      const r = latest.current;
      const id = Math.max(0, ...r.marks.map((m) => m.id)) + 1;
      held.current = r.input === "hold" ? id : null;
      const t = Math.max(0, Math.round(at - started()));
      put({ ...r, marks: [...r.marks, kind ? { id, t, kind } : { id, t }] });
    },
    up: (at) => {
      const id = held.current;
      if (id === null) return;
      held.current = null;
      const r = latest.current;
      put(
        {
          ...r,
          marks: r.marks.map((m) => (m.id === id ? { ...m, up: Math.max(m.t + 20, Math.round(at - started())) } : m)),
        },
        false,
      );
    },
    edit: (edit) => put({ ...latest.current, marks: editMarks(latest.current.marks, edit) }),
    undo: () => {
      const marks = undone.at(-1);
      if (!marks) return;
      setUndone(undone.slice(0, -1));
      put({ ...latest.current, marks }, false);
    },
    stop: () => {
      setPhase("stopped");
      put({ ...latest.current, until: Math.round(now()) }, false);
    },
    goOn: () => {
      const r = latest.current;
      const lastSeen = r.until ?? r.marks.reduce((t, m) => Math.max(t, m.up ?? m.t), 0) + TAIL_MS;
      const to = Math.round(now());
      setPhase("watching");
      put({ ...r, until: null, pauses: to > lastSeen ? [...r.pauses, [lastSeen, to]] : r.pauses }, false);
    },
    startOver: async () => {
      await save(latest.current);
      await remove(latest.current);
      const next = blank(data, latest.current.input);
      latest.current = next;
      setReading(next);
      setUndone([]);
      setDecoded(null);
      setPhase("ready");
    },
    load: (marks, until) => {
      const startedAt = new Date(Date.now() - until).toISOString();
      setPhase("stopped");
      put({ ...latest.current, input: "trace", startedAt, marks, until, pauses: [] });
    },
    finish: async () => {
      const r = latest.current;
      const lastSeen = r.marks.reduce((t, m) => Math.max(t, m.up ?? m.t), 0) + TAIL_MS;
      const until = r.until ?? (phase === "interrupted" ? lastSeen : Math.round(now()));
      const table = entriesFor(pack, vehicle, system).map((e) => e.code);
      const { state, codes, memories, complete, confidence, codeConfidence } = await flashWorker().decode(
        dialect,
        evidenceOf(r, until, dialect.rest),
        table,
      );
      const done: Reading = {
        ...r,
        marks: r.input === "hold" || r.input === "trace" ? r.marks.filter((m) => m.up !== undefined) : r.marks,
        until,
        recordedAt: new Date().toISOString(),
        result: { state, codes, memories, complete, confidence, codeConfidence },
      };
      latest.current = done;
      await save(done);
      return done;
    },
  };
}
