import { tableOwner } from "../pack/scope";
import type { ClearWay, Pack } from "../pack/pack";

/** What stands between now and a clear. */
export interface Gate {
  id: "reading" | "radio-code" | "other-workshop";
  open: boolean;
  reason: string;
}

export interface ClearFacts {
  /** A reading of this system is recorded. */
  recorded: boolean;
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
}

const COST_WEIGHT = { "radio-code": 4, readiness: 2, "learned-idle": 2, clock: 1, time: 1 } as const;

/** The gate that locks the whole step: nothing is wiped before it is written down. */
export function clearGate(facts: Pick<ClearFacts, "recorded">): Gate {
  return {
    id: "reading",
    open: facts.recorded,
    reason: "Record a reading first: what is wiped before it is written down is gone.",
  };
}

/** Ways to clear a system, the one that costs least first, each with what still stands in its way. */
export function planClear(pack: Pack, system: string, facts: ClearFacts): PlannedWay[] {
  return pack.clears
    .filter((way) => way.system === tableOwner(pack, system))
    .map((way) => {
      const gates: Gate[] = [clearGate(facts)];
      if (facts.handOver)
        gates.push({
          id: "other-workshop",
          open: false,
          reason: "Another workshop takes over: leave the codes for them.",
        });
      if (way.costs.some((c) => c.id === "radio-code"))
        gates.push({
          id: "radio-code",
          open: facts.radio === "none" || facts.radio === "code-known",
          reason:
            facts.radio === "code-unknown"
              ? "Find the radio code first (booklet, card, dealer): without it the radio stays locked."
              : "Say first whether the radio needs a code.",
        });
      return { way, gates, open: gates.every((g) => g.open) };
    })
    .sort((a, b) => cost(a.way) - cost(b.way));
}

function cost(way: ClearWay): number {
  return way.costs.reduce((sum, c) => sum + COST_WEIGHT[c.id], way.seconds / 3600);
}
