import type { Dialect, Phase } from "../../flash/dialect/dialect";

/** How a lamp talks, as somebody would tell it who has watched it or read of it. */
export interface Talk {
  style: Dialect["digits"]["style"];
  /** How many digits its codes have. */
  digits: number[];
  /** Ten flashes are a zero. */
  zero: boolean;
  rest: Dialect["rest"];
  /** A press of a button shows one code. */
  press: boolean;
  /** How many times in a row each code is shown. */
  times: number;
  /** A code in front of every round, and how many times. */
  lead: { code: string; times: number } | null;
  /** A code that ends every round. */
  end: string | null;
  /** It lights for a moment before the list. */
  test: boolean;
  /** The list goes round, or is shown once. */
  round: boolean;
  empty: Empty;
  /** First what is there now, then what is stored, a lone flash between. */
  both: boolean;
  /** A flash, a long one, the rests after a flash, a digit, a code, and before the list comes again; ms. */
  ms: { short: number; long: number; flash: number; digit: number; code: number; pass: number };
}

/** What it does where nothing is stored; a code says "all well". */
export type Empty =
  { is: "nothing" | "lead-alone" | "lit" | "dark" | "even" | "one-flash" } | { is: "code"; code: string };

/** The times of most lamps that count, ms. */
const USUAL: Talk["ms"] = { short: 400, long: 1200, flash: 400, digit: 1300, code: 2600, pass: 4200 };

/** What a lamp is taken to do of which nothing is said: the commonest of each. */
export const USUAL_TALK: Talk = {
  style: "counted",
  digits: [2],
  zero: false,
  rest: "dark",
  press: false,
  times: 1,
  lead: null,
  end: null,
  test: false,
  round: true,
  empty: { is: "nothing" },
  both: false,
  ms: USUAL,
};

/** Lamps to choose from: what they look like, in a sentence, with a code that shows it. */
export interface TalkExample {
  id: string;
  title: string;
  says: string;
  talk: Talk;
}

const talk = (part: Partial<Talk>): Talk => ({ ...USUAL_TALK, ...part });

export const TALK_EXAMPLES: readonly TalkExample[] = [
  {
    id: "two-digits",
    title: "Counts two digits",
    says: "Two flashes, a short rest, four flashes: 24. A longer rest, then the next code.",
    talk: talk({}),
  },
  {
    id: "three-times",
    title: "Counts two digits, each code three times",
    says: "A code of its own comes first, then each code three times in a row.",
    talk: talk({ times: 3, lead: { code: "12", times: 3 }, empty: { is: "lead-alone" } }),
  },
  {
    id: "long-short",
    title: "Long and short flashes",
    says: "Long flashes are the tens, short ones the units: two long, four short is 24.",
    talk: talk({
      style: "long-short",
      digits: [1, 2],
      test: true,
      ms: { ...USUAL, digit: 400, pass: 2600 },
      empty: { is: "dark" },
    }),
  },
  {
    id: "number",
    title: "One row of flashes",
    says: "Count them all: seven flashes are code 7.",
    talk: talk({ style: "total", digits: [1], ms: { ...USUAL, digit: 400, code: 2600, pass: 2600 } }),
  },
  {
    id: "three-digits",
    title: "Counts three digits",
    says: "One flash, two flashes, four flashes: 124. Ten flashes are a zero.",
    talk: talk({ digits: [3], zero: true, times: 2, ms: { ...USUAL, digit: 1600, code: 3600, pass: 5200 } }),
  },
  {
    id: "press",
    title: "One code a press",
    says: "Hold the button, let go: one row of flashes is one code. Press again for the next.",
    talk: talk({ style: "total", digits: [1], press: true, rest: "lit", empty: { is: "one-flash" } }),
  },
  {
    id: "once",
    title: "Shows the list once",
    says: "The lamp test, each code once, and a code that ends the list.",
    talk: talk({ test: true, end: "55", round: false }),
  },
  {
    id: "now-then",
    title: "Now first, then the memory",
    says: "Faults that are there now, a lone flash, then what is stored.",
    talk: talk({
      both: true,
      round: false,
      zero: true,
      ms: { ...USUAL, digit: 1800, code: 3600, pass: 3600 },
      empty: { is: "code", code: "11" },
    }),
  },
];

