import type { Decoded } from "@core/flash/decode";
import type { Dialect } from "@core/flash/dialect";
import { entriesFor } from "@core/pack/scope";
import { editMarks, type MarkEdit } from "@core/record/edit";
import { evidenceOf } from "@core/record/evidence";
import { newReading, wasCleared } from "@core/record/readings";
import { type Input, type Mark, type Reading } from "@core/record/types";
import { newId, readingWriter, remove } from "~/store/db";
import type { JobData } from "~/store/job-data";
import { flashWorker } from "~/workers/flash";

/** Watching is taken to have begun this long before the first mark. */
const LEAD_MS = 600;
/** What came in this time after the last mark was still watched, when the page was closed. */
const TAIL_MS = 1500;
const UNDO_STEPS = 100;
const NOT_STARTED = new Date(0).toISOString();

export type Phase = "ready" | "watching" | "stopped" | "interrupted";

export interface SessionState {
  phase: Phase;
  reading: Reading;
  decoded: Decoded | null;
  /** States of the marks that can be gone back to. */
  undo: readonly Mark[][];
}

/**
 * One reading while it is made: marks in, every one stored as it comes, decoded in the worker as it grows. Outside React, since
 * marks come several a second and only what shows them should be drawn again.
 */
export class ReadingSession {
  state: SessionState;
  private listeners = new Set<() => void>();
  private save = readingWriter();
  /** Wall clock of this session: fixed once, then monotonic, so that a clock that is set in the middle moves no mark. */
  private clock = Date.now() - performance.now();
  private held: number | null = null;
  private decoding = false;
  private again = false;

