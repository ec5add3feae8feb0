import type { Dialect } from "../flash/dialect/dialect";
import type { SystemAccess } from "../pack/scope";
import { listOf } from "../wording";

/** How a memory that was just wiped answers, and what anything else means. */
export interface EmptyAnswer {
  looks: string;
  otherwise: string;
}

const NUMBERS = ["no", "one", "two", "three", "four", "five", "six"];
const flashes = (n: number): string => `${NUMBERS[n] ?? n} ${n === 1 ? "flash" : "flashes"}`;

/** The codes that always come, as they are called: "the lead-in 13". */
function always({ phases }: Dialect): string[] {
  const called = { mode: "the lead-in", end: "the end mark", pass: "the pass code" };
  return [...new Set(phases.flatMap((p) => (p.kind === "code" ? [`${called[p.means]} ${p.code}`] : [])))];
}

function ofLamp(dialect: Dialect): EmptyAnswer {
  const { empty } = dialect;
  const fixed = always(dialect);
  const lists = dialect.phases.filter((p) => p.kind === "stored").length;
  const BACK = "A code instead is back, or was never wiped.";
  const NO_ANSWER = "No flash at all: the unit does not answer, look at the hook-up.";
  switch (empty?.kind) {
    case undefined:
      return {
        looks: `${listOf(fixed)} alone, and nothing between.`,
        otherwise: `${BACK} ${NO_ANSWER}`,
      };
    case "code":
      return {
        looks: `${empty.code} in place of ${lists > 1 ? "each list" : "the list"}.`,
        otherwise: `${BACK} ${NO_ANSWER}`,
      };
    case "group": {
      const n = typeof empty.flashes === "number" ? flashes(empty.flashes) : "half the cylinders in flashes";
      return {
        looks: `${n} and no more.`,
        otherwise: `More flashes are a code that is back, or was never wiped. ${NO_ANSWER}`,
      };
    }
    case "even":
      return {
        looks: "quick even flashing that does not stop.",
        otherwise: `Flashes with pauses between are a code: back, or never wiped. ${NO_ANSWER}`,
      };
    case "steady":
      return {
        looks: `${fixed.length ? `${listOf(fixed)}, then ` : ""}the lamp ${empty.lamp === "lit" ? "stays lit" : "stays dark"}.`,
        otherwise: `${BACK} A unit that nobody asks does the same: that the wire has contact is your proof.`,
      };
    default:
      return { looks: "the lamp rests.", otherwise: BACK };
  }
}

/** @returns null where it tells no codes */
export function emptyAnswer({ way, dialect }: Pick<SystemAccess, "way" | "dialect">): EmptyAnswer | null {
  switch (way.tells.kind) {
    case "lamp":
      return dialect ? ofLamp(dialect) : null;
    case "text":
    case "modules":
      return {
        looks: `"${way.tells.none}"${way.tells.kind === "modules" ? " for the module" : ""}.`,
        otherwise: "A number instead is back, or was never wiped.",
      };
    default:
      return null;
  }
}
