import { inputOf } from "../record/inputs";
import type { JobCase } from "./case";
import { accessOf } from "./case";
import type { Judgement } from "./judge";
import type { Known } from "./known";
import type { Persistence, Proof, Row } from "./proof";
import type { Evidence, Statement } from "./statement";
import { listOf, lower } from "../wording";
import { atLeast, type Doubt } from "./told";

/** Statements in words. What is certain is said plainly, what is likely with that word, what is neither with what would settle it. */

export { listOf, lower };

/** Codes as they are named among themselves: those of the live list apart from the memory's. */
function codesText(codes: readonly { code: string; memory: string | null }[]): string {
  const of = (m: string | null) => codes.filter((x) => x.memory === m).map((x) => x.code);
  const [live, stored, plain] = [of("live"), of("stored"), of(null)];
  return [
    plain.join(", "),
    live.length ? `${live.join(", ")} there now` : "",
    stored.length ? `${stored.join(", ")} in memory` : "",
  ]
    .filter(Boolean)
    .join("; ");
}

/** What a system's readings say, in a line for the notebook. */
export function sayKnown(name: string, k: Known): string {
  const of = `Read ${lower(name)}: `;
  const last = k.last;
  switch (k.answer) {
    case "not-read":
      return `${of}not read.`;
    case "unclear":
      return `${of}no code could be read.`;
    case "no-answer":
      return `${of}no answer. The lamp ${last?.reading.rested === "lit" ? "only stayed lit" : "stayed dark"}, which this unit never does when it is asked rightly.`;
    case "other-unit":
      return `${of}nothing. Another unit answered${last?.other ? `: ${lower(last.other.name)}` : ""}.`;
    case "none":
      return k.none === "certain"
        ? `${of}nothing stored.`
        : k.none === "likely"
          ? `${of}most likely nothing stored.`
          : `${of}looks like nothing stored, not proven.`;
    case "codes": {
      const sure = k.codes.every((x) => x.sure === "certain")
        ? "certain"
        : k.codes.every((x) => atLeast(x.sure, "likely"))
          ? "likely"
          : "unsure";
      const whole =
        k.whole === "certain"
          ? "list seen whole"
          : k.whole === "likely"
            ? "list most likely whole"
            : "list not seen whole";
      return `${of}${codesText(k.codes)} (${sure}, ${whole}).`;
    }
  }
}

/** What would settle a doubt: something to do. */
export function settles(d: Doubt, nameOf: (system: string) => string): string {
  switch (d.kind) {
    case "look":
      return d.look.what === "lamp"
        ? `Look which lamp blinks, and say so: ${d.look.options.join(" or ")}.`
        : `Look where the signal lead sits, and say so: ${d.look.options.join(" or ")}.`;
    case "heard-once":
      return "Heard without a slip only once: one more round settles it.";
    case "rival":
      return "Another list fits nearly as well: one more round tells them apart.";
    case "not-round":
      return "The list has not come round: more may follow.";
    case "shown-once":
      return "It shows its list once per start, so a slip cannot be spotted: read it a second time.";
    case "no-table":
      return `${listOf(d.codes)} ${d.codes.length === 1 ? "is" : "are"} in no table of this vehicle: a miscount, or another year's table. Read once more.`;
    case "other-table":
      return `These codes stand in the table of the ${lower(nameOf(d.system))}, not in this one: was it that lamp?`;
    case "start-unseen":
      return "It is shown once, and the start was not seen: tell when the key goes on, then read again.";
    case "told-start":
      return "Where counting began is your word, and the digits hang on it: tap the flashes once to settle it.";
    case "typed":
      return "Copied off the display by eye, so likely at most: look once more, character by character.";
    case "looks-alike":
      return d.way === "no-contact"
        ? "A wire without contact looks the same. Bare the wire, push it in until it grips, and read again."
        : d.way === "no-power"
          ? "A unit without power looks the same. Does the lamp light for a moment as the key goes on?"
          : "It looks the same when nobody asks. Check the hook-up, and read again.";
    case "talk-assumed":
      return "Nobody has said how this lamp talks. Tell it with the make, or let Klinko learn it from the lamp.";
    case "old":
      return "Recorded by an older Klinko, which did not keep how it was heard. Read once more.";
  }
}

/** What a statement rests on, line by line: the answer to "why?". */
export function why(s: Statement, c: Pick<JobCase, "systems" | "pack">, time: (iso: string) => string): string[] {
  const nameOf = (system: string) => accessOf(c, system)?.name ?? system;
  const doubts = s.doubts.map((d) => settles(d, nameOf));
  return [...new Set([...s.evidence.map((e) => evidenceText(e, c, time)), ...doubts])];
}

