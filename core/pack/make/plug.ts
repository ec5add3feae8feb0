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

/** The rows of names that a connector was laid out from, as far as its cavities stand in rows. */
export function rowsOf(connector: Connector): string {
  const ys = [...new Set(connector.cavities.map((c) => c.at[1]))].sort((a, b) => a - b);
  const xs = [...new Set(connector.cavities.map((c) => c.at[0]))].sort((a, b) => a - b);
  return ys
    .map((y) => {
      const row = xs.map((x) => connector.cavities.find((c) => c.at[0] === x && c.at[1] === y)?.id ?? "-");
      while (row.at(-1) === "-") row.pop();
      return row.join(" ");
    })
    .join("\n");
}

/** A connector with its cavities in these rows; what is known of those that stay, stays. Names must be right: {@link namesFault}. */
export function laidOut(connector: Connector, rows: string): Connector {
  const names = namesOf(rows);
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
