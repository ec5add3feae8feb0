import { ProgressBar } from "react-aria-components/ProgressBar";
import styled from "styled-components";
import type { PhotoStep } from "@core/table/photo/read";
import { Button } from "~/ui/Button";
import { Row } from "~/ui/bits";
import type { Photo } from "./use-photo";

const STEP_WORDS: Record<PhotoStep, string> = {
  prepare: "Straightening the page and evening out the light",
  read: "Reading the print",
  digits: "Looking at each number once more",
};

const Track = styled.div`
  height: 10px;
  border-radius: 5px;
  background: var(--rule);
  i {
    display: block;
    height: 100%;
    border-radius: 5px;
    background: var(--petrol);
  }
`;

/** Where a picture stands that is being read, with a way to call it off. */
export function PhotoState({ photo, onStop }: { photo: Photo; onStop: () => void }) {
  if (photo.phase === "done")
    return (
      <Row>
        <span>Read from {photo.name}.</span>
        <Button $look="quiet" onPress={onStop}>
          Leave the picture aside
        </Button>
      </Row>
    );
  const done = { prepare: 0.05, read: 0.15 + 0.55 * photo.share, digits: 0.75 + 0.25 * photo.share }[photo.step];
  return (
    <Row>
      <ProgressBar aria-label={`Reading ${photo.name}`} value={100 * done} style={{ flex: "1 1 240px" }}>
        <p>{STEP_WORDS[photo.step]} …</p>
        <Track>
          <i style={{ width: `${100 * done}%` }} />
        </Track>
      </ProgressBar>
      <Button onPress={onStop}>Stop</Button>
    </Row>
  );
}
