import { identify } from "@core/flash/identify";
import { eachCase, evidenceOfCase, readDialects } from "./read";

/** Ranks the dialects for each case of a file, by its mode, data and until alone. */
export function identifyCases(given: Map<string, string>): number {
  const dialectFile = given.get("dialects");
  const caseFile = given.get("cases");
  if (!dialectFile || !caseFile) {
    console.error("identify needs --dialects D.json and --cases F.jsonl");
    return 2;
  }
  const dialects = [...readDialects(dialectFile).values()];
  return eachCase(caseFile, (c) => {
    const evidence = evidenceOfCase(c);
    if (evidence.mode === "counts" || evidence.mode === "button")
      throw new Error(`a dialect cannot be told from ${evidence.mode}: there are no times`);
    const { ranked, none, even } = identify(dialects, evidence);
    console.log(JSON.stringify({ id: c.id, ranking: ranked, none, even }));
  });
}
