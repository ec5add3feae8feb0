/** Codes of one reading, for comparing. */
export interface CodesRead {
  codes: readonly string[];
  /** The list was seen whole: a code that is not in it is not stored. */
  complete: boolean;
}

/** What the vehicle did between the clear and the reading that followed. */
export type RunSince = "key-on" | "idle" | "drive";

export interface AfterClear extends CodesRead {
  run: RunSince;
}

/**
 * - `hard`: back at once, with the key on or at idle
 * - `intermittent`: back only after a drive
 * - `history`: stays away after a drive
 * - `quiet`: has not come back yet, but nothing has been driven that would set it
 * - `new`: was not there before
 */
export type Persistence = "hard" | "intermittent" | "history" | "quiet" | "new";

export interface Comparison {
  code: string;
  before: boolean;
  /** For each reading after the clear: there, not there, or not known (list not seen whole). */
  after: (boolean | null)[];
  persistence: Persistence;
}

/** Classifies every code by what returned and when. `after` is in the order of time. */
export function compareReadings(before: CodesRead, after: readonly AfterClear[]): Comparison[] {
  const codes = [...new Set([...before.codes, ...after.flatMap((a) => a.codes)])];
  return codes.map((code) => {
    const seen = after.map((a) => (a.codes.includes(code) ? true : a.complete ? false : null));
    const firstBack = after.findIndex((a) => a.codes.includes(code));
    const wasThere = before.codes.includes(code);
    let persistence: Persistence;
    if (!wasThere) persistence = "new";
    else if (firstBack >= 0) persistence = after[firstBack].run === "drive" ? "intermittent" : "hard";
    else persistence = after.some((a, i) => a.run === "drive" && seen[i] === false) ? "history" : "quiet";
    return { code, before: wasThere, after: seen, persistence };
  });
}

/** One sentence on where the repair stands. */
export function verdictSentence(rows: readonly Comparison[], readings: number): string {
  if (readings === 0) return "Nothing is proven yet: read the lamp again after the clear.";
  const of = (p: Persistence) => rows.filter((r) => r.persistence === p).map((r) => r.code);
  const hard = of("hard");
  const some = of("intermittent");
  const fresh = of("new");
  const quiet = of("quiet");
  const gone = of("history");
  const parts: string[] = [];
  if (hard.length)
    parts.push(
      `${list(hard)} came back at once: ${hard.length > 1 ? "hard faults that are" : "a hard fault that is"} there now`,
    );
  if (some.length) parts.push(`${list(some)} came back on the road: intermittent`);
  if (fresh.length) parts.push(`${list(fresh)} ${fresh.length > 1 ? "are" : "is"} new`);
  if (gone.length) parts.push(`${list(gone)} stayed away over a drive: history`);
  if (quiet.length)
    parts.push(
      `${list(quiet)} ${quiet.length > 1 ? "have" : "has"} not come back yet, but was not driven under the conditions that set it`,
    );
  if (!parts.length) return "No code was stored before or after: nothing to prove.";
  const text = parts.join("; ");
  const end =
    hard.length || some.length || fresh.length
      ? "Not fixed."
      : quiet.length
        ? "Not proven: drive, then read again."
        : "Fixed, as far as this drive can show.";
  return `${text[0].toUpperCase()}${text.slice(1)}. ${end}`;
}

function list(codes: readonly string[]): string {
  return codes.length < 2 ? codes.join("") : `${codes.slice(0, -1).join(", ")} and ${codes.at(-1)}`;
}