function evidenceText(e: Evidence, c: Pick<JobCase, "pack">, time: (iso: string) => string): string {
  switch (e.kind) {
    case "reading":
      return `Read ${time(e.at)} ${inputOf(e.input).said}${RAN[e.run] ? `, ${RAN[e.run]}` : ""}.`;
    case "clear":
      return `${c.pack.clears.find((w) => w.id === e.way)?.title ?? e.way}, ${time(e.at)}, ${Math.round(e.seconds)} s.`;
    case "heard":
      return `${e.code}: heard without a slip ${e.times === 1 ? "once" : `${e.times} times`}.`;
    case "lamp-check":
      return `Lamp check ${time(e.at)}.`;
    case "told":
      return {
        drive: "You told of the drive.",
        idle: "You told that it idled.",
        lamp: "You looked which lamp it was.",
        socket: "You looked where the signal lead sat.",
      }[e.what];
  }
}

const RAN: Record<string, string> = {
  "key-on": "only switched on since the clear",
  idle: "idled since the clear",
  drive: "driven since the clear",
};

/** What persistence means, in a word and a few. */
export const PERSISTENCE: Record<Persistence, { word: string; text: string }> = {
  hard: { word: "hard", text: "there at once" },
  intermittent: { word: "intermittent", text: "back on the road" },
  back: { word: "back", text: "at once or on the road, not known" },
  still: { word: "still stored", text: "back at once, or never wiped" },
  gone: { word: "history", text: "stays away" },
  quiet: { word: "quiet so far", text: "not driven yet" },
  open: { word: "not known", text: "list not seen whole since" },
  new: { word: "new", text: "was not there before" },
  late: { word: "there now", text: "the list before was not seen whole" },
};

/** Where a system stands, in a sentence or two without the verdict. */
function sayProof(p: Proof): string[] {
  const of = (k: Persistence) => p.rows.filter((r) => r.kind === "fault" && r.persistence === k);
  const are = (rows: readonly Row[], one: string, more: string) => (rows.length === 1 ? one : more);
  const names = (rows: readonly Row[]) => listOf([...new Set(rows.map((r) => r.code))]);
  const say: [Persistence, (rows: Row[]) => string][] = [
    [
      "hard",
      (r) =>
        r.every((x) => x.memory === "live")
          ? `${names(r)} ${are(r, "is a fault that is", "are faults that are")} there now`
          : `${names(r)} came back at once: ${are(r, "a hard fault", "hard faults")}`,
    ],
    ["still", (r) => `${names(r)} ${are(r, "is", "are")} still stored: back at once, or the clear did not take`],
    ["intermittent", (r) => `${names(r)} came back on the road: intermittent`],
    ["back", (r) => `${names(r)} ${are(r, "is", "are")} back after the drive`],
    ["new", (r) => `${names(r)} ${are(r, "is", "are")} new`],
    ["late", (r) => `${names(r)} ${are(r, "is", "are")} there now, and the list before was not seen whole`],
    ["gone", (r) => `${names(r)} stayed away over the drive that you told of`],
    ["quiet", (r) => `${names(r)} ${are(r, "has", "have")} not come back yet, without the drive that would show it`],
    [
      "open",
      (r) => `whether ${names(r)} ${are(r, "is", "are")} gone is not known: no list since the clear was seen whole`,
    ],
  ];
  return say.flatMap(([k, text]) => (of(k).length ? [text(of(k))] : []));
}

const capital = (text: string) => text[0].toUpperCase() + text.slice(1);

/** The whole job in one sentence or three: where each system stands, and the verdict. */
export function sayVerdict(j: Judgement): string {
  const verdict = j.statements.find((s) => s.kind === "verdict");
  const read = j.systems.filter(
    (s) => s.access.way.tells.kind !== "readiness" && (s.proof.state !== "not-read" || s.proof.cleared),
  );
  const several = read.length > 1;
  const parts = read.flatMap(({ access, proof }) => {
    const own = several ? `${access.name}: ` : "";
    const faults = proof.rows.filter((r) => r.kind === "fault");
    if (proof.state === "not-read") return [`${own}read the lamp again after the clear`];
    if (proof.state === "not-cleared")
      return [
        `${own}${listOf([...new Set(faults.map((r) => r.code))])} ${faults.length === 1 ? "is" : "are"} still stored, not cleared`,
      ];
    const said = sayProof(proof);
    if (said.length) return [`${own}${said.join("; ")}`];
    return proof.state === "nothing" ? (several ? [`${own}no fault stored`] : []) : [];
  });
  const text = parts.length ? `${parts.map(capital).join(". ")}. ` : "";
  switch (verdict?.kind === "verdict" ? verdict.is : "open") {
    case "fixed":
      return `${text}Fixed, as far as this drive can show.`;
    case "not-fixed":
      return `${text}Not fixed.`;
    case "not-proven":
      return read.some(({ proof }) => proof.state === "not-read")
        ? `Nothing is proven yet. ${text}`.trim()
        : `${text}Not proven: drive, then read again.`;
    case "nothing-found":
      return atLeast(verdict!.sure, "likely")
        ? "No fault is stored: nothing to prove."
        : "Nothing was found, and that is not proven.";
    case "open":
      return text ? `${text.trim()}` : "Nothing is read yet.";
  }
}