  constructor(
    private data: JobData,
    private dialect: Dialect,
  ) {
    const { readings, access } = data;
    const usual: Input =
      dialect.advance === "button" ? "press" : dialect.digits.style === "long-short" ? "hold" : "tap";
    // An empty one holds nothing to go on with.
    const stored = readings.findLast(
      (r) => !r.recordedAt && r.system === access.system && (r.marks.length > 0 || r.counts),
    );
    this.state = {
      phase: !stored ? "ready" : stored.until === null ? "interrupted" : "stopped",
      reading: stored ?? this.blank(usual),
      decoded: null,
      undo: [],
    };
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Starts to decode as time goes by; returns the way to end that. */
  run = (): (() => void) => {
    this.decode();
    const timer = setInterval(() => {
      if (this.state.phase === "watching") this.decode();
    }, 1000);
    return () => clearInterval(timer);
  };

  /** ms since the start of watching. */
  now = (): number => Math.max(0, performance.now() + this.clock - this.startedAt);

  setInput = (input: Input): void => this.set({ reading: { ...this.state.reading, input } });

  setRun = (run: Reading["run"]): void => {
    const reading = { ...this.state.reading, run };
    if (this.state.phase === "ready") this.set({ reading });
    else this.store(reading);
  };

  /** Begins to watch without a mark; there is nothing to store yet. */
  watch = (): void => {
    this.set({ reading: this.begun(performance.now(), 0), phase: "watching" });
    this.decode();
  };

  /** A flash begins (or is tapped) at the page's time `at`, ms, as events carry it. */
  down = (at: number, kind?: Mark["kind"]): void => {
    if (this.state.phase !== "ready" && this.state.phase !== "watching") return;
    const reading = this.begun(at, LEAD_MS);
    const id = Math.max(0, ...reading.marks.map((m) => m.id)) + 1;
    this.held = reading.input === "hold" ? id : null;
    const t = Math.max(0, Math.round(at + this.clock - Date.parse(reading.startedAt)));
    this.change({ ...reading, marks: [...reading.marks, kind ? { id, t, kind } : { id, t }] }, "watching");
  };

  /** A held flash ends. */
  up = (at: number): void => {
    const id = this.held;
    if (id === null) return;
    this.held = null;
    const { reading } = this.state;
    const up = (m: Mark) => Math.max(m.t + 20, Math.round(at + this.clock - this.startedAt));
    this.store({ ...reading, marks: reading.marks.map((m) => (m.id === id ? { ...m, up: up(m) } : m)) });
  };

  edit = (edit: MarkEdit): void =>
    this.change({ ...this.state.reading, marks: editMarks(this.state.reading.marks, edit) });

  undo = (): void => {
    const marks = this.state.undo.at(-1);
    if (marks) this.store({ ...this.state.reading, marks }, { undo: this.state.undo.slice(0, -1) });
  };

  stop = (): void => this.store({ ...this.state.reading, until: Math.round(this.now()) }, { phase: "stopped" });

  /** Watches on; the time in between is a pause. */
  goOn = (): void => {
    const { reading } = this.state;
    const from = reading.until ?? this.lastSeen();
    const to = Math.round(this.now());
    const pauses: Reading["pauses"] = to > from ? [...reading.pauses, [from, to]] : reading.pauses;
    this.store({ ...reading, until: null, pauses }, { phase: "watching" });
  };

  startOver = async (): Promise<void> => {
    const { reading } = this.state;
    await this.save(reading);
    await remove(reading);
    this.set({ reading: this.blank(reading.input), phase: "ready", decoded: null, undo: [] });
  };

  /** Takes a whole trace as the reading. */
  load = (marks: Mark[], until: number): void => {
    // When it was taken is not in the file: it counts from now, after whatever was done before.
    const startedAt = new Date().toISOString();
    this.change({ ...this.state.reading, input: "trace", startedAt, marks, until, pauses: [] }, "stopped");
  };

  /** Takes called-out counts, as they are typed so far. */
  setCounts = (counts: string): void => {
    const { reading } = this.state;
    const startedAt = reading.startedAt === NOT_STARTED ? new Date().toISOString() : reading.startedAt;
    this.store({ ...reading, startedAt, counts, until: 0 }, { phase: "stopped" });
  };

  /** The reading with its final result, stored. */
  finish = async (): Promise<Reading> => {
    const { reading, phase } = this.state;
    // What is tapped from here on belongs to no reading.
    this.set({ phase: "stopped" });
    const until = reading.until ?? (phase === "interrupted" ? this.lastSeen() : Math.round(this.now()));
    const { state, codes, memories, complete, confidence, codeConfidence } = await this.ask(reading, until);
    const lengths = reading.input === "hold" || reading.input === "trace";
    const done: Reading = {
      ...reading,
      marks: lengths ? reading.marks.filter((m) => m.up !== undefined) : reading.marks,
      until,
      recordedAt: new Date().toISOString(),
      result: { state, codes, memories, complete, confidence, codeConfidence },
    };
    await this.save(done);
    return done;
  };

  private get startedAt(): number {
    return Date.parse(this.state.reading.startedAt);
  }

  private lastSeen(): number {
    return this.state.reading.marks.reduce((t, m) => Math.max(t, m.up ?? m.t), 0) + TAIL_MS;
  }

  private blank(input: Input): Reading {
    const { job, vehicle, access } = this.data;
    return newReading({
      id: newId(),
      job: job.id,
      vehicle: vehicle.id,
      system: access.system,
      way: access.way.id,
      dialect: this.dialect.id,
      input,
      run: wasCleared(job, access.memory) ? "key-on" : "before",
      startedAt: NOT_STARTED,
    });
  }

  private begun(at: number, lead: number): Reading {
    const { reading } = this.state;
    return reading.startedAt === NOT_STARTED
      ? { ...reading, startedAt: new Date(Math.round(at + this.clock - lead)).toISOString() }
      : reading;
  }

  private set(part: Partial<SessionState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }

  private store(reading: Reading, part: Partial<SessionState> = {}): void {
    this.set({ ...part, reading });
    void this.save(reading);
    this.decode();
  }

  /** Stores a change that can be taken back. */
  private change(reading: Reading, phase = this.state.phase): void {
    this.store(reading, { phase, undo: [...this.state.undo.slice(1 - UNDO_STEPS), this.state.reading.marks] });
  }

  private ask(reading: Reading, until: number): Promise<Decoded> {
    const { access, pack, vehicle } = this.data;
    const table = entriesFor(pack, vehicle, access.system).map((e) => e.code);
    return flashWorker().decode(this.dialect, evidenceOf(reading, until, this.dialect), table);
  }

  /** Decodes the newest state; one at a time, so that a slow answer never queues up others. */
  private decode(): void {
    if (this.decoding) {
      this.again = true;
      return;
    }
    const { reading, phase } = this.state;
    if (reading.startedAt === NOT_STARTED) return;
    this.decoding = true;
    const until = reading.until ?? (phase === "watching" ? this.now() : this.lastSeen() - TAIL_MS);
    void this.ask(reading, until).then((decoded) => {
      this.decoding = false;
      if (this.state.reading.id === reading.id) this.set({ decoded });
      if (this.again) {
        this.again = false;
        this.decode();
      }
    });
  }
}
