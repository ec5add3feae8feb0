import type { Dialect } from "@core/flash/dialect/dialect";
import type { Learned, Property, Settles } from "@core/flash/learn/learn";

/** One thing that was learned of how a lamp talks, and how sure that is, 0 to 1. */
export interface TalkLine {
  says: string;
  sure: number;
}

const seconds = (ms: number): string => `${(ms / 1000).toFixed(ms < 1000 ? 2 : 1)} s`;

const DIGITS: Record<string, string> = {
  "1": "one digit a code",
  "2": "two digits a code",
  "3": "three digits a code",
  "4": "four digits a code",
  "1,2": "one or two digits a code",
};

/** How a lamp talks, in words; what matters for its codes first. */
export function talkOf(
  { digits, phases, loopFrom, rest, marks, gaps }: Dialect,
  certainty: Learned["certainty"],
): TalkLine[] {
  const line = (property: Property, says: string): TalkLine => ({ says, sure: certainty[property] });
  const list = phases.find((p) => p.kind === "stored");
  const times = list?.times ?? 1;
  const style = {
    counted: `Counts out each digit: ${DIGITS[digits.count.join()] ?? `${digits.count.join(" or ")} digits a code`}`,
    "long-short": "Long flashes are the tens, short ones the units",
    total: "The number of flashes is the code",
  }[digits.style];
  const fixed = phases.flatMap((p) =>
    p.kind === "code"
      ? [`${p.means === "end" ? "Ends" : "Begins"} every round with ${p.code}, so that is no fault`]
      : p.kind === "group"
        ? [
            `${p.flashes === 1 ? "A lone flash" : `${p.flashes} flashes`} part${p.flashes === 1 ? "s" : ""} one list from the next`,
          ]
        : [],
  );
  return [
    line(digits.style === "counted" ? "digits" : "style", style),
    line("times", times === 1 ? "Shows each code once in a round" : `Shows each code ${times} times in a row`),
    ...fixed.map((says) => line("fixed", says)),
    line("round", loopFrom === null ? "Shows its list and stops" : "Its list goes round and round"),
    ...(rest === "lit" ? [line("rest", "Stays lit, and goes dark for each flash")] : []),
    line(
      "flash",
      `A flash takes ${seconds(marks.short)}${marks.long ? `, a long one ${seconds(marks.long)}` : ""}, the rest after it ${seconds(gaps.flash)}`,
    ),
    ...(digits.style === "counted" ? [line("digitGap", `Between two digits it rests ${seconds(gaps.digit)}`)] : []),
    line("code", `Between two codes it rests ${seconds(gaps.code)}`),
    ...(loopFrom !== null && gaps.pass !== gaps.code
      ? [line("pass", `Before the list comes again, ${seconds(gaps.pass)}`)]
      : []),
  ];
}

/** What would make it surer, as advice. */
export const SETTLES: Record<Settles, string> = {
  "a-round": "Watch until the list comes round once more.",
  "two-codes":
    "One code alone does not tell the rest between codes from the rest between rounds. Unplug one sensor that is easy to reach and safe to unplug, and watch again.",
  "after-the-clear":
    "The first or the last code of a round may be part of the show and no fault: then it is still there after a clear.",
  longer: "Watch on: the more rounds, the surer it gets.",
};
