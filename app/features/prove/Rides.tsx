import { Check, Minus, X } from "lucide-react";
import { lazy, Suspense, useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { SPEED_UNITS, type SpeedUnit } from "@core/logs/log";
import type { RideRule } from "@core/pack/ride";
import { byHand, noted, rideRuleOf, rideSays, ruleSays, speedText } from "@core/proving/told";
import { countingSince } from "@core/proving/count";
import type { RideDone } from "@core/record/types";
import { clock } from "~/store/clock";
import { shortTime } from "~/store/format";
import { useIntents, useJob } from "~/store/use-job";
import { useSettings } from "~/store/use-settings";
import { readRides } from "~/workers/log";
import type { RidesRead } from "~/workers/log.worker";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { FileDrop } from "~/ui/FileDrop";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import type { ProveIntents } from "./intents";

const RideChart = lazy(() => import("./RideChart"));

const List = styled.ul`
  display: grid;
  gap: 6px;
  li {
    display: grid;
    grid-template-columns: 24px minmax(0, 1fr) max-content;
    gap: 4px 10px;
    align-items: center;
  }
  svg {
    flex: none;
  }
`;

const Found = styled.div`
  display: grid;
  gap: 8px;
  padding-top: 10px;
  border-top: 1px solid var(--rule);
`;

/** Rides since the clear, held against what the make asks: noted by hand, or read from a log. */
export function Rides() {
  const { job, pack } = useJob();
  const { speed } = useSettings();
  const { send, busy, problem } = useIntents<ProveIntents>("prove");
  const since = job.clears.at(-1)?.at;
  if (!since) return null;
  const rule = rideRuleOf(pack);
  const counting = countingSince(job.rides, since).length;
  const rides = job.rides.filter((r) => !r.withdrawnAt);
  return (
    <Sheet aria-label="Rides since the clear">
      <h2>
        Rides that count: {counting} of {rule.rides}
      </h2>
      <p>{ruleSays(rule, speed)}</p>
      {rides.length > 0 && (
        <List>
          {rides.map((r) => (
            <RideLine
              key={r.at}
              ride={r}
              late={r.at <= since}
              onTakeBack={() => send({ intent: "take-back", at: r.at })}
            />
          ))}
        </List>
      )}
      <FromLog
        rule={rule}
        unit={speed}
        known={rides}
        busy={busy}
        onNote={(told) => send({ intent: "rides", rides: told })}
      />
      <ByHand rule={rule} unit={speed} busy={busy} onNote={(told) => send({ intent: "rides", rides: [told] })} />
      <Trouble problem={problem} />
    </Sheet>
  );
}

function RideLine({ ride, late, onTakeBack }: { ride: RideDone; late: boolean; onTakeBack: () => void }) {
  const Icon = late || ride.counts === "no" ? X : ride.counts === "yes" ? Check : Minus;
  return (
    <li>
      <Icon size={22} aria-hidden color={!late && ride.counts === "yes" ? "var(--done)" : "var(--ink-soft)"} />
      <div>
        <p>
          {shortTime(ride.at)}, {Math.round(ride.seconds / 60)} min:{" "}
          <strong>{late ? "before the clear, so it proves nothing" : ride.says}</strong>
        </p>
        <Soft>{ride.by === "log" ? "from a log" : "as you told it"}</Soft>
      </div>
      <Button $look="quiet" aria-label={`Take back: the ride of ${shortTime(ride.at)}`} onPress={onTakeBack}>
        Take back
      </Button>
    </li>
  );
}

type Noted = Omit<RideDone, "notedAt">;
type Unit = "km/h" | "mph";

/** When a ride of a log set off. Times without a zone are those of this place; without a date it was just now. */
function setOff(read: Extract<RidesRead, { rides: unknown }>, away: number): string {
  if (!read.dated) return new Date(clock.now() - (read.rides.at(-1)!.judged.ride.to - away) * 1000).toISOString();
  const at = new Date(away * 1000);
  const here = read.zoned ? at : new Date(at.getTime() + at.getTimezoneOffset() * 60_000);
  return here.toISOString();
}

/** A file of the ride: its rides with their speed, before anything is noted. */
function FromLog({
  rule,
  unit,
  known,
  busy,
  onNote,
}: {
  rule: RideRule;
  unit: Unit;
  known: readonly RideDone[];
  busy: boolean;
  onNote: (rides: Noted[]) => void;
}) {
  const [file, pick] = useState<File | null>(null);
  const [read, set] = useState<RidesRead | "reading" | null>(null);
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
        onFile={(f) => begin(f, null)}
      >
        GPX, or CSV with a time and a speed or a position.
      </FileDrop>
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
          {found.rides.length === 0 && (
            <p>{file?.name} holds no ride: nothing moved in it for more than some seconds.</p>
          )}
          {found.rides.map(({ judged, drawn }, i) => (
            <Found key={judged.ride.away}>
              <p>
                {found.dated ? shortTime(told[i].at) : `Ride ${i + 1}`}, {Math.round(judged.length.have / 60)} min:{" "}
                <strong>{rideSays(judged, rule, unit)}</strong>
              </p>
              <Suspense fallback={<div style={{ height: 180 }} />}>
                <RideChart of={drawn} limit={rule.above?.kmh ?? null} unit={unit} says={rideSays(judged, rule, unit)} />
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
          <Row>
            {news.length > 0 && (
              <Button
                $look="primary"
                isDisabled={busy}
                onPress={() => {
                  onNote(news);
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

const minutesOf = (typed: string): number | null => {
  const value = Number(typed.trim().replace(",", "."));
  return typed.trim() !== "" && value >= 0 && value <= 1440 ? value : null;
};

const UNTOLD = { minutes: "", above: "", idle: "", off: "" };

/** A ride without a log, as somebody tells it. */
function ByHand({
  rule,
  unit,
  busy,
  onNote,
}: {
  rule: RideRule;
  unit: Unit;
  busy: boolean;
  onNote: (ride: Noted) => void;
}) {
  const [open, setOpen] = useState(false);
  const [typed, type] = useState(UNTOLD);
  const [fault, tell] = useState("");
  if (!open)
    return (
      <div>
        <Button onPress={() => setOpen(true)}>Note a ride without a log</Button>
      </div>
    );
  const asked = {
    minutes: true,
    above: rule.above !== undefined,
    idle: rule.idleSeconds !== undefined,
    off: rule.offSeconds !== undefined,
  };
  return (
    <form
      style={{ display: "grid", gap: 10 }}
      onSubmit={(e) => {
        e.preventDefault();
        const value = {
          minutes: minutesOf(typed.minutes),
          above: minutesOf(typed.above),
          idle: minutesOf(typed.idle),
          off: minutesOf(typed.off),
        };
        const missing = (Object.keys(asked) as (keyof typeof asked)[]).some((k) => asked[k] && value[k] === null);
        if (missing) return tell("Type minutes as numbers, up to 1440. 0 where there was none.");
        if ((value.above ?? 0) > value.minutes!)
          return tell("It cannot have been fast for longer than it was on the way.");
        const seconds = value.minutes! * 60;
        // It is told when it is over.
        const at = new Date(clock.now() - seconds * 1000).toISOString();
        onNote(
          byHand(
            { seconds, above: (value.above ?? 0) * 60, idle: (value.idle ?? 0) * 60, off: (value.off ?? 0) * 60 },
            rule,
            unit,
            at,
          ),
        );
        type(UNTOLD);
        tell("");
        setOpen(false);
      }}
    >
      {asked.off && (
        <Field
          label="Minutes the engine was off before"
          value={typed.off}
          onChange={(off) => type({ ...typed, off })}
          maxLength={6}
        />
      )}
      {asked.idle && (
        <Field
          label="Minutes standing first, engine running"
          value={typed.idle}
          onChange={(idle) => type({ ...typed, idle })}
          maxLength={6}
        />
      )}
      <Field
        label="Minutes on the way"
        value={typed.minutes}
        onChange={(minutes) => type({ ...typed, minutes })}
        maxLength={6}
      />
      {asked.above && (
        <Field
          label={`Minutes of it at ${speedText(rule.above!.kmh, unit)} or more`}
          value={typed.above}
          onChange={(above) => type({ ...typed, above })}
          maxLength={6}
        />
      )}
      <Trouble problem={fault || null} />
      <Row>
        <Button $look="primary" type="submit" isDisabled={busy}>
          Note the ride
        </Button>
        <Button $look="quiet" onPress={() => setOpen(false)}>
          Cancel
        </Button>
      </Row>
    </form>
  );
}
