import type { Cavity, Connector } from "../pack";

/** Distance of two cavities in the drawing, and of the outer ones from the shell. */
const STEP = 90;
const EDGE = 60;

const NAME = /^[A-Z0-9]{1,3}$/;

/** Rows of cavity names as they stand on the plug: a line a row, a dash for a place that has none. */
const namesOf = (rows: string): string[][] =>
  rows
    .toUpperCase()
    .split("\n")
    .map((r) =>
      r
        .trim()
        .split(/[\s,;]+/)
        .filter(Boolean),
    )
    .filter((r) => r.length > 0);

/** What is wrong with rows of names, or null. */
export function namesFault(rows: string): string | null {
  const names = namesOf(rows);
  const flat = names.flat().filter((n) => !GAP.test(n));
  if (!flat.length) return "Write at least one row of cavity names, such as A B C.";
  if (flat.length < 2) return "Two cavities are joined: name at least two.";
  if (flat.length > 60 || names.length > 10) return "A plug has at most 60 cavities in 10 rows.";
  const odd = flat.find((n) => !NAME.test(n));
  if (odd) return `"${odd.slice(0, 12)}" is no cavity's name: up to three letters and digits.`;
  const twice = flat.find((n, i) => flat.indexOf(n) !== i);
  return twice ? `${twice} stands there twice: each cavity has a name of its own.` : null;
}

const GAP = /^[-–_.]+$/;

/** Letters or numbers for so many rows and columns; I and O are left out, as they are on plugs. */
export function usualNames(rows: number, columns: number, by: "letters" | "numbers"): string {
  const letters = [..."ABCDEFGHJKLMNPQRSTUVWXYZ"];
  const name = (i: number) =>
    by === "numbers"
      ? String(i + 1)
      : i < letters.length
        ? letters[i]
        : letters[Math.floor(i / letters.length) - 1] + letters[i % letters.length];
  return Array.from({ length: rows }, (_, r) =>
    Array.from({ length: columns }, (_, c) => name(r * columns + c)).join(" "),
  ).join("\n");
}

/** Columns and rows of a plug that stands in them lie so far apart at least; cavities of one row differ less in height. */
const APART = 50;
const SAME_ROW = 30;

const apart = (sorted: readonly number[]): boolean => sorted.every((v, i) => i === 0 || v - sorted[i - 1] >= APART);
const inOrder = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);

/** Its cavities row by row, from left to right, whether they stand in columns or were placed by hand. */
function cavityRows({ cavities }: Connector): Cavity[][] {
  const rows: Cavity[][] = [];
  for (const c of [...cavities].sort((a, b) => a.at[1] - b.at[1])) {
    const row = rows.at(-1);
    if (row && c.at[1] - row[0].at[1] <= SAME_ROW) row.push(c);
    else rows.push([c]);
  }
  return rows.map((row) => row.sort((a, b) => a.at[0] - b.at[0]));
}

/** The rows of names that a connector was laid out from; of one that was placed by hand the names alone, from left to right. */
export function rowsOf(connector: Connector): string {
  const [xs, ys] = [0, 1].map((k) => inOrder(connector.cavities.map((c) => c.at[k as 0 | 1])));
  if (!apart(xs) || !apart(ys))
    return cavityRows(connector)
      .map((row) => row.map((c) => c.id).join(" "))
      .join("\n");
  return ys
    .map((y) => {
      const row = xs.map((x) => connector.cavities.find((c) => c.at[0] === x && c.at[1] === y)?.id ?? "-");
      while (row.at(-1) === "-") row.pop();
      return row.join(" ");
    })
    .join("\n");
}

/** What was placed by hand under other names, or null where these are not as many in each row. */
function renamed(connector: Connector, names: readonly string[][]): Connector | null {
  const rows = cavityRows(connector);
  const told = names.map((row) => row.filter((n) => !GAP.test(n)));
  if (connector.shape !== "own" || rows.length !== told.length) return null;
  if (rows.some((row, r) => row.length !== told[r].length)) return null;
  const old = new Map(connector.cavities.map((c) => [c.id, c]));
  const cavities = rows.flatMap((row, r) =>
    row.map((c, k): Cavity => ({ ...(old.get(told[r][k]) ?? { id: told[r][k], role: "unknown" }), at: c.at })),
  );
  return { ...connector, cavities };
}

/** A connector with its cavities in these rows; what is known of those that stay, stays. Names must be right: {@link namesFault}. */
export function laidOut(connector: Connector, rows: string): Connector {
  const names = namesOf(rows);
  const kept = renamed(connector, names);
  if (kept) return kept;
  const wide = Math.max(...names.map((r) => r.length));
  const size: [number, number] = [2 * EDGE + (wide - 1) * STEP, 2 * 50 + (names.length - 1) * STEP];
  const old = new Map(connector.cavities.map((c) => [c.id, c]));
  const cavities = names.flatMap((row, r) =>
    row.flatMap((id, c): Cavity[] => {
      if (GAP.test(id)) return [];
      const at: [number, number] = [EDGE + c * STEP, 50 + r * STEP];
      return [{ ...(old.get(id) ?? { id, role: "unknown" as const }), at }];
    }),
  );
  // An outline that was drawn for other rows fits no more.
  const { outline, ...rest } = connector;
  const same = size.join() === connector.size.join();
  return {
    ...rest,
    ...(outline && same ? { outline } : {}),
    ...(outline && !same ? { shape: "block" as const } : {}),
    size,
    cavities,
  };
}

/** What is known of one cavity. */
export function withCavity(
  connector: Connector,
  id: string,
  what: Partial<Pick<Cavity, "role" | "system" | "wire">>,
): Connector {
  return {
    ...connector,
    cavities: connector.cavities.map((c) => {
      if (c.id !== id) return c;
      const { system, wire, ...rest } = { ...c, ...what };
      return {
        ...rest,
        ...(system && ["test", "signal"].includes(rest.role) ? { system } : {}),
        ...(wire ? { wire } : {}),
      };
    }),
  };
}
