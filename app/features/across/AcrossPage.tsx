import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { JobLine } from "@core/job/card";
import { jobsOf, type Recurring } from "@core/job/recurring";
import type { Vehicle } from "@core/record/types";
import { shortDate } from "~/store/format";
import { jobPath, vehiclePath } from "~/store/paths";
import { Button, LinkButton } from "~/ui/Button";
import { daysTo } from "~/ui/InspectionDay";
import { Bar, Empty, Mono, Row, Sheet, Soft } from "~/ui/bits";
import { STEP_NAMES } from "~/ui/steps";
import { middle } from "~/ui/theme";

const Line = styled.li`
  display: grid;
  gap: 4px 18px;
  padding: 12px 0;
  border-top: 1px solid var(--rule);
  overflow-wrap: anywhere;
  &:first-child {
    border-top: 0;
  }
  ${middle} {
    grid-template-columns: 76px minmax(0, 1fr) 220px;
    align-items: center;
  }
  b {
    font-size: 1.5rem;
  }
`;

const Short = styled.li`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
  overflow-wrap: anywhere;
  &:first-child {
    border-top: 0;
  }
  a {
    padding: 6px 0;
  }
`;

/** So many of each stand at once. */
const AT_ONCE = 20;

type Told = Recurring & { model: string; name: string };

const times = (n: number, one: string): string => `${n} ${one}${n === 1 ? "" : "s"}`;

function day({ inspection }: Vehicle): string {
  const days = daysTo(inspection);
  if (days === null) return "";
  if (days < 0) return `over since ${shortDate(inspection!)}`;
  return days === 0 ? "today" : `in ${times(days, "day")}, ${shortDate(inspection!)}`;
}

/** What waits, and which codes come again and again, across all vehicles. */
export function AcrossPage({
  recurring,
  due,
  open,
  plates,
}: {
  recurring: readonly Told[];
  due: readonly Vehicle[];
  open: readonly { vehicle: Vehicle; job: JobLine }[];
  plates: ReadonlyMap<string, string>;
}) {
  const [all, showAll] = useState(false);
  const shown = all ? recurring : recurring.slice(0, AT_ONCE);
  const soonest = [...due].sort((a, b) => a.inspection!.localeCompare(b.inspection!));
  return (
    <>
      <h1>Across the garage</h1>
      <Sheet aria-labelledby="recurring">
        <h2 id="recurring">Codes that come again</h2>
        {recurring.length === 0 ? (
          <Empty title="No code has come twice.">
            <p>Once a code is read at two vehicles of one model, or in two jobs of one vehicle, it stands here.</p>
            <LinkButton to="/">To the garage</LinkButton>
          </Empty>
        ) : (
          <>
            <Soft>
              At two vehicles of one model, or in two jobs of one. A bar is the share of that model&apos;s vehicles that
              were read.
            </Soft>
            <ul>
              {shown.map((r) => (
                <Line key={`${r.pack} ${r.variant} ${r.system} ${r.code}`}>
                  <b>
                    <Mono>{r.code}</Mono>
                  </b>
                  <span>
                    <strong>{r.model}</strong>, {r.name}
                    <Soft>
                      {r.at.slice(0, 6).map(({ vehicle, jobs }, i) => (
                        <span key={vehicle}>
                          {i > 0 && ", "}
                          <Link to={vehiclePath(vehicle)}>{plates.get(vehicle) ?? vehicle}</Link>
                          {jobs > 1 && ` in ${jobs} jobs`}
                        </span>
                      ))}
                      {r.at.length > 6 && ` and ${r.at.length - 6} more`}. Last {shortDate(r.last)}.
                    </Soft>
                  </span>
                  <span>
                    {r.at.length} of {times(r.of, "vehicle")}, {times(jobsOf(r), "job")}
                    <Bar>
                      <i style={{ width: `${(100 * r.at.length) / r.of}%` }} />
                    </Bar>
                  </span>
                </Line>
              ))}
            </ul>
            {shown.length < recurring.length && (
              <Row>
                <Button onPress={() => showAll(true)}>Show all {recurring.length}</Button>
              </Row>
            )}
          </>
        )}
      </Sheet>
      <Sheet aria-labelledby="due">
        <h2 id="due">Inspections due</h2>
        {due.length === 0 && <Soft>None in the next 60 days, as far as their days are written down.</Soft>}
        <ul>
          {soonest.map((v) => (
            <Short key={v.id}>
              <Link to={vehiclePath(v.id)}>{v.plate}</Link>
              <span>{day(v)}</span>
            </Short>
          ))}
        </ul>
      </Sheet>
      <Sheet aria-labelledby="open">
        <h2 id="open">Open jobs</h2>
        {open.length === 0 && <Soft>None.</Soft>}
        <ul>
          {open.map(({ vehicle, job }) => (
            <Short key={job.id}>
              <Mono>{vehicle.plate}</Mono>
              <Link to={jobPath(job.id)}>{job.title}</Link>
              <Soft>
                next: {STEP_NAMES[job.at]}, open since {shortDate(job.openedAt)}
              </Soft>
            </Short>
          ))}
        </ul>
      </Sheet>
    </>
  );
}
