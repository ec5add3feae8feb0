import type { Advice } from "@core/lamp/advice";
import type { CameraProblem } from "~/store/camera";
import type { FilmProblem } from "~/workers/film-frames";

/** What is wrong, and how to mend it. */
export type Problem = FilmProblem | CameraProblem | "no-lamp" | "no-speech" | "only-even" | "worker";

export const PROBLEMS: Record<Problem, string> = {
  "not-a-film": "This file can't be read as a film. Bring an MP4, MOV or WebM, just as the camera saved it.",
  "no-picture": "There is no picture in this file. Bring the film itself.",
  "cannot-decode": "This browser can't play this film. Save it as MP4 (H.264) or WebM, or try another browser.",
  broken:
    "This film is damaged: its start or its index is missing, as when a recording was cut off. Copy it from the camera again, or film again.",
  "cut-off": "The film breaks off in the middle. What was read up to there is kept.",
  empty: "This file is empty. Copy it from the camera again.",
  "too-long":
    "The film is longer than 45 minutes; the rest was not read. Cut it to the minutes in which the lamp blinks.",
  "no-lamp":
    "No lamp that blinks was found in this film. Draw a box around the lamp, or film again: closer, still, shaded from the sun.",
  "no-speech":
    "What blinks in this film is not a trouble lamp giving codes. Draw a box around the right lamp, or film it again: closer, still, shaded from the sun.",
  "only-even":
    "What blinks here blinks evenly, as an indicator or a swinging needle does. Is the box on the trouble lamp? If not, draw one around it. If it is, trust a code only when a second film says the same.",
  refused:
    "The camera is not allowed. Allow it for this page in the browser's address bar, then start again. A film or taps work without it.",
  "no-camera": "No camera found. Bring a film from a phone, or tap.",
  busy: "Another program is using the camera. Close it, then start again.",
  unplugged: "The camera was disconnected. What was read so far is kept: plug it in and go on, or record the reading.",
  "no-api":
    "This browser does not let this page use a camera (it has to come over https, or from this machine). Bring a film, or tap.",
  worker: "Reading the pictures failed. What was read so far is kept. Start again.",
};

export const ADVICE: Record<Exclude<Advice, null>, string> = {
  elsewhere: "The lamp is out of the picture. Point the camera at it again.",
  "hold-still": "Hold still: lean the phone on something.",
  shade: "Shade the lamp: the light around it drowns it out.",
  closer: "Come closer: the lamp is too small.",
  weak: "The lamp hardly shows: hold still, shade it, come closer.",
};

/** Of a film that was read: nothing can be changed on it any more. */
export const FILM_ADVICE: Record<Exclude<Advice, null | "elsewhere">, string> = {
  "hold-still":
    "The picture shakes a lot in this film. If a code stays in doubt, lean the phone on something and film it again.",
  shade: "Light around the lamp drowns it out in this film. If a code stays in doubt, shade it and film it again.",
  closer: "The lamp is small in this film. If a code stays in doubt, come closer and film again.",
  weak: "The lamp hardly shows in this film. If a code stays in doubt, film again: closer, still, shaded.",
};
