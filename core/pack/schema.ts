import Joi from "joi";
import { dialectSchema } from "../flash/dialect-schema";
import type { Pack, Scope } from "./pack";

export const PACK_MAX_BYTES = 2_000_000;

const id = Joi.string().pattern(/^[a-z0-9][a-z0-9-]{0,39}$/, "small letters, digits and dashes");
const line = Joi.string().min(1).max(200);
const text = Joi.string().min(1).max(1000);
const year = Joi.number().integer().min(1950).max(2035);
const years = Joi.array().ordered(year.required(), year.required()).length(2);
const scope = Joi.object<Scope>({
  years,
  engines: Joi.array().items(line).min(1),
  markets: Joi.array().items(line).min(1),
});
const list = (items: Joi.Schema, max: number) => Joi.array().items(items).max(max).required();

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
});

const packSchema = Joi.object<Pack>({
  format: Joi.string().valid("klinko-pack").required(),
  version: Joi.number().valid(1).required(),
  id: id.required(),
  make: line.required(),
  title: line.required(),
  revision: line.required(),
  source: text.required(),
  systems: list(
    Joi.object({ id: id.required(), name: line.required(), unit: line.required(), lamp: line.required() }),
    12,
  ).unique("id"),
  dialects: list(dialectSchema, 12).unique("id"),
  connectors: list(
    Joi.object({
      id: id.required(),
      name: line.required(),
      size: Joi.array().items(Joi.number().min(10).max(2000)).length(2).required(),
      shape: Joi.string().valid("block", "round-ended").required(),
      notch: Joi.string().valid("top", "bottom", "left", "right", "none").required(),
      colour: line.required(),
      where: text.required(),
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
  ways: list(
    Joi.object({
      id: id.required(),
      title: line.required(),
      method: Joi.string()
        .pattern(/^[A-K]$/)
        .required(),
      connector: id.required(),
      bridge: Joi.array().items(Joi.string()).length(2).required(),
      dialect: Joi.string().required(),
      preconditions: list(text, 12),
      steps: list(
        Joi.object({
          id: id.required(),
          title: line.required(),
          text: text.required(),
          key: Joi.string().valid("off", "on", "any").required(),
          wire: Joi.string().valid("in", "out", "any").required(),
          caution: text,
        }),
        20,
      ).min(1),
      nothingHappens: list(text, 12),
    }),
    20,
  ).unique("id"),
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
      systems: list(Joi.object({ system: id.required(), way: id.required(), scope }), 20),
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
      kind: Joi.string().valid("fuse", "battery").required(),
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
    readiness: text.required(),
  }).required(),
});

/** One thing wrong in a file: where, and what to do. */
export interface PackFault {
  path: string;
  message: string;
}

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
  const faults = pointers(checked.value);
  return faults.length ? { faults } : { pack: checked.value };
}

/** Reads a pack from text. */
export function readPack(json: string): { pack: Pack } | { faults: PackFault[] } {
  if (json.length > PACK_MAX_BYTES)
    return {
      faults: [{ path: "(file)", message: `is larger than ${PACK_MAX_BYTES / 1e6} MB. A pack is a few hundred kB.` }],
    };
  let value: unknown;
  try {
    value = JSON.parse(json);
  } catch (e) {
    return { faults: [{ path: "(file)", message: `is not JSON: ${(e as Error).message}` }] };
  }
  return checkPack(value);
}

function pathText(path: (string | number)[]): string {
  return (
    path
      .map((p) => (typeof p === "number" ? `[${p}]` : `.${p}`))
      .join("")
      .replace(/^\./, "") || "(file)"
  );
}

/** What a schema cannot see: references, and entries that would answer for the same vehicle at once. */
function pointers(pack: Pack): PackFault[] {
  const faults: PackFault[] = [];
  const need = (known: { id: string }[], wanted: string, path: string, what: string) => {
    if (!known.some((k) => k.id === wanted))
      faults.push({
        path,
        message: `names ${what} "${wanted}", which is not in this pack (it has ${known.map((k) => k.id).join(", ") || "none"})`,
      });
  };
  for (const [i, way] of pack.ways.entries()) {
    need(pack.dialects, way.dialect, `ways[${i}].dialect`, "the dialect");
    need(pack.connectors, way.connector, `ways[${i}].connector`, "the connector");
    const connector = pack.connectors.find((c) => c.id === way.connector);
    for (const [k, cavity] of way.bridge.entries()) {
      const found = connector?.cavities.find((c) => c.id === cavity);
      if (connector && !found)
        faults.push({
          path: `ways[${i}].bridge[${k}]`,
          message: `names cavity ${cavity}, which ${connector.name} does not have`,
        });
      else if (found && (found.role === "power" || found.role === "airbag"))
        faults.push({
          path: `ways[${i}].bridge[${k}]`,
          message: `bridges cavity ${cavity}, which carries ${found.role}: never bridge that`,
        });
    }
  }
  for (const [i, v] of pack.variants.entries())
    for (const [k, s] of v.systems.entries()) {
      need(pack.systems, s.system, `variants[${i}].systems[${k}].system`, "the system");
      need(pack.ways, s.way, `variants[${i}].systems[${k}].way`, "the way");
    }
  for (const [i, c] of pack.connectors.entries())
    for (const [k, cavity] of c.cavities.entries())
      if (cavity.system) need(pack.systems, cavity.system, `connectors[${i}].cavities[${k}].system`, "the system");
  for (const [i, c] of pack.clears.entries()) need(pack.systems, c.system, `clears[${i}].system`, "the system");
  for (const [i, t] of pack.tables.entries()) {
    need(pack.systems, t.system, `tables[${i}].system`, "the system");
    const seen = new Map<string, number>();
    for (const [k, e] of t.entries.entries()) {
      const key = `${e.code} ${JSON.stringify(e.scope ?? null)}`;
      if (seen.has(key))
        faults.push({
          path: `tables[${i}].entries[${k}]`,
          message: `is code ${e.code} for the same vehicles as entries[${seen.get(key)}]: give one a scope or remove it`,
        });
      seen.set(key, k);
    }
  }
  return faults;
}
