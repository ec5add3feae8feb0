import { proxy, transfer } from "comlink";
import { turned, type Box } from "@core/lamp/patch";
import type { FilmInfo } from "~/workers/film-frames";
import { lampWorker } from "~/workers/lamp";
import type { LampEvent, LampSeen, Seen } from "~/workers/lamp.worker";
import type { Home } from "../home";
import type { ReadingSession, SessionState } from "../session";
import { openCamera } from "~/store/camera";
import { holdCamera, type Held } from "./camera";
import { bringFrames } from "./element-frames";
import { bySpeech, type Ranking } from "./ranking";
import type { Problem } from "./words";

export interface PictureState {
  phase: "idle" | "opening" | "watching" | "ended";
  source: "film" | "camera";
  problem: Problem | null;
  film: FilmInfo | null;
  /** Name of the film, and its address for the preview. */
  name: string;
  url: string | null;
  stream: MediaStream | null;
  held: Held | null;
  seen: Seen | null;
  /** Which lamp goes to each session, by the session's place; null where none does. */
  chosen: (number | null)[];
  /** Patches that blink and do not talk like a lamp, where another does: a needle, an indicator. They are not offered. */
  quiet: readonly number[];
  /** The person said which; else the likeliest are taken. */
  confirmed: boolean;
  drawn: boolean;
  /** Which of several patches speaks is worked out. */
  judging: boolean;
  /** Wall clock of the reading of a film, ms. */
  took: number;
  /** The film that was asked to be kept of a camera's watch. */
  kept: Blob | null;
  /** Whether it is stored with its reading; null where nothing is kept, or not yet. */
  stored: "stored" | "no-room" | null;
  /** The page was hidden for so long while a camera was watched, ms. */
  hidden: number;
}

const IDLE: PictureState = {
  phase: "idle",
  source: "film",
  problem: null,
  film: null,
  name: "",
  url: null,
  stream: null,
  held: null,
  seen: null,
  chosen: [],
  quiet: [],
  confirmed: false,
  drawn: false,
  judging: false,
  took: 0,
  kept: null,
  stored: null,
  hidden: 0,
};

/** Who speaks the dialect best is asked again so often while a camera is watched, ms. */
const RANK_MS = 15_000;
/** Pictures that wait while the worker searches one for lamps: a third of a second. */
const BUFFER = 12;
/** So long the last of them are waited for when it ends, ms. */
const LET_GO_MS = 1000;

/** What takes what is seen of one lamp. `home`: where what is read belongs; null where it is kept elsewhere. */
export type Watcher = Pick<ReadingSession, "beginPicture" | "seePicture" | "seeChange" | "endPicture"> & {
  home: Home | null;
  state: Pick<SessionState, "phase"> & Partial<Pick<SessionState, "reading">>;
};

/** A film or a camera that is watched: pictures to a worker, lamps to the sessions that read them. */
export class PictureWatch {
  state = IDLE;
  /** Shows the film or camera; the fall-back way takes its pictures from it. */
  video: HTMLVideoElement | null = null;
  private listeners = new Set<() => void>();
  private worker: ReturnType<typeof lampWorker> | null = null;
  private run = 0;
  private rankedAt = -Infinity;
  private file: File | null = null;
  private recorder: MediaRecorder | null = null;
  private stopFallback: (() => void) | null = null;
  /** Settles when the worker has taken the last picture of a camera. */
  private watched: Promise<unknown> | null = null;

  /** @param sessions one for each lamp that is asked for, the first one always read */
  constructor(
    private sessions: () => readonly Watcher[],
    private rank: (lamps: readonly LampSeen[], until: number) => Promise<Ranking> = (lamps, until) =>
      bySpeech(lamps, until, this.sessions()[0].home!),
  ) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Reads a film from its beginning; `box` (in the picture as coded) is where a person saw the lamp. */
  openFilm = async (file: File, box: Box | null = null): Promise<void> => {
    this.close();
    const run = this.run;
    this.file = file;
    this.set({
      ...IDLE,
      phase: "opening",
      source: "film",
      name: file.name,
      url: file.size ? URL.createObjectURL(file) : null,
      drawn: box !== null,
    });
    this.worker = lampWorker();
    const started = performance.now();
    const tell = (event: LampEvent) => run === this.run && this.take(event);
    try {
      const able = "VideoDecoder" in window;
      const end = await (able ? this.worker.api.readFilm(file, box, proxy(tell)) : this.playFilm(box, tell));
      if (run !== this.run) return;
      const none = !end.problem && !end.cancelled && !end.seen?.lamps.length;
      this.set({ phase: "ended", problem: none ? "no-lamp" : end.problem, took: performance.now() - started });
      this.endWorker();
      if (end.seen) await this.takeSeen(end.seen, true);
      if (run !== this.run) return;
      if (this.state.film) for (const s of this.sessions()) s.endPicture(end.seen?.at ?? null);
    } catch {
      if (run === this.run) this.fail("worker");
    }
    this.endWorker();
  };

