import { BACKUP_VERSION } from "./backup";
import { jobRule, readingRule, vehicleRule } from "./types";

const DRAFT = "draft-2020-12";

/** The rules of records, and of the file that holds them, as a JSON Schema, for other programs. What points from one record to another it cannot hold. */
export function recordsJsonSchema(): object {
  const [vehicle, job, reading] = [vehicleRule, jobRule, readingRule].map((r) =>
    r.joi()["~standard"].jsonSchema.input({ target: DRAFT }),
  );
  const named = (kind: string) => ({ [`^${kind}/`]: { $ref: `#/$defs/${kind}` } });
  const picture = {
    type: "object",
    properties: {
      vehicle: { type: "string" },
      of: { type: "string" },
      at: { type: "string", format: "date-time" },
      data: { type: "string", pattern: "^data:" },
    },
    required: ["vehicle", "of", "at", "data"],
  };
  return {
    $schema: "https://json-schema.org/draft/2020-12/schema",
    title: `Klinko file of records, version ${BACKUP_VERSION}`,
    type: "object",
    properties: {
      format: { const: "klinko-backup" },
      version: { const: BACKUP_VERSION },
      savedAt: { type: "string", format: "date-time" },
      records: { type: "object", patternProperties: { ...named("vehicle"), ...named("job"), ...named("reading") } },
      makes: { type: "object", description: "Packs by their ids: pack.schema.json." },
      notes: { type: "object" },
      photos: { type: "object", additionalProperties: picture },
      films: { type: "object", additionalProperties: picture },
      sha256: { type: "string" },
    },
    required: ["format", "version", "savedAt", "records"],
    $defs: { vehicle, job, reading },
  };
}
