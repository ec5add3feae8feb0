import { packJsonSchema, readPack } from "@core/pack/schema";
import { recordsJsonSchema } from "@core/record/json-schema";
import { readText } from "./read";

/** Writes the JSON Schema of the pack format. */
export function packSchemaOut(): number {
  console.log(JSON.stringify(packJsonSchema(), null, 2));
  return 0;
}

/** Writes the JSON Schema of a file of records. */
export function recordsSchemaOut(): number {
  console.log(JSON.stringify(recordsJsonSchema(), null, 2));
  return 0;
}

/** Checks a pack file; every fault with its path on a line of its own. Exit code 1 where there is one. */
export function packCheck(file: string | undefined): number {
  if (!file) {
    console.error("Name the file: klinko pack check FILE (or - for standard input).");
    return 2;
  }
  let text: string;
  try {
    text = readText(file);
  } catch (e) {
    console.error(`${file} cannot be read: ${(e as Error).message}`);
    return 2;
  }
  const got = readPack(text);
  if ("pack" in got) {
    const { pack, unknown } = got;
    for (const f of unknown) console.log(`${f.path}: ${f.message}`);
    const codes = pack.tables.reduce((n, t) => n + t.entries.length, 0);
    console.log(`${file} is a good pack: ${pack.title}, ${pack.ways.length} ways, ${codes} codes.`);
    return 0;
  }
  for (const f of got.faults) console.log(`${f.path}: ${f.message}`);
  console.log(`${got.faults.length} ${got.faults.length === 1 ? "fault" : "faults"} in ${file}.`);
  return 1;
}
