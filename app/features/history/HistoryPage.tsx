import { lazy, Suspense, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { EVENT_KINDS, historyCsv, type EventKind, type HistoryEvent } from "@core/job/history";
import type { Vehicle } from "@core/record/types";
import { shortDate, shortTime } from "~/store/format";
import { jobPath, vehiclePath } from "~/store/paths";
import { distanceText } from "~/store/distance";
import type { Settings } from "~/store/settings";
import { saveFile } from "~/store/save-file";
import { vehicleName } from "~/store/vehicle-name";
import { Button, LinkButton } from "~/ui/Button";
import { Choices } from "~/ui/Choice";
import { Main, TopBar } from "~/ui/Frame";
import { Empty, Plate, Row, Sheet, Soft } from "~/ui/bits";
import { figures } from "~/ui/theme";

const CodeChart = lazy(() => import("./CodeChart"));

/** Of one entry, and of all. */
const NAMES: Record<EventKind, readonly [one: string, all: string]> = {
  codes: ["Reading", "Readings"],
  clear: ["Clear", "Clears"],
  repair: ["Repair", "Repairs"],
  check: ["Check", "Checks"],
  ride: ["Ride", "Rides"],
  lamp: ["Lamp", "Lamp"],
  work: ["Work", "Work"],
  mileage: ["Mileage", "Mileage"],
  job: ["Job", "Jobs"],
};
/** Of these only the day is told. */
const BY_DAY: readonly EventKind[] = ["work", "mileage"];
const allOf = (kind: EventKind): string => NAMES[kind][1];

const List = styled.ol`
  display: grid;
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 2px 16px;
    padding: 10px 0;
    border-top: 1px solid var(--rule);
    content-visibility: auto;
    contain-intrinsic-size: auto 58px;
    &:first-child {
      border-top: 0;
    }
    @media (min-width: 720px) {
      grid-template-columns: 130px 84px minmax(0, 1fr);
    }
  }
  time {
    ${figures}
    font-weight: 700;
  }
  p {
    overflow-wrap: anywhere;
  }
`;

/** All that was recorded of one vehicle over the years: which codes came when, and what was done. */
export function HistoryPage({
  vehicle,
  events,
  unit,
}: {
  vehicle: Vehicle;
  events: readonly HistoryEvent[];
  unit: Settings["speed"];
}) {
  const there = EVENT_KINDS.filter((k) => events.some((e) => e.kind === k));
  const [kinds, choose] = useState<readonly EventKind[]>([]);
  // Nothing chosen is all of it.
  const shown = [...events].reverse().filter((e) => !kinds.length || kinds.includes(e.kind));
  const codes = [...new Set(events.filter((e) => e.kind === "codes").flatMap((e) => e.codes))];
  const from = events[0]?.at;
  return (
    <>
      <TopBar />
      <Main id="work">
        <Row $gap={18}>
          <Plate style={{ fontSize: "1.3rem" }}>{vehicle.plate}</Plate>
          <h1>What came, and what was done</h1>
        </Row>
        <p>
          {vehicleName(vehicle)}, {vehicle.year}
          {from && `: ${events.length} ${events.length === 1 ? "entry" : "entries"} since ${shortDate(from)}`}.
        </p>
        {events.length === 0 ? (
          <Empty title="Nothing is recorded of it yet.">
            <p>Readings, clears, repairs and rides of its jobs will stand here.</p>
            <LinkButton $look="primary" to={vehiclePath(vehicle.id)}>
              To the vehicle
            </LinkButton>
          </Empty>
        ) : (
          <>
            {codes.length > 0 && (
              <Sheet aria-label="Which codes came when">
                <h2>Which codes came when</h2>
                <Suspense fallback={<div style={{ height: 90 + 34 * codes.length }} />}>
                  <CodeChart events={events} />
                </Suspense>
                <Soft>A dot is a reading that showed the code, as it was read. A line is a clear.</Soft>
              </Sheet>
            )}
            <Choices
              label="Show"
              options={there.map(allOf)}
              value={kinds.map(allOf)}
              onChange={(on) => choose(there.filter((k) => on.includes(allOf(k))))}
            />
            <Sheet aria-label="Entries, the newest first">
              <List>
                {shown.map((e, i) => (
                  <li key={`${e.at} ${e.kind} ${i}`}>
                    <time dateTime={e.at}>{BY_DAY.includes(e.kind) ? shortDate(e.at) : shortTime(e.at)}</time>
                    <Soft>{NAMES[e.kind][0]}</Soft>
                    <p>
                      {e.kind === "job" && e.job ? <Link to={jobPath(e.job)}>{e.text}</Link> : e.text}
                      {e.km != null && `${e.text && ", at "}${distanceText(e.km, unit)}`}
                    </p>
                  </li>
                ))}
              </List>
            </Sheet>
          </>
        )}
        <Row>
          {events.length > 0 && <LinkButton to={vehiclePath(vehicle.id)}>Back to the vehicle</LinkButton>}
          {events.length > 0 && (
            <Button
              onPress={() =>
                saveFile(
                  `history-${vehicle.plate.replace(/\W+/g, "-")}.csv`,
                  historyCsv(vehicle.plate, events),
                  "text/csv",
                )
              }
            >
              Save it as CSV
            </Button>
          )}
        </Row>
      </Main>
    </>
  );
}
