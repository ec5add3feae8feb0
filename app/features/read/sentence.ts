import type { Decoded } from "@core/flash/decode";
import type { Dialect } from "@core/flash/dialect/dialect";
import { openQuestions, seenTwice, type Question } from "@core/flash/judge/settle";
import { LIKELY, nothingSure, wholeSure } from "@core/flash/judge/sureness";
import { listOf } from "@core/job/say";
import { watchOf, type Input } from "@core/record/inputs";

const WORDS = ["No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight", "Nine"];

/** The state of a reading in one large sentence, and what would settle the rest. */
export function saySoFar(
  d: Decoded | null,
  dialect: Dialect,
  input: Input,
  marks: number,
  watching: boolean,
  /** Whether any of the vehicles that are known is meant, since none was chosen. */
  any = false,
): { headline: string; next: string } {
  if (!marks) {
    if (!watching || !d) return { headline: watchOf(input).start, next: beginning(dialect) };
    return {
      headline: "Nothing blinks so far.",
      next:
        dialect.empty?.kind === "steady"
          ? `With nothing stored this lamp ${dialect.empty.lamp === "lit" ? "stays lit" : "goes dark"}. Give it fifteen seconds, then say what it does.`
          : "This unit shows something even with nothing stored: if the lamp does not blink, the hook-up is not right.",
    };
  }
  if (!d) return { headline: watching ? "Watching …" : "Working it out …", next: "" };
  if (d.misfit)
    return {
      headline:
        d.misfit === "even"
          ? "This only blinks in even time."
          : any
            ? "This doesn't blink like any vehicle that Klinko knows."
            : "This does not blink like this vehicle should.",
      next: `Is it the right lamp${any ? "" : ", and the right vehicle"}? ${watching ? "Watch on; if it stays so, start over." : "If it is, watch once more."}`,
    };
  const lead = dialect.phases.find((p) => p.kind === "code" && p.means === "mode");
  const leadSeen =
    lead?.kind === "code" && d.assignment.some((a) => a?.unit.kind === "fixed" && a.unit.code === lead.code);
  const intro = leadSeen ? `${lead.code} is the lead-in. ` : "";
  if (d.state === "none" && nothingSure(d) === "certain" && !any)
    return { headline: `${intro}Nothing is stored.`, next: PROOF };
  if (d.state === "none" && d.confidence >= LIKELY)
    return {
      headline: `${intro}Most likely nothing is stored.`,
      next: d.called
        ? "Tap with the blinks, or film them: that settles it."
        : watching
          ? "Watch on: a whole round without a slip settles it."
          : "Watch a whole round without a slip: that settles it.",
    };
  if (!d.codes.length)
    return {
      headline: `${intro}No code yet.`,
      next: "A code counts when it was seen from its first flash to its last.",
    };
  const list = listIn(d);
  if (d.complete && d.over) {
    const unsure = openQuestions(d).find((q) => q.kind === "doubt");
    return {
      headline: `${intro}The list is over: ${list}.`,
      next: unsure
        ? `${unsure.code} is ${percent(unsure.certainty)} certain: start it again, and read anew.`
        : wholeSure(d) === "certain"
          ? "It is shown once with every start: to see it again, start it again."
          : "It is shown once with every start: record it, then read it a second time to be certain.",
    };
  }
  if (seenTwice(d)) return { headline: `${list}, seen twice: done.`, next: "Watching on would show the same again." };
  const n = d.codes.length;
  const headline = d.complete
    ? `${intro}The list came round: ${list}.`
    : `${intro}${WORDS[n] ?? n} ${n === 1 ? "code" : "codes"} so far.`;
  return { headline, next: whatSettles(openQuestions(d), watching, dialect) };
}

const PROOF = "A whole round showed only its sign for an empty memory.";

/** Where a list goes round, who comes upon it in its middle loses nothing; where it is shown once, all that came before. */
function beginning({ loopFrom, advance }: Dialect): string {
  if (advance === "button") return "Any code of the list may come first; press on until it comes again.";
  return loopFrom === null
    ? "The list is shown once: begin before the key goes on."
    : "Begin anywhere; the list comes round.";
}

/** The codes, those that are there now apart from those in memory. */
function listIn(d: Decoded): string {
  const { live, stored } = d.memories;
  if (!live || !stored) return listOf(d.codes);
  return [
    live.length ? `${listOf(live)} there now` : "nothing there now",
    stored.length ? `${listOf(stored)} in memory` : "nothing in memory",
  ].join(", ");
}

/** Never more than is so: 99.7 is not 100. */
const percent = (p: number): string => `${Math.floor(100 * p)} %`;

/** What one more round would settle. */
function whatSettles([first]: readonly Question[], watching: boolean, { loopFrom, advance }: Dialect): string {
  const on = watching ? "Watch on" : "Watch once more";
  switch (first?.kind) {
    case "not-round":
      if (loopFrom === null && advance === "self")
        return watching
          ? "Watch to the end: it is shown once with each start."
          : "It shows its list once per start, so a slip can't be spotted: record it, then read it a second time.";
      return watching
        ? "Watch until the list comes round."
        : "The list has not come round: more codes may follow. Watch until it does.";
    case "rival":
      return `${on}: it could also be ${first.codes.length ? listOf(first.codes) : "nothing stored"} (${percent(first.probability)}); one more round tells them apart.`;
    case "once":
      return `${listOf(first.codes)} ${first.codes.length === 1 ? "was" : "were"} seen in one round only; one more round confirms ${first.codes.length === 1 ? "it" : "them"}.`;
    case "doubt":
      return `${first.code} is ${percent(first.certainty)} certain; one more round makes it so.`;
    case "slip":
      return `${first.code} was never heard twice without a slip; one more round settles it.`;
    case undefined:
      return "One more round makes it sure.";
  }
}
