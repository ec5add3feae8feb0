import { useEffect, useRef, useState, type RefObject } from "react";
import { clock } from "~/store/clock";
import { dropFixes, keepFixes, readFixes, rideFile, type Fix } from "~/store/ride-record";
import { saveFile } from "~/store/save-file";
import { useAwake } from "~/store/use-awake";
import { Button } from "~/ui/Button";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Caution, Row, Soft } from "~/ui/bits";

/** What a page that is closed in the next moment may lose, ms. */
const WRITE_MS = 5000;
/** Fewer positions are no ride. */
const FEWEST = 3;

const FAULTS: Record<number, string> = {
  1: "This browser does not tell the page where it is. Allow the position for this page, or record with another app and bring its log.",
  2: "No position to be had right now. It goes on trying: under the open sky it mostly comes.",
  3: "No position came for a while. It goes on trying.",
};

const spanOf = (all: readonly Fix[]) => ({
  count: all.length,
  minutes: all.length ? Math.round((all.at(-1)!.t - all[0].t) / 60_000) : 0,
});

/** Records where the phone is while it lies in a pocket, and hands the ride over as a log. What was recorded outlives the page. */
export function RideRecorder({ job, onRide }: { job: string; onRide: (file: File) => void }) {
  const [on, setOn] = useState(false);
  const [fault, tell] = useState<string | null>(null);
  const [{ count, minutes }, show] = useState({ count: 0, minutes: 0 });
  const fixes = useRef<Fix[]>([]);
  const [kept, setKept] = useState(false);
  useEffect(() => {
    let gone = false;
    readFixes(job).then(
      (found) => {
        if (gone || fixes.current.length) return;
        fixes.current = found;
        show(spanOf(found));
        setKept(true);
      },
      () => !gone && setKept(true),
    );
    return () => {
      gone = true;
    };
  }, [job]);
  useRecording(on, job, fixes, {
    tell,
    more: () => show(spanOf(fixes.current)),
    refused: () => setOn(false),
  });
  if (!("geolocation" in navigator) || !kept) return null;
  const some = `${count} ${count === 1 ? "position" : "positions"} in ${minutes} min`;
  return (
    <div style={{ display: "grid", gap: 10 }} role="group" aria-label="Record the ride with this phone">
      {on && <Awake />}
      {fault && (
        <div role="alert">
          <Caution>{fault}</Caution>
        </div>
      )}
      {on ? (
        <>
          <p role="status">
            <strong>Recording: {some}.</strong>
          </p>
          <Caution>Put the phone away. Nobody looks at a screen while driving.</Caution>
          <Soft>With the screen off some browsers stop listening: such a gap is told as a gap, and never counted.</Soft>
        </>
      ) : count > 0 ? (
        <p>A ride is recorded here: {some}. Look at it, or go on with it.</p>
      ) : (
        <Soft>Or let this phone record the ride: where it is and how fast, kept on this device alone.</Soft>
      )}
      <Row>
        <Button
          $look={on ? "primary" : "secondary"}
          onPress={() => {
            if (on && fixes.current.length >= FEWEST) onRide(rideFile(fixes.current));
            else if (on) tell("Too few positions came to make a ride of.");
            else tell(null);
            setOn(!on);
          }}
        >
          {on ? "The ride is over" : count > 0 ? "Go on recording" : "Record the ride"}
        </Button>
        {!on && count >= FEWEST && (
          <>
            <Button onPress={() => onRide(rideFile(fixes.current))}>Look at it</Button>
            <Button
              $look="quiet"
              onPress={() => {
                const file = rideFile(fixes.current);
                saveFile(file.name, file, file.type);
              }}
            >
              Save it as a file
            </Button>
          </>
        )}
        {!on && count > 0 && (
          <ConfirmButton
            label="Throw it away"
            question="Throw the recorded ride away?"
            sure="Throw away"
            onConfirm={() => {
              dropFixes(job).then(
                () => {
                  fixes.current = [];
                  show(spanOf([]));
                },
                (error: Error) => tell(error.message),
              );
            }}
          />
        )}
      </Row>
    </div>
  );
}

/** The screen stays on while it records, where the browser can: what sleeps records nothing. */
function Awake() {
  useAwake();
  return null;
}

/** Listens to where the device is while it is on, and writes it down part by part. */
function useRecording(
  on: boolean,
  job: string,
  fixes: RefObject<Fix[]>,
  tells: { tell: (fault: string | null) => void; more: () => void; refused: () => void },
) {
  const told = useRef(tells);
  useEffect(() => {
    told.current = tells;
  });
  useEffect(() => {
    if (!on) return;
    let written = fixes.current.length;
    const write = () => {
      const all = [...fixes.current];
      if (all.length === written) return;
      const from = written;
      written = all.length;
      keepFixes(job, all, from).catch((error: unknown) => {
        written = from;
        told.current.tell(error instanceof Error ? error.message : "It could not be stored.");
      });
    };
    const watch = navigator.geolocation.watchPosition(
      ({ timestamp, coords }) => {
        const last = fixes.current.at(-1);
        if (last && timestamp <= last.t) return;
        told.current.tell(null);
        fixes.current.push({ t: timestamp, lat: coords.latitude, lon: coords.longitude, speed: coords.speed });
        told.current.more();
      },
      ({ code }) => {
        told.current.tell(FAULTS[code] ?? FAULTS[2]);
        if (code === 1) told.current.refused();
      },
      { enableHighAccuracy: true, maximumAge: 0, timeout: 30_000 },
    );
    const stop = clock.every(WRITE_MS, write);
    addEventListener("pagehide", write);
    return () => {
      navigator.geolocation.clearWatch(watch);
      stop();
      removeEventListener("pagehide", write);
      write();
    };
  }, [on, job, fixes]);
}