  /** The element that shows the pictures. */
  show = (video: HTMLVideoElement | null): void => {
    this.video = video;
  };

  /** Goes to a place in the film; false where there is no film to go through. */
  seek = (ms: number): boolean => {
    if (!this.video || this.state.source !== "film" || this.state.phase !== "ended") return false;
    this.video.currentTime = ms / 1000;
    return true;
  };

  /** Watches with the camera. @param keep the film is kept; else as it was before */
  startCamera = async (keep = this.keeping): Promise<void> => {
    this.close();
    const run = this.run;
    this.keeping = keep;
    this.set({ ...IDLE, phase: "opening", source: "camera" });
    const stream = await openCamera();
    if (run !== this.run) {
      if (typeof stream !== "string") for (const t of stream.getTracks()) t.stop();
      return;
    }
    if (typeof stream === "string") return this.set({ phase: "idle", problem: stream });
    const [track] = stream.getVideoTracks();
    this.worker = lampWorker();
    this.set({ stream, phase: "watching", film: sizeOf(track) });
    for (const s of this.sessions()) s.beginPicture("camera");
    if (keep) this.closed = this.record(stream);
    void holdCamera(track).then((held) => run === this.run && this.set({ held }));
    track.addEventListener("ended", () => run === this.run && this.stop("unplugged"));
    const tell = (event: LampEvent) => run === this.run && this.take(event);
    document.addEventListener("visibilitychange", this.onHidden);
    const Processor = (
      window as {
        MediaStreamTrackProcessor?: new (of: { track: MediaStreamTrack; maxBufferSize: number }) => {
          readable: ReadableStream<VideoFrame>;
        };
      }
    ).MediaStreamTrackProcessor;
    if (!Processor) {
      await this.worker.api.begin(null, true, proxy(tell));
      const wait = setInterval(() => {
        if (!this.video && run === this.run) return;
        clearInterval(wait);
        if (this.video && this.worker && run === this.run) this.stopFallback = bringFrames(this.video, this.worker.api);
      }, 50);
      return;
    }
    const { readable } = new Processor({ track, maxBufferSize: BUFFER });
    this.watched = this.worker.api
      .watchCamera(transfer(readable, [readable]), null, proxy(tell))
      .catch(() => run === this.run && this.fail("worker"));
  };

  /** Ends the watch; what was read is kept. */
  stop = (problem: Problem | null = null): void => {
    const { seen, source, phase } = this.state;
    if (phase !== "watching" && phase !== "opening") return;
    this.run++;
    if (source === "camera" || phase === "watching") for (const s of this.sessions()) s.endPicture(seen?.at ?? null);
    this.halt();
    this.set({ phase: "ended", problem, judging: false });
  };

  /** Lets go of everything, when another way to watch is taken. */
  close = (): void => {
    this.run++;
    this.halt();
    if (this.state.url) URL.revokeObjectURL(this.state.url);
    this.file = null;
    this.rankedAt = -Infinity;
    this.set(IDLE);
  };

  /** The lamp of a session is this one; none of the others may have it too. */
  choose = (session: number, lamp: number | null): void => {
    const chosen = this.state.chosen.map((c, i) => (i === session ? lamp : c === lamp ? null : c));
    this.set({ chosen, confirmed: true });
    this.feed(this.state.seen);
  };

  /** The person has drawn where the lamp is, in the picture as it is shown: a film is read again, a camera goes on from here. */
  draw = (box: Box): void => {
    if (this.state.source === "film") {
      if (!this.file) return;
      const back = (360 - (this.state.film?.rotation ?? 0)) % 360;
      void this.openFilm(this.file, turned(box, back as 0 | 90 | 180 | 270));
      return;
    }
    this.set({ drawn: true, confirmed: false });
    // A worker that is gone by then was told of.
    void this.worker?.api.draw(box).catch(() => undefined);
  };

  private keeping = false;
  /** Settles when the film of the camera that was watched last is closed and stored. */
  closed: Promise<void> = Promise.resolve();

  private onHidden = (): void => {
    if (document.visibilityState === "hidden") this.hiddenAt = performance.now();
    else if (this.hiddenAt) {
      this.set({ hidden: this.state.hidden + performance.now() - this.hiddenAt });
      this.hiddenAt = 0;
    }
  };
  private hiddenAt = 0;

  private set(part: Partial<PictureState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }

  private fail(problem: Problem): void {
    for (const s of this.sessions()) s.endPicture(this.state.seen?.at ?? null);
    this.halt();
    this.set({ phase: "ended", problem, judging: false });
  }

  private halt(): void {
    document.removeEventListener("visibilitychange", this.onHidden);
    this.stopFallback?.();
    this.stopFallback = null;
    if (this.recorder?.state === "recording") this.recorder.stop();
    this.recorder = null;
    for (const t of this.state.stream?.getTracks() ?? []) t.stop();
    this.endWorker();
  }

