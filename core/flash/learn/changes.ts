import type { Dialect, Phase } from "../dialect/dialect";
import { APART } from "./fit";

/** A code is seldom shown oftener in a row, and a lone run has seldom more flashes. */
const MOST_TIMES = 4;
const MOST_LONE = 6;
/** A long flash is so many times as long as a short one. */
const LONG = [2, 2.5, 3, 3.5, 4];

/**
 * Ways of talking that differ from one in one thing: another rest, as many digits, a code shown once more, a lone run between lists.
 * @param rests that occur, ms, ascending: another rest is one of these
 * @param tapped whether the lengths of the flashes are unknown
 */
export function changesOf(dialect: Dialect, rests: readonly number[], tapped: boolean): Dialect[] {
  return [
    ...(tapped ? otherLengths(dialect) : []),
    ...otherRests(dialect, rests),
    ...otherDigits(dialect),
    ...otherShows(dialect, rests),
  ];
}

/** Of taps nobody knows how long a long flash is, but by the rests that are left. */
function otherLengths(dialect: Dialect): Dialect[] {
  const { marks } = dialect;
  if (marks.long === undefined) return [];
  return LONG.map((times) => ({ ...dialect, marks: { ...marks, long: Math.round(times * marks.short) } }));
}

const apart = (a: number, b: number) => Math.abs(Math.log(a / b)) > Math.log(APART);

function otherRests(dialect: Dialect, rests: readonly number[]): Dialect[] {
  const { gaps, digits } = dialect;
  const { flash, digit, repeat, code, pass } = gaps;
  const found: Dialect[] = [];
  const put = (change: Partial<Dialect["gaps"]>): void => {
    const next = { ...gaps, ...change };
    const inOrder = next.flash <= next.digit && next.digit < next.repeat && next.repeat <= next.code;
    if (inOrder && next.code <= next.pass) found.push({ ...dialect, gaps: next });
  };
  for (const ms of rests) {
    if (apart(ms, flash)) put({ flash: ms, digit: digit === flash ? ms : digit });
    if (digits.style !== "total" && apart(ms, digit)) put({ digit: ms });
    if (apart(ms, code)) {
      // What is as long stays as long; or it alone is longer, or shorter.
      put({
        repeat: repeat === code ? ms : Math.min(repeat, ms),
        code: ms,
        pass: pass === code ? ms : Math.max(pass, ms),
      });
      put({ repeat: Math.min(repeat, ms), code: ms, pass: Math.max(pass, ms) });
    }
    if (apart(ms, pass)) put({ pass: ms });
    if (apart(ms, repeat)) put({ repeat: ms });
  }
  if (pass !== code) put({ pass: code });
  if (repeat !== code) put({ repeat: code });
  if (digits.style === "long-short" && digit !== flash) put({ digit: flash });
  return found;
}

function otherDigits(dialect: Dialect): Dialect[] {
  const { digits } = dialect;
  if (digits.style !== "counted") return [];
  return [[2], [3], [4], [1, 2]]
    .filter((count) => count.join() !== digits.count.join())
    .map((count) => ({ ...dialect, digits: { ...digits, count }, max: 10 ** Math.max(...count) - 1 }));
}

function otherShows(dialect: Dialect, rests: readonly number[]): Dialect[] {
  const { gaps, digits, phases, loopFrom } = dialect;
  const steady = phases.filter((p) => p.kind === "steady");
  const shown = phases.filter((p) => p.kind !== "steady");
  const lists = shown.flatMap((p) => (p.kind === "stored" ? [p] : []));
  const [group] = shown.flatMap((p) => (p.kind === "group" ? [p] : []));
  const found: Dialect[] = [];
  const put = (next: Phase[], round: boolean): void =>
    void found.push({ ...dialect, phases: [...steady, ...next], loopFrom: round ? steady.length : null });
  const each = (which: (p: Phase) => boolean, change: object): void =>
    void found.push({ ...dialect, phases: phases.map((p) => (which(p) ? { ...p, ...change } : p)) });
  const oftener = (n: number) => [n - 1, n + 1].filter((times) => times > 0 && times <= MOST_TIMES);
  for (const times of oftener(lists[0].times)) each((p) => p.kind === "stored", { times });
  put(shown, loopFrom === null);
  // A list that comes twice need not show its codes as often both times.
  if (lists.length === 1 && !group)
    for (const times of [lists[0].times, ...oftener(lists[0].times)]) put([...shown, { ...lists[0], times }], false);
  if (lists.length === 2 && !group)
    for (const list of lists) for (const times of oftener(list.times)) each((p) => p === list, { times });
  if (digits.style !== "counted") return found;
  const list = (memory: "stored" | "live"): Phase => ({ ...lists[0], memory });
  for (const ms of rests)
    if (ms > gaps.code || ms === rests[rests.length - 1]) {
      const lone: Phase = {
        kind: "group",
        flashes: group?.flashes ?? 1,
        means: "separator",
        beforeMs: ms,
        afterMs: ms,
      };
      put([list("live"), lone, list("stored")], true);
      put([list("live"), lone, list("stored")], false);
      put([lone, list("stored")], true);
    }
  if (!group) return found;
  put([list("stored")], loopFrom !== null);
  for (let flashes = 1; flashes <= MOST_LONE; flashes++)
    if (flashes !== group.flashes) each((p) => p.kind === "group", { flashes });
  return found;
}
