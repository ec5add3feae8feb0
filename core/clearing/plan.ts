import { listOf, lower } from "../wording";
import { tableOwner } from "../pack/scope";
import type { ClearWay, CostId, Pack } from "../pack/pack";
import type { Vehicle } from "../record/types";

/** What stands between now and a clear. */
export interface Gate {
  id: "reading" | "radio-code" | "immobiliser" | "other-workshop" | "for-sale" | "unread" | "partial";
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
  /** Does the radio ask for a code after a power cut, and is it at hand? */
  radio: Vehicle["radio"];
  /** Where an immobiliser forgets its keys without power: are they at hand, with what teaches them? */
  immobiliser: Vehicle["immobiliser"];
  /** Someone else will diagnose this vehicle next. */
  handOver: boolean;
  /** Whoever buys it wants to see what is stored. */
  forSale: boolean;
}

export interface PlannedWay {
  way: ClearWay;
  gates: Gate[];
  /** All gates are open. */
  open: boolean;
  /** No gate is shut: it can be begun, after what has to be asked. */
  may: boolean;
}

const COST_WEIGHT = { immobiliser: 6, "radio-code": 4, readiness: 2, "learned-idle": 2, clock: 1, time: 1 } as const;

/** What only a person can say of the vehicle, and what each answer does to a way that costs it. */
const RADIO: Record<Vehicle["radio"], Omit<Gate, "id">> = {
  none: { is: "open", reason: "" },
  "code-known": { is: "open", reason: "" },
  "code-unknown": { is: "ask", reason: "The radio stays locked until its code is found (booklet, card, dealer)." },
  "not-asked": { is: "shut", reason: "Say first whether the radio needs a code." },
};
const IMMOBILISER: Record<Vehicle["immobiliser"], Omit<Gate, "id">> = {
  none: { is: "open", reason: "" },
  "keys-here": { is: "open", reason: "" },
  "keys-missing": {
    is: "ask",
    reason: "It may not start afterwards: the immobiliser wants all keys, and what teaches them, at hand.",
  },
  "not-asked": { is: "shut", reason: "Say first whether the keys of the immobiliser are at hand." },
};

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
      if (facts.forSale)
        gates.push({
          id: "for-sale",
          is: "ask",
          reason: "It is for sale: whoever buys it should see what is stored. A memory wiped just before hides it.",
        });
      if (costs(way, "radio-code")) gates.push({ id: "radio-code", ...RADIO[facts.radio] });
      if (costs(way, "immobiliser")) gates.push({ id: "immobiliser", ...IMMOBILISER[facts.immobiliser] });
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

const costs = (way: ClearWay, id: CostId): boolean => way.costs.some((c) => c.id === id);

/** Weeks of use are mostly dearer than what a fuse costs, and cheaper than a radio without its code. */
const COUNT_WEIGHT = 3;

function cost(way: ClearWay): number {
  const time = way.does === "count" ? COUNT_WEIGHT : way.seconds / 3600;
  return way.costs.reduce((sum, c) => sum + COST_WEIGHT[c.id], time);
}
