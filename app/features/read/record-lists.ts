import { useNavigate, useRevalidator } from "react-router";
import { lower } from "@core/job/say";
import { withReading } from "@core/record/job";
import { wasCleared } from "@core/job/epochs";
import { newReading, resultOf } from "@core/record/readings";
import type { Input, Reading, SystemList } from "@core/record/types";
import { nowIso } from "~/store/clock";
import { newId, writeReading } from "~/store/records";
import type { JobData } from "~/store/job-data";
import { jobPath } from "~/store/paths";

/** Stores a reading of lists that were typed, sent or told, one a system, and goes on to what they mean. */
export function useRecordLists(
  data: JobData,
): (what: {
  input: Input;
  run: Reading["run"];
  lists: Record<string, SystemList>;
  readiness?: Reading["readiness"];
  says: string;
}) => Promise<void> {
  const { job, vehicle, access } = data;
  const navigate = useNavigate();
  const revalidator = useRevalidator();
  return async ({ input, run, lists, readiness, says }) => {
    const now = nowIso();
    const own = lists[access.system] ?? Object.values(lists)[0];
    const reading: Reading = {
      ...newReading({
        id: newId(),
        job: job.id,
        vehicle: vehicle.id,
        system: access.system,
        way: access.way.id,
        dialect: "",
        revision: data.pack.revision,
        input,
        run,
        startedAt: now,
      }),
      until: 0,
      result: own ? resultOf(own) : null,
      ...(Object.keys(lists).length ? { lists } : {}),
      ...(readiness ? { readiness } : {}),
      recordedAt: now,
    };
    await writeReading(reading, (j) => withReading(j, says, now));
    await revalidator.revalidate();
    await navigate(jobPath(job.id, wasCleared(data, access.memory) ? "prove" : "meaning"));
  };
}

/** The lists in one line of the notebook. */
export function sayLists(lists: Record<string, SystemList>, nameOf: (system: string) => string): string {
  return `Read ${Object.entries(lists)
    .map(([system, l]) => {
      const name = lower(nameOf(system));
      if (l.state === "none") return `${name}: nothing stored`;
      const unclear = l.unclear.length ? `, not clear: ${l.unclear.join(", ")}` : "";
      return `${name}: ${l.codes.join(", ") || "no code"}${unclear}`;
    })
    .join("; ")}.`;
}
