/** A made-up page of a code table, and what stands in it. */
export interface MadePage {
  layout: string;
  page: string;
  /** Digits that a code of it has. */
  digits: number[];
  rows: { code: string; title: string; rest: string }[];
}

const PLACE = [
  "Inlet air",
  "Coolant",
  "Exhaust gas",
  "Crank",
  "Cam",
  "Left knock",
  "Right knock",
  "Throttle",
  "Fuel rail",
  "Tank",
  "Vehicle speed",
  "Gear lever",
  "Idle air",
  "Heater",
  "Boost",
  "Oil",
  "Battery",
  "Rear axle",
];
const THING = [
  "temperature sensor",
  "position switch",
  "pressure sensor",
  "valve solenoid",
  "relay",
  "signal",
  "control unit",
  "meter",
  "pump feed",
  "lamp line",
];
const FAULT = [
  "open circuit",
  "short to ground",
  "signal too high",
  "signal too low",
  "no change while driving",
  "voltage below 0.5 V for 3 seconds",
  "not plausible at 40 km/h",
  "missing for 2 turns of the crank",
];
const LOOK = [
  "Look at the plug and its ground",
  "Measure 5 V at pin 3",
  "Check wiring, then the sensor",
  "Blow out the hose",
  "Read again after 10 minutes of idle",
];
const HEADS = ["Fuel system", "Ignition", "Sensors", "Other circuits", "Transmission"];

/** Ways in which a page may be laid out. */
export const LAYOUTS = [
  "csv-comma",
  "csv-semicolon",
  "csv-quoted",
  "tab",
  "tab-code-last",
  "tab-numbered",
  "bars",
  "bars-ruled",
  "wide",
  "wide-right",
  "wide-dots",
  "wide-side",
  "plain",
  "plain-colon",
  "plain-code-word",
  "plain-equals-line",
  "stacked",
  "tab-side",
  "two-tables",
  "wide-wrapped",
] as const;
export type Layout = (typeof LAYOUTS)[number];

/** A page at random in a layout. What is odd in it (headings between, footnotes, spans, several codes a row) comes by chance. */
export function tablePage(layout: Layout, random: () => number): MadePage {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const style = pick(["two", "two", "low", "three", "mixed", "four"] as const);
  const from = { two: 11, low: 1, three: 111, mixed: 4, four: 1111 }[style];
  const step = { two: 4, low: 3, three: 30, mixed: 3, four: 160 }[style];
  const n = 8 + Math.floor(random() * 22);
  const numbers: number[] = [];
  for (let code = from; numbers.length < n; code += 1 + Math.floor(random() * step)) numbers.push(code);
  const noZero = random() < 0.5;
  const codes = [...new Set(numbers.map((c) => (noZero ? Number(String(c).replace(/0/g, "1")) : c)))].sort(
    (a, b) => a - b,
  );
  const used = new Set<string>();
  const rows = codes.map((code) => {
    let title = "";
    while (!title || used.has(title))
      title = `${pick(PLACE)} ${pick(THING)}${random() < 0.4 ? `, ${pick(FAULT)}` : ""}`;
    used.add(title);
    return { code: String(code), title, rest: pick(FAULT), look: pick(LOOK) };
  });
  const texts =
    layout.startsWith("plain") || layout === "wide-dots" || layout === "wide-side" || layout === "tab-side"
      ? 1
      : 1 + Math.floor(random() * 3);
  const plain = layout.startsWith("plain");
  const pairs = style === "two" && noZero && random() < 0.2;
  const shown = (code: string) => (pairs ? code.split("").join("-") : code);
  const mark = !plain && random() < 0.25;
  const heads = !plain && layout !== "stacked" && !layout.includes("side") && random() < 0.35;
  // Two codes in one row say the same.
  const joined = !pairs && !layout.includes("side") && random() < 0.3 && rows.length > 6 ? 3 : -1;
  if (joined > 0)
    rows[joined + 1] = {
      ...rows[joined + 1],
      title: rows[joined].title,
      rest: rows[joined].rest,
      look: rows[joined].look,
    };
  const span = joined > 0 && Number(rows[joined + 1].code) === Number(rows[joined].code) + 1 && random() < 0.5;
  const lines = rows.flatMap((r, i) => {
    if (i === joined + 1 && joined > 0) return [];
    const code =
      i === joined ? `${r.code}${span ? "-" : pick([" / ", "/", ", ", " and "])}${rows[i + 1].code}` : shown(r.code);
    const cells = [code + (mark && i % 5 === 2 && i !== joined ? "*" : ""), r.title, r.rest, r.look].slice(
      0,
      1 + texts,
    );
    return [{ head: heads && i > 0 && i % 7 === 0 ? HEADS[(i / 7) % HEADS.length] : null, cells }];
  });
  const heading =
    random() < 0.6
      ? [
          pick(["Code", "No.", "Flash code", "Blinks"]),
          pick(["Circuit", "Meaning", "Fault"]),
          pick(["Sets when", "Cause"]),
          pick(["Look at", "Remedy"]),
        ].slice(0, 1 + texts)
      : null;
  const before = random() < 0.4 ? ["Trouble codes of the engine unit, 1988 to 1991 models", ""] : [];
  const after = mark ? ["* only with the large engine"] : [];
  const body = layOut(layout, lines, heading, pick, random);
  return {
    layout,
    page: [...before, ...body, ...after].join("\n"),
    digits: [...new Set(codes.map((c) => String(c).length))],
    rows: rows.map((r) => ({
      code: r.code,
      title: r.title,
      rest: [r.rest, r.look].slice(0, texts - 1).join(" "),
    })),
  };
}