/** The dialect of a lamp that talks so. */
export function dialectOf(t: Talk, id: string, title: string): Dialect {
  const { short, long, flash, code } = t.ms;
  const digit =
    t.style === "counted"
      ? t.ms.digit
      : t.style === "long-short"
        ? Math.max(flash, Math.min(t.ms.digit, code * 0.6))
        : flash;
  const most = Math.max(...t.digits);
  const base = {
    id,
    title,
    rest: t.rest,
    marks: t.style === "long-short" ? { short, long } : { short },
    digits: {
      style: t.style,
      count: t.style === "total" ? [1] : t.digits,
      zero: t.style === "counted" && t.zero ? 10 : null,
    },
    max: t.style === "total" ? 40 : t.style === "long-short" ? 99 : 10 ** most - 1,
    order: "stored" as const,
  };
  if (t.press)
    return {
      ...base,
      gaps: { flash, digit, repeat: 0, code: 0, pass: 0 },
      phases: [{ kind: "stored", times: 1, memory: "stored" }],
      loopFrom: 0,
      advance: "button",
      empty: emptyOf(t.empty.is === "nothing" ? { is: "one-flash" } : t.empty, t),
    };
  const list: Phase[] = t.both
    ? [
        { kind: "stored", times: t.times, memory: "live" },
        { kind: "group", flashes: 1, means: "separator", beforeMs: code * 1.6, afterMs: code * 1.6 },
        { kind: "stored", times: t.times, memory: "stored" },
      ]
    : [{ kind: "stored", times: t.times, memory: "stored" }];
  const phases: Phase[] = [
    ...(t.test ? [{ kind: "steady" as const, lamp: "lit" as const, ms: 2000 }] : []),
    ...(t.lead ? [{ kind: "code" as const, code: t.lead.code, times: t.lead.times, means: "mode" as const }] : []),
    ...list,
    ...(t.end ? [{ kind: "code" as const, code: t.end, times: 1, means: "end" as const }] : []),
  ];
  return {
    ...base,
    gaps: { flash, digit, repeat: code, code, pass: Math.max(code, t.ms.pass) },
    phases,
    loopFrom: t.round ? (t.test ? 1 : 0) : null,
    advance: "self",
    empty: emptyOf(t.empty, t),
  };
}

function emptyOf(empty: Empty, { ms }: Talk): Phase | null {
  switch (empty.is) {
    case "even":
      return { kind: "even", onMs: Math.max(150, ms.short / 2), offMs: Math.max(150, ms.short / 2) };
    case "one-flash":
      return { kind: "group", flashes: 1, means: "clear", beforeMs: 1500, afterMs: 0 };
    case "lit":
    case "dark":
      return { kind: "steady", lamp: empty.is, ms: 0 };
    case "code":
      return { kind: "code", code: empty.code, times: 1, means: "pass" };
    default:
      return null;
  }
}

/** The same, told from a dialect. What of it no {@link Talk} says is left out: see {@link saysAll}. */
export function talkOf(d: Dialect): Talk {
  const of = <K extends Phase["kind"]>(kind: K) =>
    d.phases.filter((p): p is Extract<Phase, { kind: K }> => p.kind === kind);
  const codes = of("code");
  const lead = codes.find((p) => p.means === "mode");
  const lists = of("stored");
  return {
    style: d.digits.style,
    digits: [...d.digits.count],
    zero: d.digits.zero != null,
    rest: d.rest,
    press: d.advance === "button",
    times: lists[0]?.times ?? 1,
    lead: lead ? { code: lead.code, times: lead.times } : null,
    end: codes.find((p) => p.means === "end")?.code ?? null,
    test: d.phases[0]?.kind === "steady",
    round: d.loopFrom !== null,
    empty: toldEmpty(d, lead !== undefined),
    both: lists.some((p) => p.memory === "live") && lists.some((p) => p.memory === "stored"),
    ms: {
      short: d.marks.short,
      long: d.marks.long ?? d.marks.short * 3,
      flash: d.gaps.flash,
      digit: d.digits.style === "counted" ? d.gaps.digit : Math.max(d.gaps.digit, d.gaps.flash),
      code: d.gaps.code || USUAL.code,
      pass: d.gaps.pass || USUAL.pass,
    },
  };
}

function toldEmpty({ empty }: Dialect, lead: boolean): Empty {
  if (!empty) return { is: lead ? "lead-alone" : "nothing" };
  if (empty.kind === "even") return { is: "even" };
  if (empty.kind === "steady") return { is: empty.lamp };
  if (empty.kind === "code") return { is: "code", code: empty.code };
  return { is: "one-flash" };
}

/** A dialect with something told otherwise: in which order it shows its list, and the highest number of its style, stay. */
export function retalked(d: Dialect, t: Talk): Dialect {
  const now = dialectOf(t, d.id, d.title);
  const alike = now.digits.style === d.digits.style && now.digits.count.join() === d.digits.count.join();
  return { ...now, order: d.order, max: alike ? d.max : now.max };
}

/** Does a {@link Talk} say all that this dialect does? Otherwise it came from elsewhere, and a change would lose some of it. */
export function saysAll(d: Dialect): boolean {
  const shape = (x: Dialect) =>
    x.phases
      .map((p) =>
        p.kind === "stored" ? `${p.memory} ${p.times}` : p.kind === "code" ? `${p.code} ${p.means}` : p.kind,
      )
      .join();
  return shape(dialectOf(talkOf(d), d.id, d.title)) === shape(d);
}
