import { decode } from "@core/flash/decode";
import { eachCase, evidenceOfCase, readDialects } from "./read";

/** Decodes each case of a file, one JSON line a case. Nothing of a case is read but dialect, mode, data, until (and its table, when asked). */
export function decodeCases(given: Map<string, string>): number {
  const dialectFile = given.get("dialects");
  const caseFile = given.get("cases");
  if (!dialectFile || !caseFile) {
    console.error("decode needs --dialects D.json and --cases F.jsonl");
    return 2;
  }
  const dialects = readDialects(dialectFile);
  return eachCase(caseFile, (c) => {
    const dialect = dialects.get(c.dialect);
    if (!dialect) throw new Error(`dialect "${c.dialect}" is not in ${dialectFile}`);
    const d = decode(dialect, evidenceOfCase(c), given.has("table") && c.table ? { table: c.table } : {});
    const { state, codes, memories, cylinders, complete, confidence, codeConfidence } = d;
    console.log(JSON.stringify({ id: c.id, state, codes, memories, cylinders, complete, confidence, codeConfidence }));
  });
}
