import { END_WORDS } from "@core/job/end";
import type { LampSeen } from "@core/procedure/lamp-check";
import type { Conflict, Joined } from "@core/record/join";
import type { Job, Reading, Vehicle } from "@core/record/types";
import { shortDate, shortTime } from "~/store/format";
import { vehicleName } from "~/store/vehicle-name";
import type { DifferenceTold } from "~/workers/records.worker";
import { IMMOBILISER, RADIO } from "~/ui/keep-alive";

/** What fields of records are called: one of them, and several. */
const FIELDS: Readonly<Record<string, readonly [one: string, many?: string]>> = {
  plate: ["plate"],
  pack: ["make, model and year"],
  radio: ["the radio after a power cut"],
  immobiliser: ["the immobiliser after a power cut"],
  inspection: ["next inspection"],
  drivesAWeek: ["drives a week"],
  archivedAt: ["the archive"],
  changes: ["change on it", "changes on it"],
  drives: ["drive", "drives"],
  work: ["entry of work or mileage", "entries of work or mileage"],
  photo: ["its photo"],
  title: ["title"],
  openedAt: ["day it was opened"],
  closedAt: ["how it ended"],
  handOver: ["who works on it"],
  lampCheck: ["lamp check"],
  system: ["system that is read"],
  counting: ["the count until it wipes itself"],
  notebook: ["line of the notebook", "lines of the notebook"],
  repairs: ["repair", "repairs"],
  checks: ["check", "checks"],
  rides: ["ride", "rides"],
  clears: ["clear", "clears"],
  relearned: ["thing learned anew", "things learned anew"],
  done: ["step done", "steps done"],
  reading: ["the whole reading"],
};

const LAMP_SEEN: Record<LampSeen, string> = {
  steady: "the lamp was steady",
  dark: "the lamp was dark",
  flashing: "the lamp flashed",
  "goes-out": "the lamp went out",
};

const nameOf = (field: string): readonly [one: string, many?: string] => {
  const own = Object.hasOwn(FIELDS, field) ? FIELDS[field] : undefined;
  if (own) return own;
  const [first, ...rest] = field.split(".");
  return first === "story" ? [`story: ${rest.join(" ")}`] : [field];
};

/** A field as the label of a choice. */
export const fieldLabel = (field: string): string => {
  const [one] = nameOf(field);
  return one[0].toUpperCase() + one.slice(1);
};

/** "2 lines of the notebook, 1 repair, next inspection" */
export const gainsText = (gains: Joined["gains"]): string =>
  gains
    .map(({ field, n }) => {
      const [one, many] = nameOf(field);
      return many ? `${n} ${n === 1 ? one : many}` : one;
    })
    .join(", ");

const LONGEST = 90;
const cut = (text: string): string => (text.length > LONGEST ? `${text.slice(0, LONGEST)} …` : text);

/** What one side of a conflict says, in a few words. */
export function sideText({ field }: Conflict, value: unknown): string {
  if (field === "closedAt") {
    const { closedAt, end, verdict } = value as Partial<Job>;
    if (!closedAt) return "still open";
    return cut(`${end ? END_WORDS[end] : "closed"} ${shortDate(closedAt)}${verdict ? `: ${verdict}` : ""}`);
  }
  if (field === "pack") return `${vehicleName(value as Vehicle)}, ${(value as Vehicle).year}`;
  if (field === "reading") {
    const { result, marks, recordedAt } = value as Reading;
    const codes = result?.codes.length ? `codes ${result.codes.join(", ")}` : "no codes";
    return `${recordedAt ? codes : "not recorded"} (${marks.length} marks)`;
  }
  if (field === "radio") return RADIO.find((o) => o.value === value)?.label ?? "";
  if (field === "immobiliser") return IMMOBILISER.find((o) => o.value === value)?.label ?? "";
  if (field === "lampCheck") {
    const { seen, at } = value as NonNullable<Job["lampCheck"]>;
    return `${LAMP_SEEN[seen]}, ${shortTime(at)}`;
  }
  if (field === "counting") return `begun ${shortTime((value as NonNullable<Job["counting"]>).startedAt)}`;
  if (typeof value === "string" && /^\d{4}-\d\d-\d\d(T|$)/.test(value)) return shortDate(value);
  if (typeof value === "boolean") return value ? "yes" : "no";
  return cut(typeof value === "string" ? value : JSON.stringify(value));
}

/** What a record is called beside others of its vehicle. */
export const recordText = ({ kind, title, at }: DifferenceTold["called"]): string =>
  kind === "vehicle"
    ? "The vehicle itself"
    : kind === "job"
      ? `Job: ${title || shortDate(at)}`
      : `Reading of ${shortDate(at)}`;
