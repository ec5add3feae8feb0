import { Form, Link } from "react-router";
import styled from "styled-components";
import { countedText } from "@core/clearing/counting";
import type { Face, JobLine } from "@core/job/card";
import { STEP_IDS, type JobEnd, type Vehicle } from "@core/record/types";
import { shortDate } from "~/store/format";
import { Button, LinkButton } from "~/ui/Button";
import { Hidden, Plate, Soft } from "~/ui/bits";
import { STEP_NAMES } from "~/ui/steps";
import { middle, wide } from "~/ui/theme";
import { jobPath, vehiclePath } from "~/store/paths";

const Card = styled.li`
  display: grid;
  /* Of hundreds of rows those out of sight cost nothing. */
  content-visibility: auto;
  contain-intrinsic-size: auto 92px;
  gap: 10px 18px;
  align-items: center;
  padding: 14px 18px;
  background: var(--sheet);
  border-radius: 12px;
  grid-template-columns: minmax(0, 1fr) auto;
  > :first-child {
    justify-self: start;
  }
  > :nth-child(2) {
    grid-column: 1 / -1;
    grid-row: 2;
  }
  > :nth-child(3) {
    grid-column: 1 / -1;
    grid-row: 3;
  }
  > :last-child {
    grid-column: 2;
    grid-row: 1;
  }
  ${middle} {
    grid-template-columns: 160px minmax(0, 1fr) auto;
    > :nth-child(2) {
      grid-column: 2;
      grid-row: 1;
    }
    > :nth-child(3) {
      grid-column: 2;
      grid-row: 2;
    }
    > :last-child {
      grid-column: 3;
    }
  }
  ${wide} {
    > :first-child {
      justify-self: stretch;
    }
    grid-template-columns: 160px minmax(0, 1fr) 290px 130px;
    > :nth-child(3) {
      grid-column: 3;
      grid-row: 1;
    }
    > :last-child {
      grid-column: 4;
    }
  }
`;

const Name = styled.div`
  overflow-wrap: anywhere;
  /* A story may be as long as a page. */
  p {
    display: -webkit-box;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 3;
    overflow: hidden;
  }
  a {
    color: var(--ink);
    font-weight: 700;
    text-decoration: none;
    display: inline-block;
    padding: 4px 0;
    &:hover {
      text-decoration: underline;
    }
  }
  span,
  p {
    color: var(--ink-soft);
  }
`;

const Dots = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  b {
    margin-left: 8px;
  }
  i {
    flex: none;
    width: 14px;
    height: 14px;
    border-radius: 7px;
    border: 2px solid var(--ink-soft);
  }
  i[data-is="done"] {
    background: var(--done);
    border-color: var(--done);
  }
  i[data-is="now"] {
    width: 26px;
    background: var(--ink);
    border-color: var(--ink);
  }
`;

/** Where a job stands, as on its path. */
function Progress({ job }: { job: JobLine }) {
  return (
    <Dots>
      {STEP_IDS.map((s) => (
        <i key={s} data-is={s === job.at ? "now" : job.done.includes(s) ? "done" : "open"} />
      ))}
      <b>
        <Hidden>Next: </Hidden>
        {STEP_NAMES[job.at]}
      </b>
    </Dots>
  );
}

const ENDED: Record<JobEnd, string> = {
  fixed: "closed as fixed",
  "not-fixed": "not fixed,",
  "not-proven": "not proven,",
  "nothing-found": "nothing found,",
  "handed-over": "handed over",
  "given-up": "given up",
};

/** @param begun marks of a reading that was broken off */
function summary(vehicle: Vehicle, { open: jobs, last }: Face, begun: number, due: boolean): string {
  const expected = [...new Set(vehicle.changes.flatMap((c) => c.codes))];
  const day = due && vehicle.inspection ? ` · inspection ${shortDate(vehicle.inspection)}` : "";
  const tail = `${expected.length ? ` · ${expected.join(", ")} expected` : ""}${day}`;
  const job = jobs.at(-1);
  if (job) {
    const more = jobs.length > 1 ? ` · ${jobs.length} jobs open` : "";
    const reading = job.readings.findLast((r) => !r.withdrawn && (r.recordedAt || begun > 0));
    if (!reading) return `${job.title}${more}${tail}`;
    if (!reading.recordedAt) return `reading broken off after ${begun} marks${more}${tail}`;
    const wipes = job.counted ? ` · wiping itself: ${countedText(job.counted)}` : "";
    const rides = job.rides ? ` · ${job.rides} ${job.rides === 1 ? "ride counts" : "rides count"} since the clear` : "";
    return `${reading.says}${wipes}${rides} · ${job.title}${more}${tail}`;
  }
  if (!last?.closedAt) return `no job yet${tail}`;
  return `${last.end ? ENDED[last.end] : "closed"} ${shortDate(last.closedAt)}${tail}`;
}

export function VehicleRow({
  vehicle,
  name,
  face,
  begun,
  due,
}: {
  vehicle: Vehicle;
  name: string;
  face: Face;
  begun: number;
  /** Its inspection is near, or over. */
  due: boolean;
}) {
  const open = face.open.at(-1);
  return (
    <Card>
      <Plate>{vehicle.plate}</Plate>
      <Name>
        <Link to={vehiclePath(vehicle.id)}>
          {name} <span style={{ fontWeight: 400 }}>{vehicle.year}</span>
        </Link>
        <p>{summary(vehicle, face, begun, due)}</p>
      </Name>
      {open ? <Progress job={open} /> : <Soft>no open job</Soft>}
      {open ? (
        <LinkButton to={jobPath(open.id, open.at)}>
          Go on<Hidden> with {vehicle.plate}</Hidden>
        </LinkButton>
      ) : (
        <Form method="post" action={vehiclePath(vehicle.id)}>
          <Button type="submit" name="intent" value="new-job" style={{ width: "100%" }}>
            New job<Hidden> for {vehicle.plate}</Hidden>
          </Button>
        </Form>
      )}
    </Card>
  );
}
