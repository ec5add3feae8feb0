import { useEffect, useState } from "react";
import { Button } from "~/ui/Button";
import { CheckBox } from "~/ui/Choice";
import { FileDrop } from "~/ui/FileDrop";
import { Caution, Soft } from "~/ui/bits";
import { readyLampWorker } from "~/workers/lamp";
import type { PictureWatch } from "./picture-watch";
import { usePicture } from "./use-picture";
import { PROBLEMS } from "./words";

/** A film by drop or picker. */
export function BeginFilm({ picture }: { picture: PictureWatch }) {
  useEffect(readyLampWorker, []);
  return (
    <FileDrop
      label="Drop a film of the lamp here"
      pick="Pick a film"
      accept={["video/*", ".mp4", ".mov", ".webm", ".mkv"]}
      onFile={(file) => void picture.openFilm(file)}
    >
      MP4, MOV or WebM as the phone saved it. It stays on this device.
    </FileDrop>
  );
}

/** The camera, with the one question that it asks. @param stored a film that is kept is stored with its reading; null where none is offered */
export function BeginCamera({ picture, stored }: { picture: PictureWatch; stored: boolean | null }) {
  const [keep, setKeep] = useState(false);
  useEffect(readyLampWorker, []);
  const problem = usePicture(picture, (s) => (s.phase === "idle" ? s.problem : null));
  return (
    <div style={{ display: "grid", gap: 10 }}>
      {problem && (
        <div role="alert">
          <Caution>{PROBLEMS[problem]}</Caution>
        </div>
      )}
      <Soft>Lean the phone on something so that the lamp fills a tenth of the picture, out of the sun.</Soft>
      {stored !== null && (
        <CheckBox isSelected={keep} onChange={setKeep}>
          {stored ? "Keep the film with the reading" : "Keep the film, to save it as a file afterwards"}
        </CheckBox>
      )}
      <Button $look={stored === null ? "secondary" : "primary"} onPress={() => void picture.startCamera(keep)}>
        Start the camera
      </Button>
    </div>
  );
}
