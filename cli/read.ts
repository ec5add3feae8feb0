import { readFileSync } from "node:fs";
import Joi from "joi";
import type { Dialect } from "@core/flash/dialect/dialect";
import { dialectCheck } from "@core/flash/dialect/dialect-check";
import { holds, list } from "@core/schema/rule";
import type { Called, Evidence, Filmed, Press, Pressed } from "@core/flash/seen/evidence";

/** A file's text; `-` is standard input. */
export function readText(file: string): string {
  return readFileSync(file === "-" ? 0 : file, "utf8");
}

/** Dialects from a JSON file, each held against the schema. */
export function readDialects(file: string): Map<string, Dialect> {
  const held = holds(list(dialectCheck, { max: 10_000 }), JSON.parse(readText(file)), { unknown: "fault", all: true });
  if ("faults" in held)
    throw new Error(`${file}: ${held.faults.map((f) => `${f.path.join(".")}: ${f.message}`).join("; ")}`);
  return new Map(held.value.map((d) => [d.id, d]));
}

export interface Case {
  id: string;
  dialect: string;
  mode: string;
  until?: number;
  table?: string[];
  data: unknown;
}

const time = Joi.number().unsafe().required();
const rows = (item: Joi.Schema) => Joi.array().items(item).required();
const data: Record<string, Joi.Schema> = {
  edges: rows(Joi.array().ordered(time, Joi.valid(0, 1).required())),
  holds: rows(Joi.array().ordered(time, time)),
  taps: rows(Joi.alternatives(Joi.number().unsafe(), Joi.array().ordered(time, Joi.valid("s", "l").required()))),
};

data.counts = rows(Joi.alternatives(Joi.number().unsafe(), Joi.array().ordered(time, time)));
data.button = rows(Joi.object({ press: time, edges: data.edges.optional(), taps: data.taps.optional() }));

data.levels = Joi.object({ t: rows(time), y: rows(time) }).assert(
  ".y.length",
  Joi.ref("t.length"),
  "one value a frame",
);

export const DECODED_MODES = Object.keys(data);

/** The evidence of a case: only its mode, data and until are looked at. */
export function evidenceOfCase(c: Case): Evidence | Filmed | Called | Pressed {
  const schema = Object.hasOwn(data, c.mode) ? data[c.mode] : null;
  if (!schema) throw new Error(`mode "${c.mode}" is not read yet (${DECODED_MODES.join(", ")} are)`);
  const { error } = schema.validate(c.data, { convert: false });
  if (error) throw new Error(`data: ${error.message}`);
  if (c.mode === "counts") return { mode: "counts", counts: c.data as Called["counts"] };
  if (c.mode === "button") {
    const presses = c.data as Omit<Press, "until">[];
    // Without an end of watching the last press is taken to have been watched to a rest.
    const last = presses.at(-1);
    const end =
      Math.max(
        0,
        ...(last?.edges?.map(([t]) => t) ?? []),
        ...(last?.taps ?? []).map((t) => (typeof t === "number" ? t : t[0])),
      ) + 5000;
    return { mode: "button", presses: presses.map((p) => ({ ...p, until: c.until ?? end })) };
  }
  if (typeof c.until !== "number") throw new Error("until is missing: when did watching stop?");
  return { mode: c.mode, [c.mode]: c.data, until: c.until } as unknown as Evidence;
}

/** Goes through the cases of a file; a bad line is named on standard error and the rest goes on. Exit code 1 if any was bad. */
export function eachCase(file: string, each: (c: Case) => void): number {
  let bad = 0;
  for (const [i, line] of readText(file).split("\n").entries()) {
    if (!line.trim()) continue;
    try {
      each(JSON.parse(line) as Case);
    } catch (error) {
      bad++;
      console.error(`line ${i + 1}: ${(error as Error).message}`);
    }
  }
  return bad ? 1 : 0;
}
