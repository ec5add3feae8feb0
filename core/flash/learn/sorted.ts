import type { Decoded } from "../answer";
import type { Faults, Phase } from "../dialect/dialect";
import { logPriorOf } from "./prior";
import type { Proposed } from "./propose";

/** A way by which something was read. */
interface Read extends Proposed {
  decoded: readonly Pick<Decoded, "codes" | "memories">[];
}

/** Fewer codes than this beside one that leads rise, or fall, in any case. */
const TELLING = 3;

/**
 * Ways in which a lamp that sorts its codes shows the same: where those that were read rise, from wherever the list is come upon; or all
 * but one do, and from that one on, which then leads.
 */
export function sortedWays(way: Read): Proposed[] {
  const lists = way.decoded.flatMap((d) => Object.values(listsOf(d)));
  if (lists.every((codes) => falls(codes) <= 1)) return [sortedOf(way, way.dialect.phases, null)];
  // A leading code is only told from the others where nothing else does.
  if (!way.alike) return [];
  const [codes] = lists;
  if (codes.length <= TELLING) return [];
  return codes
    .filter((code) => lists.every((list) => leads(list, code)))
    .map((code) =>
      sortedOf(
        way,
        way.dialect.phases.flatMap((p) => ledBy(code, p)),
        code,
      ),
    );
}

const ledBy = (code: string, phase: Phase): Phase[] =>
  phase.kind === "stored" ? [{ kind: "code", code, times: phase.times, means: "mode" }, phase] : [phase];

function sortedOf({ dialect: own, alike, decoded }: Read, phases: readonly Phase[], lead: string | null): Proposed {
  const dialect = { ...own, phases: [...phases], order: "ascending" as const };
  const read: Faults[] = decoded.map((d) =>
    Object.fromEntries(Object.entries(listsOf(d)).map(([memory, codes]) => [memory, sorted(without(codes, lead))])),
  );
  // The one that leads may as well be the one that ends.
  return { dialect, logPrior: logPriorOf(dialect), alike: lead === null ? alike : 1, read };
}

/** What was read by memory, where there are two, else of the one. */
const listsOf = ({ memories, codes }: Pick<Decoded, "codes" | "memories">) =>
  Object.keys(memories).length ? memories : { stored: codes };

const without = (codes: readonly string[], code: string | null) => codes.filter((c) => c !== code);
const sorted = (codes: readonly string[]) => [...codes].sort((a, b) => Number(a) - Number(b));

/** How often, round the list, a code is not greater than the one before. */
const falls = (codes: readonly string[]): number =>
  codes.length < 2 ? 0 : codes.filter((c, i) => Number(c) >= Number(codes[(i + 1) % codes.length])).length;

/** Do the codes behind this one rise up to it again, round the list? */
function leads(codes: readonly string[], code: string): boolean {
  const at = codes.indexOf(code);
  const behind = [...codes.slice(at + 1), ...codes.slice(0, at)];
  return at >= 0 && behind.every((c, i) => !i || Number(c) > Number(behind[i - 1]));
}