  /** Pictures of a camera that are on their way are let go of first: it has ended, so there are few. */
  private endWorker(): void {
    const { worker, watched } = this;
    this.worker = null;
    this.watched = null;
    if (!worker || !watched) return worker?.end();
    void Promise.race([watched, new Promise((done) => setTimeout(done, LET_GO_MS))]).then(() => worker.end());
  }

  private take(event: LampEvent): void {
    if (event.kind === "opened") {
      for (const s of this.sessions()) s.beginPicture("film");
      this.set({ film: event.film, phase: "watching" });
    } else if (event.kind === "change") {
      const at = this.state.chosen.indexOf(event.id);
      if (at >= 0) this.sessions()[at]?.seeChange(event.lit, event.t);
    } else void this.takeSeen(event.seen, false);
  }

  private async takeSeen(seen: Seen, last: boolean): Promise<void> {
    const run = this.run;
    const known = this.state.chosen.filter((id) => id !== null && seen.lamps.some((l) => l.id === id));
    this.set({ seen });
    const wanted = Math.min(this.sessions().length, seen.lamps.length);
    // A film is read faster than its lamps could be judged: that is done at its end.
    const due = last || (this.state.source === "camera" && seen.at - this.rankedAt > RANK_MS);
    const ask = !this.state.confirmed && due && (seen.lamps.length > 1 || (last && seen.lamps.length > 0));
    if (ask) {
      this.rankedAt = seen.at;
      this.set({ judging: true });
      const { order, speech, doubtful } = await this.rank(seen.lamps, seen.at);
      if (run !== this.run) return;
      this.set({ judging: false });
      if (this.state.confirmed) return;
      // What blinks evenly is offered where a lamp is still looked for.
      const found = order.length >= this.sessions().length ? order : [...order, ...doubtful];
      const quiet = speech !== "none" ? seen.lamps.map((l) => l.id).filter((id) => !found.includes(id)) : [];
      this.set({ chosen: this.sessions().map((_, i) => order[i] ?? null), quiet });
      if (last && speech !== "words" && !this.state.problem)
        this.set({ problem: speech === "even" ? "only-even" : "no-speech" });
    } else if (!this.state.confirmed && known.length < wanted)
      this.set({ chosen: this.sessions().map((_, i) => seen.lamps[i]?.id ?? null) });
    this.feed(seen);
  }

  private feed(seen: Seen | null): void {
    if (!seen) return;
    for (const [i, session] of this.sessions().entries()) {
      const lamp = seen.lamps.find((l) => l.id === this.state.chosen[i]);
      if (!lamp) continue;
      // Picked after the end, for a session that had none.
      const late = this.state.phase === "ended" && session.state.phase === "ready";
      if (late) session.beginPicture(this.state.source);
      session.seePicture(lamp, seen.at);
      if (late) session.endPicture(seen.at);
    }
  }

  /** A browser that cannot decode for a worker plays the film, in true time. */
  private async playFilm(
    box: Box | null,
    tell: (event: LampEvent) => void,
  ): Promise<{ problem: Problem | null; seen: Seen | null; cancelled: boolean }> {
    const { api } = this.worker!;
    const { url } = this.state;
    while (!this.video) await new Promise((done) => setTimeout(done, 20));
    const { video } = this;
    const failed = await new Promise<boolean>((done) => {
      video.addEventListener("loadeddata", () => done(false), { once: true });
      video.addEventListener("error", () => done(true), { once: true });
      if (video.src !== url) video.src = url!;
      if (video.error) done(true);
      if (video.readyState >= 2) done(false);
    });
    if (failed) return { problem: "not-a-film", seen: null, cancelled: false };
    await api.begin(box, false, proxy(tell));
    tell({
      kind: "opened",
      film: { width: video.videoWidth, height: video.videoHeight, rotation: 0, duration: video.duration * 1000 },
    });
    this.stopFallback = bringFrames(video, api);
    video.currentTime = 0;
    const ended = new Promise((done) => video.addEventListener("ended", done, { once: true }));
    await video.play();
    await ended;
    return { problem: null, seen: await api.stop(), cancelled: false };
  }

  /** Films what is watched until that ends, then stores it with the reading that it belongs to. */
  private async record(stream: MediaStream): Promise<void> {
    const [{ home, state }] = this.sessions();
    const recorder = (this.recorder = new MediaRecorder(stream));
    const parts: Blob[] = [];
    recorder.addEventListener("dataavailable", (e) => parts.push(e.data));
    const ended = new Promise((done) => recorder.addEventListener("stop", done, { once: true }));
    recorder.start(1000);
    await ended;
    const kept = new Blob(parts, { type: parts[0]?.type || "video/webm" });
    // Shown where its watch is still on the page.
    const mine = () => this.state.stream === stream;
    if (mine()) this.set({ kept });
    if (!home?.keep || !state.reading || !kept.size) return;
    const ok = await home.keep(kept, state.reading);
    if (mine()) this.set({ stored: ok ? "stored" : "no-room" });
  }
}

function sizeOf(track: MediaStreamTrack): FilmInfo {
  const { width = 1280, height = 720 } = track.getSettings();
  return { width, height, rotation: 0, duration: 0 };
}
