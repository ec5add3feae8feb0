import { Pause, Play } from "lucide-react";
import { useEffect, useState } from "react";
import { Label } from "react-aria-components/Label";
import { ProgressBar } from "react-aria-components/ProgressBar";
import { Slider, SliderOutput, SliderThumb, SliderTrack } from "react-aria-components/Slider";
import styled from "styled-components";
import { filmName, megabytes } from "~/store/films";
import { saveFile } from "~/store/save-file";
import { Button } from "~/ui/Button";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import type { PictureWatch } from "./picture-watch";
import { Preview } from "./Preview";
import { offered } from "./ranking";
import { usePicture } from "./use-picture";
import { ADVICE, FILM_ADVICE, PROBLEMS } from "./words";

const Halves = styled.div`
  display: grid;
  gap: 12px;
  @media (min-width: 760px) {
    grid-template-columns: minmax(300px, 45%) minmax(220px, 1fr);
    gap: 18px;
  }
`;

const Bar = styled(ProgressBar)`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  > div {
    grid-column: 1 / -1;
    height: 12px;
    border-radius: 6px;
    background: var(--rule);
    overflow: hidden;
    div {
      height: 100%;
      background: var(--petrol);
    }
  }
`;

const Scrub = styled(Slider)`
  display: grid;
  grid-template-columns: 1fr auto;
  min-width: 0;
  .track {
    grid-column: 1 / -1;
    height: 48px;
    position: relative;
    cursor: pointer;
    &::before {
      content: "";
      position: absolute;
      inset: 21px 0;
      border-radius: 3px;
      background: var(--line);
    }
  }
  .thumb {
    top: 50%;
    width: 28px;
    height: 28px;
    border-radius: 50%;
    background: var(--petrol);
    border: 3px solid var(--sheet);
    &[data-focus-visible] {
      outline: 3px solid var(--petrol);
      outline-offset: 2px;
    }
  }
`;

const Clock = styled.span`
  font-variant-numeric: tabular-nums;
`;

const seconds = (ms: number): string =>
  `${Math.floor(ms / 60_000)}:${String(Math.floor(ms / 1000) % 60).padStart(2, "0")}`;

/** The picture that is watched, how far it has come, and what keeps it from being seen. */
export function PictureStage({
  picture,
  names,
  playhead,
  onPlayhead,
}: {
  picture: PictureWatch;
  names: readonly string[];
  playhead: number | null;
  onPlayhead: (ms: number) => void;
}) {
  const phase = usePicture(picture, (s) => s.phase);
  const source = usePicture(picture, (s) => s.source);
  const problem = usePicture(picture, (s) => s.problem);
  const name = usePicture(picture, (s) => s.name);
  const url = usePicture(picture, (s) => s.url);
  const shown = url !== null || phase === "watching";
  return (
    <Sheet aria-label={source === "film" ? `Film ${name}` : "Camera"}>
      <Halves>
        {shown && <Preview picture={picture} names={names} wide={source === "film"} />}
        <div style={{ display: "grid", gap: 10, alignContent: "start", minWidth: 0 }}>
          {problem && (
            <div role="alert">
              <Caution>{PROBLEMS[problem]}</Caution>
            </div>
          )}
          {source === "film" ? <FilmState picture={picture} /> : <CameraState picture={picture} />}
          <Lamps picture={picture} names={names} />
          {source === "film" && phase === "ended" && url && (
            <Scrubber picture={picture} playhead={playhead} onPlayhead={onPlayhead} />
          )}
        </div>
      </Halves>
    </Sheet>
  );
}

function FilmState({ picture }: { picture: PictureWatch }) {
  const phase = usePicture(picture, (s) => s.phase);
  const name = usePicture(picture, (s) => s.name);
  const at = usePicture(picture, (s) => s.seen?.at ?? 0);
  const duration = usePicture(picture, (s) => s.film?.duration ?? 0);
  const took = usePicture(picture, (s) => s.took);
  const pictures = usePicture(picture, (s) => s.seen?.pictures ?? 0);
  const analysis = usePicture(picture, (s) => s.seen?.analysis ?? 0);
  const advice = usePicture(picture, (s) => s.seen?.advice ?? null);
  if (phase === "opening" || phase === "watching")
    return (
      <>
        <Bar value={at} maxValue={duration || 1} isIndeterminate={phase === "opening"}>
          {({ percentage }) => (
            <>
              <Label>{phase === "opening" ? `Opening ${name}` : `Reading ${name}`}</Label>
              <Clock>
                {seconds(at)} of {seconds(duration)}
              </Clock>
              <div>
                <div style={{ width: `${percentage ?? 0}%` }} />
              </div>
            </>
          )}
        </Bar>
        <Row>
          <Button onPress={() => picture.stop()}>Cancel</Button>
        </Row>
      </>
    );
  if (!pictures) return null;
  return (
    <>
      <Soft data-took={took} data-length={at} data-analysis={analysis}>
        {name}: {pictures} pictures, {seconds(at)}
        {took > 0 && `, read at ${(at / took).toFixed(at / took < 10 ? 1 : 0)} times true time`}.
      </Soft>
      {advice && advice !== "elsewhere" && <Caution>{FILM_ADVICE[advice]}</Caution>}
    </>
  );
}

