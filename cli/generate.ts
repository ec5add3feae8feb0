import { makeCase, type CaseMode } from "@core/cases/case";
import { PROFILES, type Profile } from "@core/cases/watchers";
import { readDialects } from "./read";

const MODES: readonly CaseMode[] = ["edges", "taps", "holds", "counts", "levels", "button"];

/** Writes made-up cases, one JSON line each: for fits and for figures beside those of the open corpora. */
export function generate(given: Map<string, string>): number {
  const file = given.get("dialects");
  if (!file) {
    console.error("generate needs --dialects D.json");
    return 2;
  }
  const modes = (given.get("modes")?.split(",") ?? MODES) as CaseMode[];
  const profiles = (given.get("profiles")?.split(",") ?? PROFILES) as Profile[];
  const n = Number(given.get("n") ?? 10);
  const first = Number(given.get("seed") ?? 1) * 100_000;
  const only = given.get("only")?.split(",");
  for (const dialect of readDialects(file).values()) {
    if (only && !only.includes(dialect.id)) continue;
    const able = dialect.advance === "button" ? ["button", "counts"] : MODES.filter((m) => m !== "button");
    for (const mode of modes.filter((m) => able.includes(m)))
      for (const profile of profiles)
        for (let k = 0; k < n; k++) console.log(JSON.stringify(makeCase(dialect, mode, profile, first + k)));
  }
  return 0;
}
