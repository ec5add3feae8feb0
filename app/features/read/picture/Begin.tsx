import { useState } from "react";
import { DropZone } from "react-aria-components/DropZone";
import { FileTrigger } from "react-aria-components/FileTrigger";
import { Text } from "react-aria-components/Text";
import styled from "styled-components";
import { Button } from "~/ui/Button";
import { CheckBox } from "~/ui/Choice";
import { Caution, Soft } from "~/ui/bits";
import type { PictureWatch } from "./picture-watch";
import { usePicture } from "./use-picture";
import { PROBLEMS } from "./words";

const Zone = styled(DropZone)`
  display: grid;
  gap: 10px;
  justify-items: center;
  padding: 22px;
  border: 3px dashed var(--line);
  border-radius: 12px;
  text-align: center;
  &[data-drop-target] {
    border-color: var(--petrol);
    background: var(--tint);
  }
`;

/** A film by drop or picker. */
export function BeginFilm({ picture }: { picture: PictureWatch }) {
  const open = (file: File) => void picture.openFilm(file);
  return (
    <Zone
      onDrop={(e) => {
        const item = e.items.find((i) => i.kind === "file");
        if (item?.kind === "file") void item.getFile().then(open);
      }}
    >
      <Text slot="label">Drop a film of the lamp here</Text>
      <FileTrigger
        acceptedFileTypes={["video/*", ".mp4", ".mov", ".webm", ".mkv"]}
        onSelect={(files) => files?.[0] && open(files[0])}
      >
        <Button>Pick a film</Button>
      </FileTrigger>
      <Soft>MP4, MOV or WebM as the phone saved it. It stays on this device.</Soft>
    </Zone>
  );
}

/** The camera, with the one question that it asks. */
export function BeginCamera({ picture }: { picture: PictureWatch }) {
  const [keep, setKeep] = useState(false);
  const problem = usePicture(picture, (s) => (s.phase === "idle" ? s.problem : null));
  return (
    <div style={{ display: "grid", gap: 10 }}>
      {problem && (
        <div role="alert">
          <Caution>{PROBLEMS[problem]}</Caution>
        </div>
      )}
      <Soft>Lean the phone on something so that the lamp fills a tenth of the picture, out of the sun.</Soft>
      <CheckBox isSelected={keep} onChange={setKeep}>
        Keep the film, to save it as a file afterwards
      </CheckBox>
      <Button $look="primary" onPress={() => void picture.startCamera(keep)}>
        Start the camera
      </Button>
    </div>
  );
}
