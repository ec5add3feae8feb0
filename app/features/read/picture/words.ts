import type { Advice } from "@core/lamp/advice";
import type { FilmProblem } from "~/workers/film-frames";

/** What is wrong, and how to mend it. */
export type Problem = FilmProblem | CameraProblem | "no-lamp" | "no-speech" | "only-even" | "worker";
export type CameraProblem = "refused" | "no-camera" | "busy" | "unplugged" | "no-api";

export const PROBLEMS: Record<Problem, string> = {
  "not-a-film": "This is no film that can be read here. Bring an MP4, MOV or WebM as the camera saved it.",
  "no-picture": "This file holds no picture, only sound or nothing. Bring the film itself.",
  "cannot-decode": "This browser cannot decode this film. Save it as MP4 (H.264) or WebM, or use another browser.",
  broken:
    "This film is broken: its index or its first pictures are missing, as when a recording was cut off. Film again, or take a copy from the camera.",
  "cut-off": "The film breaks off in the middle. What was read up to there is kept.",
  empty: "This file is empty. Copy it from the camera again.",
  "too-long":
    "The film is longer than 45 minutes; the rest was not read. Cut it to the minutes in which the lamp blinks.",
  "no-lamp":
    "No lamp that blinks was found in this film. Draw a box around the lamp, or film again: closer, still, shaded from the sun.",
  "no-speech":
    "What blinks in this film does not talk like a trouble lamp. Draw a box around the right one, or film it closer, still, shaded from the sun.",
  "only-even":
    "What blinks here blinks evenly, as an indicator or a needle that swings does too. Is the box on the trouble lamp? If not, draw one around it; if it is, believe a code only when a second film says the same.",
  refused:
    "The camera is not allowed. Allow it for this page in the browser's address bar, then start again; a film or taps work without it.",
  "no-camera": "There is no camera here. Bring a film that a phone has taken, or tap.",
  busy: "The camera is in use by another program. Close that, then start again.",
  unplugged: "The camera is gone. What was read so far is kept; plug it in and go on, or record the reading.",
  "no-api":
    "This browser gives no camera to this page (it must come over https or from this machine). Bring a film, or tap.",
  worker: "Reading the pictures failed. What was read so far is kept; begin again.",
};

export const ADVICE: Record<Exclude<Advice, null>, string> = {
  elsewhere: "The lamp is out of the picture. Point at it again as before.",
  "hold-still": "Hold still: lean the phone on something.",
  shade: "Shade the lamp: the light around it drowns it.",
  closer: "Come closer: the lamp is too small.",
  weak: "The lamp hardly shows: hold still, shade it, come closer.",
};

/** Of a film that was read: nothing can be changed on it any more. */
export const FILM_ADVICE: Record<Exclude<Advice, null | "elsewhere">, string> = {
  "hold-still": "This film trembles much. If a code stays in doubt, lean the phone on something and film again.",
  shade: "The light around it drowns the lamp in this film. If a code stays in doubt, shade it and film again.",
  closer: "The lamp is small in this film. If a code stays in doubt, come closer and film again.",
  weak: "The lamp hardly shows in this film. If a code stays in doubt, film again: closer, still, shaded.",
};