function CameraState({ picture }: { picture: PictureWatch }) {
  const phase = usePicture(picture, (s) => s.phase);
  const held = usePicture(picture, (s) => s.held);
  const advice = usePicture(picture, (s) => s.seen?.advice ?? null);
  const lamps = usePicture(picture, (s) => s.seen?.lamps.length ?? 0);
  const pictures = usePicture(picture, (s) => s.seen?.pictures ?? 0);
  const skipped = usePicture(picture, (s) => s.seen?.skipped ?? 0);
  const hidden = usePicture(picture, (s) => s.hidden);
  const kept = usePicture(picture, (s) => s.kept);
  const stored = usePicture(picture, (s) => s.stored);
  if (phase === "opening") return <p role="status">Waiting for the camera …</p>;
  return (
    <>
      {phase === "watching" && (
        <>
          <p role="status">
            <strong>
              {advice
                ? ADVICE[advice]
                : lamps
                  ? "The lamp is in sight."
                  : "Looking for a lamp that blinks. Let it blink a few times."}
            </strong>
          </p>
          <Soft>
            <span data-pictures={pictures} data-skipped={skipped}>
              {pictures} pictures, {skipped} skipped
            </span>
            {held &&
              `; exposure ${held.exposure ? "held" : "left to the camera"}, focus ${held.focus ? "held" : "left to the camera"}`}
            .
          </Soft>
          <Row>
            <Button onPress={() => picture.stop()}>Stop the camera</Button>
          </Row>
        </>
      )}
      {hidden > 1000 && (
        <Caution>
          This page was in the background for {Math.round(hidden / 1000)} s. What blinked then may not have been seen:
          watch the list come round once more, and leave the page in front.
        </Caution>
      )}
      {kept && (
        <Row>
          {stored === "stored" && <Soft>The film is kept with this reading.</Soft>}
          {stored === "no-room" && (
            <Caution>There is no room in this browser to keep the film: save it as a file before you leave.</Caution>
          )}
          <Button onPress={() => saveFile(filmName(kept), kept, kept.type)}>Save the film ({megabytes(kept)})</Button>
        </Row>
      )}
    </>
  );
}

/** Which of the patches that blink is the lamp. */
function Lamps({ picture, names }: { picture: PictureWatch; names: readonly string[] }) {
  const seen = usePicture(picture, (s) => s.seen);
  const quiet = usePicture(picture, (s) => s.quiet);
  const lamps = offered(seen, quiet);
  const chosen = usePicture(picture, (s) => s.chosen);
  const confirmed = usePicture(picture, (s) => s.confirmed);
  const drawn = usePicture(picture, (s) => s.drawn);
  if (!lamps.length) return null;
  const two = names.length > 1 && lamps.length > 1;
  if (drawn && !two) return <Soft>Your box is watched.</Soft>;
  const number = (id: number) => lamps.findIndex((l) => l.id === id) + 1;
  return (
    <div style={{ display: "grid", gap: 8 }}>
      {names.map(
        (name, i) =>
          (i === 0 || two) && (
            <Row key={name} $gap={8}>
              <span>
                <strong>{names.length > 1 ? name : "The lamp"}</strong>:{" "}
                {chosen[i] == null
                  ? "not in the picture"
                  : lamps.length > 1
                    ? `patch ${number(chosen[i])} of ${lamps.length}`
                    : "found"}
              </span>
              {lamps.length > 1 &&
                lamps.map(
                  (l) =>
                    l.id !== chosen[i] && (
                      <Button key={l.id} onPress={() => picture.choose(i, l.id)}>
                        It is patch {number(l.id)}
                      </Button>
                    ),
                )}
            </Row>
          ),
      )}
      {!confirmed && (
        <Row>
          <Button onPress={() => picture.choose(0, chosen[0] ?? lamps[0].id)}>Yes, that is the lamp</Button>
        </Row>
      )}
    </div>
  );
}

/** Goes through the film; the strip's playhead goes with it. */
function Scrubber({
  picture,
  playhead,
  onPlayhead,
}: {
  picture: PictureWatch;
  playhead: number | null;
  onPlayhead: (ms: number) => void;
}) {
  const duration = usePicture(picture, (s) => Math.max(s.film?.duration ?? 0, s.seen?.at ?? 0));
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    const { video } = picture;
    if (!video) return;
    const told = () => onPlayhead(video.currentTime * 1000);
    const state = () => setPlaying(!video.paused);
    video.addEventListener("timeupdate", told);
    video.addEventListener("play", state);
    video.addEventListener("pause", state);
    return () => {
      video.removeEventListener("timeupdate", told);
      video.removeEventListener("play", state);
      video.removeEventListener("pause", state);
    };
  }, [picture, onPlayhead]);
  const seek = (ms: number) => {
    if (picture.seek(ms)) onPlayhead(ms);
  };
  return (
    <div style={{ display: "grid", gridTemplateColumns: "auto minmax(0, 1fr)", gap: 14, alignItems: "end" }}>
      <Button
        aria-label={playing ? "Pause the film" : "Play the film"}
        onPress={() => void (playing ? picture.video?.pause() : picture.video?.play())}
      >
        {playing ? <Pause size={20} aria-hidden /> : <Play size={20} aria-hidden />}
      </Button>
      <Scrub value={Math.min(duration, playhead ?? 0)} maxValue={duration} step={100} onChange={(v) => seek(Number(v))}>
        <Label>Go through the film</Label>
        <SliderOutput>{() => <Clock>{seconds(playhead ?? 0)}</Clock>}</SliderOutput>
        <SliderTrack className="track">
          <SliderThumb className="thumb" />
        </SliderTrack>
      </Scrub>
    </div>
  );
}