type Row = { head: string | null; cells: string[] };

function layOut(
  layout: Layout,
  lines: readonly Row[],
  heading: readonly string[] | null,
  pick: <T>(list: readonly T[]) => T,
  random: () => number,
): string[] {
  const all = (
    cellsTo: (cells: readonly string[]) => string[],
    head: (text: string) => string[] = (t) => [t],
  ): string[] => [
    ...(heading ? cellsTo(heading) : []),
    ...lines.flatMap((l) => [...(l.head ? head(l.head) : []), ...cellsTo(l.cells)]),
  ];
  const quoted = (cell: string, sign: string) => (cell.includes(sign) || cell.includes('"') ? `"${cell}"` : cell);
  const half = Math.ceil(lines.length / 2);
  switch (layout) {
    case "csv-comma":
      return all((c) => [c.map((x) => quoted(x, ",")).join(",")]);
    case "csv-semicolon":
      return all((c) => [c.join(";")]);
    case "csv-quoted":
      return all((c) => [
        c.map((x, i) => (i ? `"${i === 1 && random() < 0.2 ? x.replace(" ", "\n") : x}"` : x)).join(","),
      ]);
    case "two-tables":
      return twoTables(lines, heading);
    case "tab":
      return all((c) => [c.join("\t")]);
    case "tab-code-last":
      return all((c) => [[...c.slice(1), c[0]].join("\t")]);
    case "tab-numbered": {
      let at = 0;
      return all((c) => [[c === heading ? "" : String(++at), ...c].join("\t")]);
    }
    case "bars":
      return all((c) => [c.join(" | ")]);
    case "bars-ruled":
      return all((c) => [`| ${c.join(" | ")} |`, ...(c === heading ? [`|${c.map(() => "---").join("|")}|`] : [])]);
    case "wide":
    case "wide-right":
    case "wide-wrapped":
      return inColumns(layout, lines, heading, all);
    case "wide-dots":
      return all((c) => [`${c[0]} ${".".repeat(Math.max(4, 14 - c[0].length))} ${c[1]}`]);
    case "wide-side":
    case "tab-side":
      return sideBySide(lines, layout === "tab-side");
    case "plain":
      return all((c) => [c.join(" ")]);
    case "plain-colon":
      return all((c) => [`${c[0]}${pick([":", " -", " –", "."])} ${c[1]}`]);
    case "plain-code-word":
      return all((c) => [c === heading ? c.join(" ") : `Code ${c[0]}: ${c[1]}`]);
    case "plain-equals-line":
      return Array.from({ length: half }, (_, i) =>
        lines
          .slice(2 * i, 2 * i + 2)
          .map((l) => `${l.cells[0]} = ${l.cells[1]}`)
          .join("; "),
      );
    case "stacked":
      return lines.flatMap((l) => l.cells);
  }
}

function wrap(text: string, width: number): string[] {
  const out: string[] = [""];
  for (const word of text.split(" ")) {
    if (out.at(-1)!.length + word.length + 1 > width) out.push(word);
    else out[out.length - 1] = `${out.at(-1)} ${word}`.trim();
  }
  return out;
}

/** The same columns in another order further down. */
function twoTables(lines: readonly Row[], heading: readonly string[] | null): string[] {
  const half = Math.ceil(lines.length / 2);
  const head = heading ?? ["Code", "Meaning", "Cause", "Remedy"].slice(0, lines[0].cells.length);
  const turned = (c: readonly string[]) => [...c.slice(1, 2), c[0], ...c.slice(2)].join("\t");
  return [
    head.join("\t"),
    ...lines.slice(0, half).map((l) => l.cells.join("\t")),
    "",
    turned(head),
    ...lines.slice(half).map((l) => turned(l.cells)),
  ];
}

/** Two halves beside one another. */
function sideBySide(lines: readonly Row[], tabs: boolean): string[] {
  const half = Math.ceil(lines.length / 2);
  const sign = tabs ? "\t" : null;
  const cell = (l: Row | undefined) => (l ? l.cells : ["", ""]);
  const w = Math.max(...lines.map((l) => l.cells[1].length)) + 4;
  const a = Math.max(...lines.map((l) => l.cells[0].length)) + 3;
  return Array.from({ length: half }, (_, i) => {
    const [l, r] = [cell(lines[i]), cell(lines[half + i])];
    return sign ? [...l, ...r].join(sign) : `${l[0].padEnd(a)}${l[1].padEnd(w)}${r[0].padEnd(a)}${r[1]}`.trimEnd();
  });
}

type Cells = (cellsTo: (cells: readonly string[]) => string[]) => string[];

/** Columns of blanks, with long cells over several lines where the layout wraps. */
function inColumns(layout: Layout, lines: readonly Row[], heading: readonly string[] | null, all: Cells): string[] {
  if (layout !== "wide-wrapped") {
    const width = (k: number) => Math.max(...lines.map((l) => l.cells[k].length), heading?.[k].length ?? 0);
    return all((c) => [
      c
        .map((x, k) => (k === 0 && layout === "wide-right" ? x.padStart(width(0)) : x.padEnd(width(k))))
        .join("   ")
        .trimEnd(),
    ]);
  }
  const width = 26;
  return all((c) => {
    const parts = c.map((x, k) => (k === 0 ? [x] : wrap(x, width)));
    const high = Math.max(...parts.map((p) => p.length));
    const first = Math.max(...lines.map((l) => l.cells[0].length), 10);
    return Array.from({ length: high }, (_, i) =>
      parts
        .map((p, k) => (p[i] ?? "").padEnd(k ? width + 2 : first + 2))
        .join("")
        .trimEnd(),
    );
  });
}
