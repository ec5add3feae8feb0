import { decode } from "@core/flash/decode";
import { evidenceOfCase, readDialects, readText, type Case } from "./read";

/** Decodes each case of a file; a bad line is named on standard error and the rest goes on. Exit code 1 if any was bad. */
export function decodeCases(given: Map<string, string>): number {
  const dialectFile = given.get("dialects");
  const caseFile = given.get("cases");
  if (!dialectFile || !caseFile) {
    console.error("decode needs --dialects D.json and --cases F.jsonl");
    return 2;
  }
  const dialects = readDialects(dialectFile);
  let bad = 0;
  for (const [i, line] of readText(caseFile).split("\n").entries()) {
    if (!line.trim()) continue;
    try {
      const c = JSON.parse(line) as Case;
      const dialect = dialects.get(c.dialect);
      if (!dialect) throw new Error(`dialect "${c.dialect}" is not in ${dialectFile}`);
      const d = decode(dialect, evidenceOfCase(c), given.has("table") && c.table ? { table: c.table } : {});
      const { state, codes, memories, cylinders, complete, confidence, codeConfidence } = d;
      console.log(
        JSON.stringify({ id: c.id, state, codes, memories, cylinders, complete, confidence, codeConfidence }),
      );
    } catch (error) {
      bad++;
      console.error(`line ${i + 1}: ${(error as Error).message}`);
    }
  }
  return bad ? 1 : 0;
}
