import type { Decoded, FilmRead } from "@core/flash/decode";
import type { Dialect } from "@core/flash/dialect/dialect";
import { nothingMore } from "@core/flash/judge/settle";
import { editMarks, nextId, type MarkEdit } from "@core/record/edit";
import { evidenceOf } from "@core/record/evidence";
import { byHand, inputsFor, isPicture, seenWhole, watchOf } from "@core/record/inputs";
import { withBrightness, withChange, withSeenMarks, type Brightness } from "@core/record/pictured";
import { lastMarked, resultFrom, resultOfRest, TAIL_MS } from "@core/record/readings";
import { type Input, type LampRested, type LookedAt, type Mark, type Reading } from "@core/record/types";
import { StoreProblem } from "~/store/box";
import { clock, nowIso } from "~/store/clock";
import { flashWorker } from "~/workers/flash";
import { Answers } from "./answers";
import { NOT_STARTED, type Home } from "./home";

/** Watching is taken to have begun this long before the first mark. */
const LEAD_MS = 600;
const UNDO_STEPS = 100;
/** While a film is gone through, or a camera watched, what it says is read so often, ms. */
const FILM_READ_MS = 6000;
/** And it may take at most about this share of the time. */
const FILM_READ_SHARE = 0.1;
const CAMERA_READ_MS = 1200;
/** What goes on for hours is read so seldom that it takes at most about this share of the time. */
const READ_SHARE = 0.3;

export type Phase = "ready" | "watching" | "stopped" | "interrupted";

export interface SessionState {
  phase: Phase;
  reading: Reading;
  decoded: Decoded | null;
  /** States of the marks that can be gone back to. */
  undo: readonly { marks: Mark[]; corrected?: boolean }[];
  /** Watching ended by itself, since nothing more could be learned. */
  settled: boolean;
  /** Why the browser did not store what is read; it is only here then. */
  unstored: string | null;
  /** Another tab works on this reading: nothing is marked or stored here. */
  elsewhere: boolean;
  /** More was seen than the answer takes in so far: it is worked out. */
  busy: boolean;
  /** What was read could not be worked out, several times in a row: it is kept, and asked again. */
  stuck: boolean;
}

/** What a reading says, and the marks that its pictures tell; null where they were made by hand. */
interface Answer {
  decoded: Decoded;
  marks: Mark[] | null;
}

/**
 * One reading while it is made: marks in, every one stored as it comes, decoded in the worker as it grows. Outside React, since
 * marks come several a second and only what shows them should be drawn again.
 */
export class ReadingSession {
  state: SessionState;
  private listeners = new Set<() => void>();
  /** Wall clock of this session: fixed once, then monotonic, so that a clock that is set in the middle moves no mark. */
  private wall = clock.now() - clock.ticks();
  private held: number | null = null;
  private answers = new Answers({
    ask: () => this.question(),
    busy: (busy) => this.state.busy !== busy && this.set({ busy }),
    stuck: (stuck) => this.state.stuck !== stuck && this.set({ stuck }),
  });

  /** Pictures seen before a camera was taken up again, and when that was. */
  private before: { t: number[]; y: number[] } = { t: [], y: [] };
  private from = 0;
  /** Goes on although it is settled, since the person said so. */
  private onward = false;
  private picturesReadAt = -Infinity;
  /** It is recorded, or just being so: whatever is answered later must not write over that. */
  private finished = false;
  private recorded: Reading | null = null;
  /** What the last answer was given of: these marks and counts, watched until then. */
  private answeredOf: { marks: readonly Mark[]; counts?: string; withKey?: boolean; until: number } | null = null;

