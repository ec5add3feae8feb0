import Papa from "papaparse";
import { useEffect, useRef, useState } from "react";
import { Input } from "react-aria-components/Input";
import styled from "styled-components";
import { cellFault, COLUMNS, newEntry, withBlock, type Column } from "@core/pack/make/grid";
import type { Entry } from "@core/pack/pack";
import { scopeText } from "@core/pack/scope";
import { Kbd, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { rowKey, useLeft } from "./use-left";

const Scroll = styled.div`
  overflow-x: auto;
  margin: 0 -4px;
  padding: 4px;
`;

const Grid = styled.table`
  border-collapse: collapse;
  min-width: 860px;
  width: 100%;
  th {
    padding: 6px 8px;
    text-align: left;
    font-weight: 700;
  }
  td {
    padding: 0;
    border: 1px solid var(--line);
  }
  tr > :first-child {
    position: sticky;
    left: 0;
    z-index: 1;
    width: 5.5em;
    background: var(--sheet);
  }
`;

const Cell = styled(Input)`
  width: 100%;
  min-height: 48px;
  padding: 6px 8px;
  border: 0;
  background: transparent;
  &[data-focused] {
    outline: 3px solid var(--petrol);
    outline-offset: -3px;
  }
  &[aria-invalid="true"] {
    box-shadow: inset 0 0 0 2px var(--danger);
  }
`;

const textOf = (e: Entry, column: Column): string => e[column] ?? "";

/** @param one it is of one row */
function faultsText(faults: readonly string[], one: boolean): string {
  if (one) return `Not stored yet. ${faults[0].replace("Row 1, ", "")}`;
  const more = faults.length > 4 ? ` And ${faults.length - 4} more.` : "";
  return `Nothing was taken over. ${faults.slice(0, 4).join(" ")}${more}`;
}

/** All codes as a grid: what is copied from a spreadsheet goes in from any cell on, the keys go as they do there. */
export function EntryGrid({
  keep,
  entries,
  onStore,
}: {
  /** Under which a cell that is not stored is kept. */
  keep: string;
  entries: readonly Entry[];
  onStore: (entries: Entry[]) => void;
}) {
  const table = useRef<HTMLTableElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [done, setDone] = useState("");
  // Behind the last row there is a cell for a new code alone.
  const focus = (row: number, column: number): void =>
    [column, 0]
      .map((c) => table.current?.querySelector<HTMLInputElement>(`[data-cell="${row}/${c}"]`))
      .find(Boolean)
      ?.focus();
  // A code that is changed moves to its place in the order: who goes on to the next cell of its row goes with it.
  const follow = useRef<{ key: string; column: number } | null>(null);
  const { leftAt, typing, stored } = useLeft(keep, entries, focus);
  useEffect(() => {
    if (!follow.current) return;
    const { key, column } = follow.current;
    follow.current = null;
    focus(
      entries.findIndex((e) => rowKey(e) === key),
      column,
    );
  }, [entries]);
  const put = (row: number, column: number, block: string[][], to: string | null = null): void => {
    const next = withBlock(entries, { row, column }, block);
    setDone("");
    if ("faults" in next) {
      return setProblem(faultsText(next.faults, block.length === 1));
    }
    setProblem(null);
    stored();
    const [nextRow, nextColumn] = (to ?? "/").split("/");
    if (column === 0 && nextRow === String(row))
      follow.current = { key: rowKey(next.entries[row]), column: Number(nextColumn) };
    onStore(next.entries);
    if (block.length > 1 || block[0].length > 1)
      setDone(`${next.rows} ${next.rows === 1 ? "row" : "rows"} taken over.`);
  };
  const paste = (row: number, column: number, e: React.ClipboardEvent): void => {
    const text = e.clipboardData.getData("text/plain").replace(/\r?\n$/, "");
    const { data } = Papa.parse<string[]>(text, { delimiter: "\t" });
    // A single text goes into the cell as everywhere.
    if (data.length < 2 && (data[0]?.length ?? 0) < 2) return;
    e.preventDefault();
    put(row, column, data);
  };
  return (
    <>
      <Soft>
        Paste rows from a spreadsheet into any cell. <Kbd>Enter</Kbd> and the arrows go up and down, <Kbd>Esc</Kbd>{" "}
        takes back what you typed.
      </Soft>
      <Trouble problem={problem} />
      <p role="status">{done}</p>
      <Scroll tabIndex={0} role="region" aria-label="Codes as a grid">
        <Grid ref={table}>
          <thead>
            <tr>
              {COLUMNS.map((c) => (
                <th key={c.id} scope="col">
                  {c.label}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {entries.map((e, row) => (
              <tr key={row}>
                {COLUMNS.map((c, column) => (
                  <td key={c.id}>
                    <OneCell
                      key={leftAt(row, column)}
                      left={leftAt(row, column)}
                      onType={(text) => typing(e, column, text)}
                      at={`${row}/${column}`}
                      label={`${c.label}, code ${e.code}${e.scope ? `, ${scopeText(e.scope)}` : ""}`}
                      column={c.id}
                      value={textOf(e, c.id)}
                      onStore={(text, to) => put(row, column, [[text]], to)}
                      onPaste={(e) => paste(row, column, e)}
                      onMove={(by) => focus(row + by, column)}
                    />
                  </td>
                ))}
              </tr>
            ))}
            <tr>
              <td>
                <OneCell
                  key={`${entries.length} ${leftAt(entries.length, 0)}`}
                  left={leftAt(entries.length, 0)}
                  onType={(text) => typing(null, 0, text)}
                  at={`${entries.length}/0`}
                  label="A new code"
                  column="code"
                  value=""
                  onStore={(code) => put(entries.length, 0, [[code, newEntry(code).title]])}
                  onPaste={(e) => paste(entries.length, 0, e)}
                  onMove={(by) => focus(entries.length + by, 0)}
                />
              </td>
              <td colSpan={COLUMNS.length - 1} style={{ padding: "0 8px" }}>
                <Soft as="span">A new code, or rows to add: type or paste here</Soft>
              </td>
            </tr>
          </tbody>
        </Grid>
      </Scroll>
    </>
  );
}

function OneCell({
  left,
  onType,
  at,
  label,
  column,
  value,
  onStore,
  onPaste,
  onMove,
}: {
  /** What was typed here before the page was gone. */
  left: string | null;
  /** @param text null where there is no more of it than is stored */
  onType: (text: string | null) => void;
  at: string;
  label: string;
  column: Column;
  value: string;
  /** @param next the cell that is gone to, as far as it is one */
  onStore: (text: string, next: string | null) => void;
  onPaste: (e: React.ClipboardEvent) => void;
  onMove: (by: 1 | -1) => void;
}) {
  const [typed, setTyped] = useState<string | null>(left);
  const text = typed?.replace(/\s+/g, " ").trim();
  const fault = text !== undefined && text !== value ? cellFault(column, text) : null;
  const store = (next: EventTarget | null) => {
    if (text === undefined) return;
    if (text === value) {
      setTyped(null);
      onType(null);
    } else onStore(text, next instanceof HTMLElement ? (next.dataset.cell ?? null) : null);
  };
  // What is stored is shown again, once it has come.
  const [before, setBefore] = useState(value);
  if (before !== value) {
    setBefore(value);
    setTyped(null);
  }
  return (
    <Cell
      data-cell={at}
      aria-label={label}
      aria-invalid={fault !== null}
      title={fault ?? undefined}
      inputMode={column === "code" ? "numeric" : "text"}
      value={typed ?? value}
      onChange={(e) => {
        setTyped(e.target.value);
        onType(e.target.value);
      }}
      onBlur={(e) => store(e.relatedTarget)}
      onPaste={onPaste}
      onKeyDown={(e) => {
        if (e.key === "Escape") {
          setTyped(null);
          onType(null);
        } else if (e.key === "Enter" || e.key === "ArrowDown" || e.key === "ArrowUp") {
          e.preventDefault();
          onMove(e.key === "ArrowUp" || (e.key === "Enter" && e.shiftKey) ? -1 : 1);
        }
      }}
    />
  );
}
