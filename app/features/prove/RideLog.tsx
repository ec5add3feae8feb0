import { lazy, Suspense, useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { SPEED_UNITS, type SpeedUnit } from "@core/logs/log";
import type { RideRule } from "@core/pack/ride";
import { noted, rideSays, type RideNoted, type Told } from "@core/proving/told";
import type { RideDone } from "@core/record/types";
import { clock } from "~/store/clock";
import { shortTime } from "~/store/format";
import { readRides } from "~/workers/log";
import type { RidesRead } from "~/workers/log.worker";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { FileDrop } from "~/ui/FileDrop";
import { Caution, Row, Soft } from "~/ui/bits";

import { RideRecorder } from "./RideRecorder";

const RideChart = lazy(() => import("./RideChart"));

const Found = styled.div`
  display: grid;
  gap: 8px;
  padding-top: 10px;
  border-top: 1px solid var(--rule);
`;

/** When a ride of a log set off. Times without a zone are those of this place; without a date it was just now. */
function setOff(read: Extract<RidesRead, { rides: unknown }>, away: number): string {
  if (!read.dated) return new Date(clock.now() - (read.rides.at(-1)!.judged.ride.to - away) * 1000).toISOString();
  const at = new Date(away * 1000);
  const here = read.zoned ? at : new Date(at.getTime() + at.getTimezoneOffset() * 60_000);
  return here.toISOString();
}

/** A file of the ride: its rides with their speed, before anything is noted. */
export function RideLog({
  job,
  rule,
  unit,
  known,
  busy,
  onNote,
}: {
  job: string;
  rule: RideRule;
  unit: Told;
  known: readonly RideDone[];
  busy: boolean;
  /** @param recorded they are what this phone recorded */
  onNote: (rides: RideNoted[], recorded: boolean) => void;
}) {
  const [file, pick] = useState<File | null>(null);
  const [read, set] = useState<RidesRead | "reading" | null>(null);
  /** The file is what this phone recorded. */
  const [own, setOwn] = useState(false);
  /** When the last of its rides set off that were sent to be noted: once that is known the record is gone, and is looked at anew. */
  const [sent, setSent] = useState<string | null>(null);
  const [gone, setGone] = useState(0);
  if (sent !== null && known.some((k) => k.at === sent)) {
    setSent(null);
    setGone(gone + 1);
  }
  const running = useRef<AbortController | null>(null);
  useEffect(() => () => running.current?.abort(), []);
  const begin = (of: File, told: SpeedUnit | null) => {
    running.current?.abort();
    const own = new AbortController();
    running.current = own;
    pick(of);
    set("reading");
    void readRides(of, rule, told, own.signal).then(
      (answer) => !own.signal.aborted && set(answer),
      () => !own.signal.aborted && set({ fault: "It could not be read to its end. Pick it once more." }),
    );
  };
  const close = () => {
    running.current?.abort();
    set(null);
    pick(null);
  };
  const found = read && read !== "reading" && "rides" in read ? read : null;
  const told = found?.rides.map(({ judged }) => noted(judged, rule, unit, setOff(found, judged.ride.away))) ?? [];
  const news = told.filter((r) => !known.some((k) => k.at === r.at));
  return (
    <>
      <FileDrop
        label="A log of the ride"
        pick="Pick a log"
        accept={[".gpx", ".csv", ".txt", ".tsv", "text/csv", "application/gpx+xml"]}
        onFile={(f) => {
          setOwn(false);
          begin(f, null);
        }}
      >
        GPX, or CSV with a time and a speed or a position.
      </FileDrop>
      <RideRecorder
        key={`${job} ${gone}`}
        job={job}
        onRide={(f) => {
          setOwn(true);
          begin(f, null);
        }}
      />
      {read === "reading" && (
        <Row role="status">
          <Soft>Reading {file?.name}.</Soft>
          <Button $look="quiet" onPress={close}>
            Cancel
          </Button>
        </Row>
      )}
      {read && read !== "reading" && "fault" in read && (
        <div role="alert">
          <Caution>
            {file?.name}: {read.fault}
          </Caution>
          {read.asks === "unit" && file && (
            <Choice
              label="Its speeds are in"
              value={null}
              onChange={(u) => begin(file, u)}
              options={SPEED_UNITS.map((u) => ({ value: u, label: u }))}
            />
          )}
        </div>
      )}
      {found && (
        <div role="status" style={{ display: "grid", gap: 12 }}>
          <FoundRides found={found} told={told} name={file?.name ?? "It"} rule={rule} unit={unit} />
          <Row>
            {news.length > 0 && (
              <Button
                $look="primary"
                isDisabled={busy}
                onPress={() => {
                  onNote(news, own);
                  if (own) setSent(news.at(-1)!.at);
                  close();
                }}
              >
                {news.length === 1 ? "Note this ride" : `Note these ${news.length} rides`}
              </Button>
            )}
            {told.length > 0 && news.length === 0 && <Soft>All of its rides are noted already.</Soft>}
            <Button $look="quiet" onPress={close}>
              {news.length ? "Do not note it" : "Close it"}
            </Button>
          </Row>
        </div>
      )}
    </>
  );
}

/** Each ride of a log with its verdict and its speed, and what the log does not tell. */
function FoundRides({
  found,
  told,
  name,
  rule,
  unit,
}: {
  found: Extract<RidesRead, { rides: unknown }>;
  told: readonly RideNoted[];
  name: string;
  rule: RideRule;
  unit: Told;
}) {
  return (
    <>
      {found.rides.length === 0 && <p>{name} holds no ride: nothing moved in it for more than some seconds.</p>}
      {found.rides.map(({ judged, drawn }, i) => (
        <Found key={judged.ride.away}>
          <p>
            {found.dated ? shortTime(told[i].at) : `Ride ${i + 1}`}, {Math.round(judged.length.have / 60)} min:{" "}
            <strong>{rideSays(judged, rule, unit)}</strong>
          </p>
          <Suspense fallback={<div style={{ height: 180 }} />}>
            <RideChart
              of={drawn}
              limit={rule.above?.kmh ?? null}
              unit={unit.speed}
              says={rideSays(judged, rule, unit)}
            />
          </Suspense>
        </Found>
      ))}
      {!found.dated && found.rides.length > 0 && (
        <Soft>The log names no date: its last ride is taken to have ended just now.</Soft>
      )}
      {rule.idleSeconds !== undefined && found.rides.length > 0 && (
        <Soft>A log does not tell whether the engine ran while it stood: it is taken as running.</Soft>
      )}
      {found.notes.map((n) => (
        <Soft key={n}>{n}</Soft>
      ))}
    </>
  );
}
