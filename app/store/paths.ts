import { href } from "react-router";
import type { StepId } from "@core/record/types";

/** Ids that people and this program give stand in an address as they are. One from elsewhere may hold anything: it is written in letters. */
const PLAIN = /^[\w-]{1,80}$/;
const MARK = "~";

const toParam = (id: string): string =>
  PLAIN.test(id) && id !== "new"
    ? id
    : MARK + Array.from(new TextEncoder().encode(id), (b) => b.toString(16).padStart(2, "0")).join("");

/** The id that stands in an address. */
export function idIn(param: string): string {
  if (!param.startsWith(MARK)) return param;
  const bytes = param.slice(MARK.length).match(/../g) ?? [];
  return new TextDecoder().decode(Uint8Array.from(bytes, (b) => parseInt(b, 16)));
}

/** The page of a job, or of one of its steps; a job opens where it stands. */
export const jobPath = (id: string, step?: StepId): string => {
  const jobId = toParam(id);
  return step ? href(`/jobs/:jobId/${step}`, { jobId }) : href("/jobs/:jobId", { jobId });
};
export const handoverPath = (job: string): string => href("/jobs/:jobId/handover", { jobId: toParam(job) });
export const carryPath = (job: string): string => href("/jobs/:jobId/carry", { jobId: toParam(job) });
export const sheetPath = (job: string): string => href("/jobs/:jobId/sheet", { jobId: toParam(job) });
/** Of a job whose make is not known here. */
export const keptPath = (job: string): string => href("/jobs/:jobId/kept", { jobId: toParam(job) });
export const vehiclePath = (id: string): string => href("/vehicles/:vehicleId", { vehicleId: toParam(id) });
export const vehicleEditPath = (id: string): string => href("/vehicles/:vehicleId/edit", { vehicleId: toParam(id) });
export const historyPath = (vehicle: string): string =>
  href("/vehicles/:vehicleId/history", { vehicleId: toParam(vehicle) });
export const simulatedPath = (vehicle: string): string =>
  href("/simulated/:vehicleId", { vehicleId: toParam(vehicle) });

/** The pages of a make, in the order of the job. */
export const MAKE_PARTS = ["vehicle", "way", "plug", "talk", "codes", "clears", "hand-over"] as const;
export type MakePart = (typeof MAKE_PARTS)[number];

/** The page of a make, or of one part of it. */
export const makePath = (id: string, part?: MakePart): string => {
  const packId = toParam(id);
  return part ? href(`/makes/:packId/${part}`, { packId }) : href("/makes/:packId", { packId });
};
export const glovePath = (id: string): string => href("/makes/:packId/page", { packId: toParam(id) });
