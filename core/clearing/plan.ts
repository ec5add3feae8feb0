import { listOf, lower } from "../wording";
import { tableOwner } from "../pack/scope";
import type { ClearWay, Pack } from "../pack/pack";

/** What stands between now and a clear. */
export interface Gate {
  id: "reading" | "radio-code" | "other-workshop" | "unread" | "partial";
  /** `ask`: it can be gone through by who says so once; `shut`: something has to be done first. */
  is: "open" | "ask" | "shut";
  reason: string;
}

export interface ClearFacts {
  /** A reading of this system is recorded that tells what is stored. */
  recorded: boolean;
  /** Systems of the vehicle of which nothing is recorded, by name. */
  unread: readonly { system: string; name: string }[];
  /** Systems of which codes are recorded, and whose list was not seen whole. */
  partial: readonly { system: string; name: string }[];
  /** Does the radio ask for a code after the battery was off, and is it at hand? */
  radio: "none" | "code-known" | "code-unknown" | "not-asked";
  /** Someone else will diagnose this vehicle next. */
  handOver: boolean;
}

export interface PlannedWay {
  way: ClearWay;
  gates: Gate[];
  /** All gates are open. */
  open: boolean;
  /** No gate is shut: it can be begun, after what has to be asked. */
  may: boolean;
}

const COST_WEIGHT = { "radio-code": 4, readiness: 2, "learned-idle": 2, clock: 1, time: 1 } as const;

/** Systems whose memories a way wipes. */
export const wipes = (pack: Pack, way: ClearWay): string[] =>
  (way.wipes ?? [way.system]).map((s) => tableOwner(pack, s));

/** The gate that locks the whole step: nothing is wiped before it is written down. */
function clearGate(facts: Pick<ClearFacts, "recorded">): Gate {
  return {
    id: "reading",
    is: facts.recorded ? "open" : "shut",
    reason: "Record a reading first: what is wiped before it is written down is gone.",
  };
}

/** Ways to clear a system, the one that costs least first, each with what still stands in its way. */
export function planClear(pack: Pack, system: string, facts: ClearFacts): PlannedWay[] {
  const memory = tableOwner(pack, system);
  return pack.clears
    .filter((way) => wipes(pack, way).includes(memory))
    .map((way) => {
      const gates: Gate[] = [clearGate(facts)];
      if (facts.handOver)
        gates.push({
          id: "other-workshop",
          is: "shut",
          reason: "Another workshop takes over: leave the codes for them.",
        });
      if (way.costs.some((c) => c.id === "radio-code"))
        gates.push({
          id: "radio-code",
          is:
            facts.radio === "none" || facts.radio === "code-known"
              ? "open"
              : facts.radio === "code-unknown"
                ? "ask"
                : "shut",
          reason:
            facts.radio === "code-unknown"
              ? "The radio stays locked until its code is found (booklet, card, dealer)."
              : "Say first whether the radio needs a code.",
        });
      const cut = facts.partial.filter((p) => wipes(pack, way).includes(tableOwner(pack, p.system)));
      if (cut.length)
        gates.push({
          id: "partial",
          is: "ask",
          reason: `The list of ${listOf(cut.map((c) => lower(c.name)))} was not seen whole. What was not read is wiped too.`,
        });
      const also = facts.unread.filter(
        (u) => tableOwner(pack, u.system) !== memory && wipes(pack, way).includes(tableOwner(pack, u.system)),
      );
      if (also.length)
        gates.push({
          id: "unread",
          is: "ask",
          reason: `It wipes more: ${also.map((u) => u.name).join(", ")}, not read yet. What is stored there is gone then.`,
        });
      return { way, gates, open: gates.every((g) => g.is === "open"), may: gates.every((g) => g.is !== "shut") };
    })
    .sort((a, b) => cost(a.way) - cost(b.way));
}

function cost(way: ClearWay): number {
  return way.costs.reduce((sum, c) => sum + COST_WEIGHT[c.id], way.seconds / 3600);
}
