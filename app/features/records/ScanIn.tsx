import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { openCamera, type CameraProblem } from "~/store/camera";
import { scanWorker } from "~/workers/scan";
import { Button } from "~/ui/Button";
import { Row, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

const View = styled.video`
  width: 100%;
  max-width: 480px;
  aspect-ratio: 4 / 3;
  object-fit: cover;
  border-radius: 10px;
  background: var(--band);
`;

/** Which parts are here: filled and hollow, not by colour alone. */
const Parts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  i {
    width: 12px;
    height: 12px;
    border: 2px solid var(--ink-soft);
    border-radius: 3px;
  }
  i[data-seen] {
    border-color: var(--petrol);
    background: var(--petrol);
  }
`;

const WHY: Record<CameraProblem | "worker" | "broken", string> = {
  refused: "The camera is not allowed. Allow it for this page in the browser's address bar, then start again.",
  "no-camera": "No camera found. Save a file on the other device and bring it in instead.",
  busy: "Another program is using the camera. Close it, then start again.",
  unplugged: "The camera was disconnected. Start again.",
  "no-api":
    "This browser does not let this page use a camera: it has to come over https, or from this machine. Bring a file instead.",
  worker: "Reading the pictures failed. Start again.",
  broken: "What was read does not hold together. Start again on both devices.",
};

/** A picture is looked at so often at most, ms. */
const EACH_MS = 60;
/** Wide enough for a code of 80 cells, small enough to be read ten times a second. */
const WIDTH = 720;

/** Reads what another device's screen shows, picture by picture. */
export function ScanIn({ onFile }: { onFile: (file: File) => void }) {
  const [on, turn] = useState(false);
  const [why, tell] = useState<string | null>(null);
  return (
    <>
      {on ? (
        <Scanning
          onEnd={(end) => {
            turn(false);
            if (end instanceof Blob) onFile(new File([end], "from another screen", { type: "application/json" }));
            else tell(end && WHY[end]);
          }}
        />
      ) : (
        <Row>
          <Button
            onPress={() => {
              tell(null);
              turn(true);
            }}
          >
            Read it off another screen
          </Button>
          <Soft>There, the job&apos;s menu shows it: &quot;Show it to another device&quot;.</Soft>
        </Row>
      )}
      <Trouble problem={why} />
    </>
  );
}

/** @param onEnd told the file, what went wrong, or null where it was called off */
function Scanning({ onEnd }: { onEnd: (end: Blob | keyof typeof WHY | null) => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const [seen, see] = useState<readonly boolean[]>([]);
  const end = useRef(onEnd);
  useEffect(() => {
    end.current = onEnd;
  });
  useEffect(() => {
    let over = false;
    let stream: MediaStream | null = null;
    const stop = (told?: Parameters<typeof onEnd>[0]) => {
      if (over) return;
      over = true;
      for (const track of stream?.getTracks() ?? []) track.stop();
      worker.end();
      if (told !== undefined) end.current(told);
    };
    const worker = scanWorker(() => stop("worker"));
    const look = async () => {
      const opened = await openCamera();
      if (typeof opened === "string") return stop(opened);
      stream = opened;
      // Whoever left meanwhile wants no camera that stays on.
      if (over) return opened.getTracks().forEach((t) => t.stop());
      opened.getVideoTracks()[0].addEventListener("ended", () => stop("unplugged"));
      const shown = video.current!;
      shown.srcObject = opened;
      await shown.play();
      while (!over) {
        const began = performance.now();
        const height = Math.round((WIDTH * shown.videoHeight) / shown.videoWidth);
        const picture = await createImageBitmap(shown, { resizeWidth: WIDTH, resizeHeight: height });
        const told = await worker.api.look(picture);
        see((before) => (before.join() === told.seen.join() ? before : told.seen));
        if (told.broken) return stop("broken");
        if (told.file) return stop(told.file);
        await new Promise((done) => setTimeout(done, Math.max(0, EACH_MS - (performance.now() - began))));
      }
    };
    void look().catch(() => stop("worker"));
    return () => stop();
  }, []);
  const here = seen.filter(Boolean).length;
  return (
    <div style={{ display: "grid", gap: 8 }}>
      <View ref={video} muted playsInline aria-label="What the camera sees" />
      <p role="status">
        {seen.length === 0
          ? "Point the camera at the pattern on the other screen, so that it fills the picture."
          : `${here} of ${seen.length} parts are here.`}
      </p>
      <Parts aria-hidden>
        {seen.map((s, i) => (
          <i key={i} data-seen={s || undefined} />
        ))}
      </Parts>
      <Row>
        <Button $look="quiet" onPress={() => onEnd(null)}>
          Stop
        </Button>
      </Row>
    </div>
  );
}
