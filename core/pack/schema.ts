import Joi from "joi";
import { dialectSchema } from "../flash/dialect-schema";
import { PLACES, type Pack, type Scope } from "./pack";
import { brokenReferences, type PackFault } from "./references";
import { ways } from "./way-schema";
import { id, line, list, text } from "./words";

export const PACK_MAX_BYTES = 2_000_000;

const year = Joi.number().integer().min(1950).max(2035);
const years = Joi.array().ordered(year.required(), year.required()).length(2);
const scope = Joi.object<Scope>({
  years,
  engines: Joi.array().items(line).min(1),
  markets: Joi.array().items(line).min(1),
});

const entry = Joi.object({
  code: Joi.string()
    .pattern(/^[1-9]\d{0,3}$/, "a number without leading zero")
    .required(),
  kind: Joi.string().valid("fault", "status").required(),
  scope,
  circuit: line.required(),
  title: line.required(),
  sets: text.required(),
  affects: text.required(),
  lookFirst: Joi.array().items(text).min(1).max(8).required(),
  first: text,
  caution: text,
  details: Joi.array()
    .items(Joi.object({ title: line.required(), tell: text.required() }))
    .min(1)
    .max(12),
});

const output = Joi.object({ id: id.required(), name: line.required(), expect: line.required(), feed: line });

export const packSchema = Joi.object<Pack>({
  format: Joi.string().valid("klinko-pack").required(),
  version: Joi.number().valid(1).required(),
  id: id.required(),
  make: line.required(),
  title: line.required(),
  revision: line.required(),
  source: text.required(),
  systems: list(
    Joi.object({
      id: id.required(),
      name: line.required(),
      unit: line.required(),
      lamp: line.required(),
      feed: line,
      ground: line,
      drives: Joi.array().items(output).max(12).unique("id"),
      caution: text,
      sameTableAs: id,
    }),
    12,
  ).unique("id"),
  dialects: list(dialectSchema, 12).unique("id"),
  connectors: list(
    Joi.object({
      id: id.required(),
      name: line.required(),
      size: Joi.array().items(Joi.number().min(10).max(2000)).length(2).required(),
      shape: Joi.string().valid("block", "round-ended", "round", "trapezoid").required(),
      notch: Joi.string().valid("top", "bottom", "left", "right", "none").required(),
      colour: line.required(),
      where: text.required(),
      orElse: Joi.array().items(text).max(8),
      place: Joi.string()
        .valid(...PLACES)
        .required(),
      symbols: Joi.array().items(line).max(8),
      lookAlike: text,
      cavities: list(
        Joi.object({
          id: Joi.string()
            .pattern(/^[A-Z0-9]{1,3}$/)
            .required(),
          at: Joi.array().items(Joi.number().min(0).max(2000)).length(2).required(),
          role: Joi.string().valid("ground", "test", "power", "signal", "airbag", "empty").required(),
          system: id,
          wire: line,
        }),
        60,
      ).unique("id"),
    }),
    20,
  ).unique("id"),
  ways,
  variants: list(
    Joi.object({
      id: id.required(),
      model: line.required(),
      years: years.required(),
      engines: list(
        Joi.object({
          id: line.required(),
          name: line.required(),
          cylinders: Joi.number().integer().min(1).max(16).required(),
        }),
        20,
      ).min(1),
      markets: list(line, 20).min(1),
      systems: list(Joi.object({ system: id.required(), way: id.required(), scope, lamp: line }), 20),
      traps: Joi.array()
        .items(Joi.object({ scope, text: text.required(), outside: Joi.boolean() }))
        .max(20),
    }),
    60,
  ).unique("id"),
  tables: list(Joi.object({ id: id.required(), system: id.required(), scope, entries: list(entry, 1000) }), 40).unique(
    "id",
  ),
  clears: list(
    Joi.object({
      id: id.required(),
      title: line.required(),
      system: id.required(),
      wipes: Joi.array().items(id).min(1).max(40).unique(),
      each: Joi.string().valid("code"),
      kind: Joi.string().valid("fuse", "battery", "button", "submode").required(),
      seconds: Joi.number().min(1).max(7200).required(),
      what: text.required(),
      trap: text,
      costs: list(
        Joi.object({
          id: Joi.string().valid("radio-code", "clock", "learned-idle", "readiness", "time").required(),
          text: text.required(),
        }),
        10,
      ),
      steps: list(text, 12).min(1),
      afterwards: list(text, 8),
      caution: text,
    }),
    20,
  ).unique("id"),
  proving: Joi.object({
    idleMinutes: Joi.number().min(0).max(120).required(),
    drive: text.required(),
    driveMinutes: Joi.number().min(1).max(600),
    readiness: text.required(),
  }).required(),
});

export type { PackFault };

/** Checks a pack and all that it points to. Every fault with its path, or the pack. */
export function checkPack(value: unknown): { pack: Pack } | { faults: PackFault[] } {
  const checked = packSchema.validate(value, { abortEarly: false, convert: false });
  if (checked.error)
    return {
      faults: checked.error.details.map((d) => ({
        path: pathText(d.path),
        message: d.message.replace(/^"[^"]*" /, ""),
      })),
    };
  const faults = brokenReferences(checked.value);
  return faults.length ? { faults } : { pack: checked.value };
}

/** The same rules as a JSON Schema, for editors and other programs. What points from one place to another it cannot hold. */
export function packJsonSchema(): object {
  const schema = packSchema["~standard"].jsonSchema.input({ target: "draft-2020-12" });
  return { $schema: "https://json-schema.org/draft/2020-12/schema", title: "Klinko pack, version 1", ...schema };
}

/** Reads a pack from text. */
export function readPack(json: string): { pack: Pack } | { faults: PackFault[] } {
  if (json.length > PACK_MAX_BYTES)
    return {
      faults: [{ path: "(file)", message: `is larger than ${PACK_MAX_BYTES / 1e6} MB. A pack is a few hundred kB.` }],
    };
  let value: unknown;
  const reserved = new Set<string>();
  try {
    value = JSON.parse(json, (key, v: unknown) => {
      if (RESERVED.includes(key)) reserved.add(key);
      return v;
    });
  } catch (e) {
    return { faults: [{ path: "(file)", message: `is not JSON: ${(e as Error).message}` }] };
  }
  if (reserved.size)
    return { faults: [...reserved].map((key) => ({ path: "(file)", message: `uses the name "${key}" for a field, which no pack has: take it out` })) }; // prettier-ignore
  return checkPack(value);
}

/** Names that reach into the objects of the language itself. */
const RESERVED = ["__proto__", "constructor", "prototype"];

function pathText(path: (string | number)[]): string {
  return (
    path
      .map((p) => (typeof p === "number" ? `[${p}]` : `.${p}`))
      .join("")
      .replace(/^\./, "") || "(file)"
  );
}