  /** @param first how the lamp is watched unless something else is chosen; without, as suits the dialect */
  constructor(
    public home: Home,
    first?: Input,
  ) {
    const { dialect, stored } = home;
    const usual = first ?? inputsFor(dialect).find(byHand) ?? "counts";
    // A film that was broken off is what was read of it; anything else can be gone on with.
    const reading =
      stored?.input === "film" && stored.until === null
        ? { ...stored, until: lastOf(stored.levels?.t ?? []) }
        : (stored ?? home.blank(usual));
    this.state = {
      phase: !stored ? "ready" : reading.until === null ? "interrupted" : "stopped",
      reading,
      decoded: null,
      undo: [],
      settled: false,
      unstored: null,
      elsewhere: false,
      busy: false,
      stuck: false,
    };
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Says whether another tab works on this reading. */
  setElsewhere = (elsewhere: boolean): void => {
    if (elsewhere !== this.state.elsewhere) this.set({ elsewhere });
  };

  /** Takes what another tab has stored of it, to go on with that. */
  takeOver = (stored: Reading): void => {
    const phase = stored.recordedAt ? "stopped" : stored.until === null ? "interrupted" : "stopped";
    this.finished = stored.recordedAt !== null;
    this.set({ reading: stored, phase, undo: [], decoded: null, settled: false, elsewhere: false });
    this.decode();
  };

  /** Starts to decode as time goes by; returns the way to end that. */
  run = (): (() => void) => {
    this.decode();
    return clock.every(1000, () => {
      if (this.state.phase === "watching" && !isPicture(this.state.reading.input)) this.decode();
    });
  };

  /** ms since the start of watching. */
  now = (): number => Math.max(0, clock.ticks() + this.wall - this.startedAt);

  setInput = (input: Input): void => this.set({ reading: { ...this.state.reading, input } });

  /** Reads on by another dialect, where none was known before. */
  become = (home: Home): void => {
    if (home.dialect === this.home.dialect && home.speaks === this.home.speaks) return;
    // What was said by another dialect is no answer.
    const same = home.dialect === this.home.dialect && ![home.speaks, this.home.speaks].includes("unknown");
    const decoded = same ? this.state.decoded : null;
    this.home = home;
    this.set({ reading: { ...this.state.reading, dialect: home.dialect.id }, decoded });
    this.decode();
  };

  setRun = (run: Reading["run"]): void => {
    const reading = { ...this.state.reading, run };
    if (this.state.phase === "ready") this.set({ reading });
    else this.store(reading);
  };

  /** Begins to watch without a mark; there is nothing to store yet. @param withKey the key goes on at this moment */
  watch = (withKey = false): void => {
    if (this.state.phase !== "ready") return;
    const reading = this.begun(clock.ticks(), 0);
    this.set({ reading: withKey ? { ...reading, keyOn: true } : reading, phase: "watching" });
    this.decode();
  };

  /** Counting began as the key went on, or not. */
  setWithKey = (keyOn: boolean): void => {
    const { keyOn: _, ...rest } = this.state.reading;
    const reading: Reading = keyOn ? { ...rest, keyOn } : rest;
    if (this.state.phase === "ready") this.set({ reading });
    else this.store(reading);
  };

  /** Which lamp it was, or where the lead sat: looked at once more. */
  setLooked = (looked: LookedAt): void => {
    const reading = { ...this.state.reading, looked: { ...this.state.reading.looked, ...looked } };
    if (this.state.phase === "ready") this.set({ reading });
    else this.store(reading);
  };

  /** What the lamp did that did not blink. */
  setRested = (rested: LampRested): void => this.set({ reading: { ...this.state.reading, rested } });

  /** A flash begins (or is tapped) at the page's time `at`, ms, as events carry it. */
  down = (at: number, kind?: Mark["kind"]): void => {
    if (this.state.phase !== "ready" && this.state.phase !== "watching") return;
    const reading = this.begun(at, leadOf(this.home.dialect));
    const id = nextId(reading.marks);
    this.held = reading.input === "hold" ? id : null;
    const t = Math.max(0, Math.round(at + this.wall - Date.parse(reading.startedAt)));
    const { rested: _, ...blinks } = reading;
    this.change({ ...blinks, marks: [...reading.marks, kind ? { id, t, kind } : { id, t }] }, "watching");
  };

  /** A held flash ends. */
  up = (at: number): void => {
    const id = this.held;
    if (id === null) return;
    this.held = null;
    const { reading } = this.state;
    const up = (m: Mark) => Math.max(m.t + 20, Math.round(at + this.wall - this.startedAt));
    this.store({ ...reading, marks: reading.marks.map((m) => (m.id === id ? { ...m, up: up(m) } : m)) });
  };

  edit = (edit: MarkEdit): void => {
    const { reading } = this.state;
    const corrected = isPicture(reading.input) || undefined;
    this.change({ ...reading, marks: editMarks(reading.marks, edit), ...(corrected && { corrected }) });
  };

  undo = (): void => {
    const last = this.state.undo.at(-1);
    if (last) this.store({ ...this.state.reading, ...last }, { undo: this.state.undo.slice(0, -1) });
  };

  stop = (): void => {
    const { reading, phase } = this.state;
    if (phase === "watching") this.store({ ...reading, until: this.watchedUntil() }, { phase: "stopped" });
  };

  /** Watches on; the time in between is a pause. */
  goOn = (): void => {
    const { reading } = this.state;
    const from = reading.until ?? this.lastSeen();
    const to = Math.round(this.now());
    const pauses: Reading["pauses"] = to > from ? [...reading.pauses, [from, to]] : reading.pauses;
    this.onward = true;
    this.store({ ...reading, until: null, pauses }, { phase: "watching", settled: false });
  };

  /** Begins to take what a film or camera shows; a camera goes on where an earlier watch was broken off. */
  beginPicture = (input: Input): void => {
    const { reading, phase } = this.state;
    const onward = input === "camera" && reading.input === "camera" && reading.startedAt !== NOT_STARTED;
    if (onward) {
      this.before = reading.levels ?? { t: [], y: [] };
      this.from = this.now();
      if (phase !== "watching") this.goOn();
      return;
    }
    this.before = { t: [], y: [] };
    this.from = 0;
    this.onward = false;
    // Most films are through before what they say so far could be worked out.
    this.picturesReadAt = input === "film" ? performance.now() : -Infinity;
    const startedAt = nowIso();
    const { levels: _, corrected: __, ...rest } = reading;
    this.set({
      reading: { ...rest, input, startedAt, marks: [], pauses: [], until: null },
      phase: "watching",
      decoded: null,
      undo: [],
      settled: false,
    });
  };

  /** The lamp's brightness in all pictures so far, times from the first one, and where the pictures have come to. */
  seePicture = (seen: Brightness, at: number): void => {
    const { phase } = this.state;
    // What a person has corrected stays as it is. After the end another lamp may be picked from the same pictures.
    if (
      (phase !== "watching" && phase !== "stopped") ||
      this.state.reading.corrected ||
      !isPicture(this.state.reading.input)
    )
      return;
    const reading = withBrightness(this.state.reading, this.before, this.from, seen);
    this.pictured = this.from + at;
    if (phase === "stopped") return this.store(reading);
    this.set({ reading });
    // A film is decoded faster than it could be read over and over: its reading takes the processor from its decoding.
    const film = reading.input === "film";
    const pause = Math.max(
      film ? FILM_READ_MS : CAMERA_READ_MS,
      this.answers.cost / (film ? FILM_READ_SHARE : READ_SHARE),
    );
    if (performance.now() - this.picturesReadAt < pause) return;
    this.picturesReadAt = performance.now();
    this.decode();
  };

  /** The lamp has changed in the newest picture: it shows at once, and is judged when all pictures are. */
  seeChange = (lit: 0 | 1, t: number): void => {
    const { reading, phase } = this.state;
    if (phase !== "watching" || reading.corrected) return;
    const away = this.home.dialect.rest === "lit" ? 0 : 1;
    this.set({ reading: withChange(reading, lit === away, Math.round(this.from + t)) });
  };

  /** No more pictures come. */
  endPicture = (at: number | null): void => {
    const { reading, phase } = this.state;
    if (phase !== "watching") return;
    // No lamp was seen: there is nothing to keep.
    if (!reading.levels?.t.length)
      return this.set({ reading: this.home.blank(reading.input), phase: "ready", decoded: null });
    const until = Math.round(this.from + (at ?? Math.max(0, (this.pictured ?? 0) - this.from)));
    this.store({ ...reading, until: Math.max(until, lastOf(reading.levels?.t ?? [])) }, { phase: "stopped" });
  };

  startOver = async (): Promise<void> => {
    const { reading } = this.state;
    await this.home.drop(reading);
    this.onward = false;
    this.finished = false;
    this.recorded = null;
    this.set({ reading: this.home.blank(reading.input), phase: "ready", decoded: null, undo: [], settled: false });
  };

  /** Takes a whole trace as the reading. */
  load = (marks: Mark[], until: number): void => {
    // When it was taken is not in the file: it counts from now, after whatever was done before.
    const startedAt = nowIso();
    this.change({ ...this.state.reading, input: "trace", startedAt, marks, until, pauses: [] }, "stopped");
  };

  /** Takes called-out counts, as they are typed so far. */
  setCounts = (counts: string): void => {
    const { reading } = this.state;
    const startedAt = reading.startedAt === NOT_STARTED ? nowIso() : reading.startedAt;
    this.store({ ...reading, startedAt, counts, until: 0 }, { phase: "stopped" });
  };

  /**
   * The reading with its final result, stored. Where that fails it can be tried again; once stored it stays the same.
   * @param store keeps it, where more than the reading is to be kept with it
   */
  finish = async (store: (done: Reading) => Promise<unknown> = this.home.save): Promise<Reading> => {
    if (this.recorded) return this.recorded;
    const { reading, phase } = this.state;
    // What is tapped or answered from here on belongs to no reading.
    this.finished = true;
    this.set({ phase: "stopped" });
    try {
      const nothing = !reading.marks.length && !reading.counts?.trim() && !reading.levels?.t.length;
      const watched = () => (nothing ? Math.round(this.now()) : this.watchedUntil());
      const stopped = reading.until ?? (phase === "interrupted" ? this.lastSeen() : watched());
      const { decoded, marks } = nothing ? { decoded: null, marks: null } : await this.ask(reading, stopped);
      const { lengths } = watchOf(reading.input);
      const seen =
        lengths && !marks ? seenWhole(reading.marks, stopped) : { marks: marks ?? reading.marks, until: stopped };
      const { until } = seen;
      const done: Reading = {
        ...reading,
        ...seen,
        recordedAt: nowIso(),
        result: decoded ? resultFrom(decoded) : resultOfRest(reading.rested ?? "dark", until),
      };
      // What is still on its way to the store comes before.
      if (reading.startedAt !== NOT_STARTED && store !== this.home.save) await this.home.save(reading);
      await store(done);
      this.recorded = done;
      return done;
    } catch (error) {
      this.finished = false;
      throw error;
    }
  };

  /** Stores it once more for whoever takes it over; nothing is written after that, unless {@link takeBack} says that nobody did. */
  handOver = async (): Promise<void> => {
    this.finished = true;
    try {
      await this.home.save(this.state.reading);
    } catch (error) {
      this.finished = false;
      throw error;
    }
  };

  takeBack = (): void => {
    this.finished = false;
    this.decode();
  };

  private get startedAt(): number {
    return Date.parse(this.state.reading.startedAt);
  }

  /** Whoever has marked nothing since the last answer has watched as long as it was true. */
  private watchedUntil(): number {
    const { marks } = this.state.reading;
    return Math.round(this.answeredOf?.marks === marks ? this.answeredOf.until : this.now());
  }

  private lastSeen(): number {
    return lastMarked(this.state.reading.marks) + TAIL_MS;
  }

  private begun(at: number, lead: number): Reading {
    const { reading } = this.state;
    return reading.startedAt === NOT_STARTED
      ? { ...reading, startedAt: new Date(Math.round(at + this.wall - lead)).toISOString() }
      : reading;
  }

  private set(part: Partial<SessionState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }

  private store(reading: Reading, part: Partial<SessionState> = {}): void {
    if (this.finished || this.state.elsewhere) return;
    this.set({ ...part, reading });
    this.keep(reading);
    this.decode();
  }

  /** Stores what is read so far; that it failed is told, and the next time it may succeed. */
  private keep(reading: Reading): void {
    const told = (unstored: string | null) => this.state.unstored !== unstored && this.set({ unstored });
    void this.home.save(reading).then(
      () => told(null),
      (error: unknown) => told(whyNot(error)),
    );
  }

  /** Stores a change that can be taken back. */
  private change(reading: Reading, phase = this.state.phase): void {
    const { marks, corrected } = this.state.reading;
    this.store(reading, { phase, undo: [...this.state.undo.slice(1 - UNDO_STEPS), { marks, corrected }] });
  }

  /** Where the pictures have come to, ms from the start of the reading. */
  private pictured: number | null = null;

  private async ask(reading: Reading, until: number): Promise<Answer> {
    const { dialect, table } = this.home;
    const evidence = evidenceOf(reading, until, dialect);
    if (evidence.mode !== "levels")
      return { decoded: await flashWorker().decode(dialect, evidence, table), marks: null };
    const { decoded, marks }: FilmRead = await flashWorker().readFilm(dialect, evidence, table);
    return { decoded, marks: marks.map((m, i) => ({ id: i + 1, ...m })) };
  }

  /** Decodes the newest state. While a hand marks flash after flash, the next answer can wait a moment. */
  private decode(): void {
    const { phase, reading } = this.state;
    this.answers.next(phase === "watching" && byHand(reading.input));
  }

  private question(): Promise<void> | null {
    const { reading, phase } = this.state;
    if (reading.startedAt === NOT_STARTED || this.finished) return null;
    // Marks by hand wait for their dialect; those of pictures are found by the way.
    if (this.home.speaks === "unknown" && reading.marks.length && !isPicture(reading.input)) return null;
    const pictured = isPicture(reading.input) ? this.pictured : null;
    const until = reading.until ?? pictured ?? (phase === "watching" ? this.now() : lastMarked(reading.marks));
    return this.ask(reading, until).then((answer) => this.takeAnswer(answer, reading, until));
  }

  private takeAnswer({ decoded, marks }: Answer, of: Reading, until: number): void {
    const now = this.state.reading;
    if (this.finished || now.id !== of.id || now.startedAt !== of.startedAt) return;
    if (marks && !now.corrected) {
      this.set({ reading: withSeenMarks(now, marks, until) });
      this.keep(this.state.reading);
    }
    // Want of taps takes nothing back: whoever taps no more has stopped looking, and the lamp goes on.
    const last = this.answeredOf;
    const quiet =
      !isPicture(of.input) && last?.marks === of.marks && last.counts === of.counts && last.withKey === of.keyOn;
    if (quiet && this.state.decoded?.complete && !decoded.complete) return;
    this.answeredOf = { marks: of.marks, counts: of.counts, withKey: of.keyOn, until };
    this.set({ decoded });
    this.settle(decoded);
  }

  /** Watching on would tell nothing new: it ends by itself, once. */
  private settle(decoded: Decoded): void {
    const { phase, reading } = this.state;
    if (phase !== "watching" || this.onward || this.home.speaks !== "given" || !nothingMore(decoded)) return;
    if (reading.input === "film") return;
    this.set({ settled: true });
    if (isPicture(reading.input)) this.endPicture(null);
    else this.stop();
  }
}

/**
 * Who begins to tap has watched before that. Where the list is shown once, they began before it, with the key; where it goes round, they
 * may have come upon it.
 */
function leadOf({ loopFrom, advance, phases, gaps }: Dialect): number {
  if (loopFrom !== null || advance === "button") return LEAD_MS;
  return LEAD_MS + (phases[0]?.kind === "steady" ? phases[0].ms : 0) + gaps.code;
}

/** A store that fails says why in words; anything else that fails is told of too. */
export const whyNot = (error: unknown): string =>
  error instanceof StoreProblem ? error.message : "This browser lost hold of its store, so it was not saved.";

const lastOf = (list: readonly number[]): number => Math.ceil(list.at(-1) ?? 0);
