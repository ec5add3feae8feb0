import { useEffect, useState } from "react";
import styled from "styled-components";
import { assumedIn, talkIn } from "@core/pack/make/build";
import { dialectIdOf } from "@core/pack/way";
import { entryOf } from "@core/table/entries";
import { PAGE_MAX, type Doubt, type ReadRow, type ReadTable, type TableHints } from "@core/table/read-table";
import type { Role } from "@core/table/columns";
import type { Entry, Pack } from "@core/pack/pack";
import { useDraft } from "~/store/use-draft";
import { useMake } from "~/store/use-make";
import { flashWorker } from "~/workers/flash";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { FileDrop } from "~/ui/FileDrop";
import { Caution, Mono, Row, Sheet, Soft } from "~/ui/bits";
import { Columns } from "./layout";

const DOUBT_WORDS: Record<Doubt, string> = {
  twice: "stands there twice",
  "out-of-order": "out of order",
  digits: "more or fewer digits than the lamp shows",
  "cannot-show": "the lamp cannot show it",
  "no-text": "nothing is said of it",
  span: "from a span such as 31-33",
  padded: "a zero stood in front",
  "two-in-one": "maybe two codes in one",
  few: "hardly a table",
};

const isText = (v: unknown): v is string => typeof v === "string" && v.length <= PAGE_MAX;

/** What is known of the codes before the page is read. */
function hintsOf(pack: Pack): TableHints {
  const lamp = pack.ways.map(dialectIdOf).find((d) => d !== null);
  const talk = lamp && !assumedIn(pack).includes("talk") ? talkIn(pack, lamp) : null;
  if (!talk || talk.style === "total") return {};
  return { digits: talk.digits, zero: talk.zero || talk.style === "long-short" };
}

/** What is done with a doubtful row: by its place on the page and its code. */
interface Ruling {
  ok?: true;
  out?: true;
  code?: string;
}

const keyOf = (row: ReadRow): string => `${row.from} ${row.code}`;

/** The page of the manual: pasted or from a file; each code beside the line that it was read from, what is doubtful marked. */
export function PageIn({
  entries,
  onTake,
}: {
  entries: readonly Entry[];
  onTake: (entries: Entry[], mode: "all" | "beside") => void;
}) {
  const { pack } = useMake();
  const [page, setPage] = useDraft<string>(`make/${pack.id}/page`, "", isText);
  const [problem, setProblem] = useState<string | null>(null);
  const [columns, setColumns] = useState<[number, Role][]>([]);
  const hints = hintsOf(pack);
  const table = useRead(page, hints, columns, setProblem);
  const paste = (text: string) => {
    if (text.length > PAGE_MAX)
      return setProblem(
        `That is more than a page: ${Math.round(text.length / 1000)} kB of text. Take the table alone.`,
      );
    setProblem(null);
    setColumns([]);
    setPage(text);
  };
  const open = async (file: File) => {
    if (file.size > 4 * PAGE_MAX) return setProblem(`${file.name} is larger than a table of codes can be.`);
    const bytes = await file.arrayBuffer();
    let text: string;
    try {
      text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
    } catch {
      text = new TextDecoder("windows-1252").decode(bytes);
    }
    if (/[\u0000-\u0008]/.test(text.slice(0, 2000)))
      return setProblem(`${file.name} is no text. Save the table as CSV or text, or paste it.`);
    paste(text);
  };
  const rows = table?.rows ?? [];
  return (
    <Sheet>
      <Columns>
        <Field
          label="Paste the table"
          description="From a web page, a spreadsheet or a text. Columns are found by themselves."
          rows={8}
          value={page}
          onChange={paste}
        />
        <FileDrop
          label="Or drop a file here"
          pick="Open a file"
          accept={[".csv", ".tsv", ".txt", "text/csv", "text/plain"]}
          onFile={(f) => void open(f)}
        >
          A table as CSV or text.
        </FileDrop>
      </Columns>
      {problem && (
        <div role="alert">
          <Caution>{problem}</Caution>
        </div>
      )}
      {page.trim() && table && rows.length === 0 && (
        <div role="status">
          <Caution>
            No code was found on this page. A row needs a number and words, such as &quot;24 Vehicle speed sensor&quot;.
            Paste the table alone, or add the codes by hand below.
          </Caution>
        </div>
      )}
      {rows.length > 0 && table && (
        <Found
          key={page}
          page={page}
          table={table}
          there={entries.length}
          onColumn={(c, role) => setColumns([...columns.filter(([k]) => k !== c), [c, role]])}
          onTake={onTake}
        />
      )}
    </Sheet>
  );
}

/** What was found on a page: doubtful rows first, and what is taken over. */
function Found({
  page,
  table,
  there,
  onColumn,
  onTake,
}: {
  page: string;
  table: ReadTable;
  /** So many codes are in the make already. */
  there: number;
  onColumn: (column: number, role: Role) => void;
  onTake: (entries: Entry[], mode: "all" | "beside") => void;
}) {
  const { pack } = useMake();
  const [rulings, setRulings] = useState<Record<string, Ruling>>({});
  const ruled = (row: ReadRow) => rulings[keyOf(row)] ?? {};
  const rule = (row: ReadRow, ruling: Ruling) => setRulings({ ...rulings, [keyOf(row)]: ruling });
  const { rows } = table;
  const doubtful = rows.filter((r) => r.doubts.length && !ruled(r).ok && !ruled(r).out);
  const engines = pack.variants.flatMap((v) => v.engines);
  const taken = rows
    .filter((r) => !ruled(r).out && (!r.doubts.length || ruled(r).ok))
    .map((r) => entryOf({ ...r, code: ruled(r).code ?? r.code }, engines));
  return (
    <>
      <p role="status">
        <strong>
          {rows.length} {rows.length === 1 ? "code" : "codes"} found
        </strong>
        {doubtful.length > 0
          ? `, ${doubtful.length} doubtful: say whether they are right, or leave them out.`
          : ", none doubtful."}
      </p>
      <ColumnRoles table={table} onChange={onColumn} />
      <Rows aria-label="Codes found">
        {[...rows]
          .map((row, i) => ({ row, i }))
          .sort((a, b) => Number(b.row.doubts.length > 0) - Number(a.row.doubts.length > 0) || a.i - b.i)
          .map(({ row, i }) => (
            <OneRow key={i} row={row} source={sourceOf(page, row)} ruling={ruled(row)} onRule={(r) => rule(row, r)} />
          ))}
      </Rows>
      {table.aside.some((a) => a.as === "other") && (
        <details>
          <summary>Lines that were left aside</summary>
          <ul>
            {table.aside.slice(0, 40).map((a) => (
              <li key={a.from}>{a.text.slice(0, 200)}</li>
            ))}
          </ul>
        </details>
      )}
      <Row>
        <Button $look="primary" isDisabled={!taken.length} onPress={() => onTake(taken, there ? "beside" : "all")}>
          {there ? `Add ${taken.length} to the ${there} there` : `Take ${taken.length} codes`}
        </Button>
        {there > 0 && (
          <Button isDisabled={!taken.length} onPress={() => onTake(taken, "all")}>
            Put {taken.length} in their place
          </Button>
        )}
      </Row>
      {doubtful.length > 0 && <Soft>Doubtful ones are left out until you say that they are right.</Soft>}
    </>
  );
}

/** The table on the page, read in the worker a moment after the last change. */
function useRead(
  page: string,
  hints: TableHints,
  columns: [number, Role][],
  onProblem: (says: string | null) => void,
): ReadTable | null {
  const [read, setRead] = useState<{ of: string; table: ReadTable } | null>(null);
  const of = JSON.stringify([page, hints, columns]);
  useEffect(() => {
    let gone = false;
    if (!page.trim()) return;
    const timer = setTimeout(() => {
      flashWorker()
        .readTable(page, { ...hints, columns: new Map(columns) })
        .then(
          (table) => !gone && setRead({ of, table }),
          () => !gone && onProblem("This page could not be read. Take the table alone and paste it again."),
        );
    }, 250);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
    // All that is read from is in `of`.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [of]);
  return page.trim() ? (read?.table ?? null) : null;
}

const sourceOf = (page: string, { from, to }: ReadRow): string =>
  page
    .replace(/\r\n?/g, "\n")
    .split("\n")
    .slice(from, to + 1)
    .join("\n")
    .replace(/\t/g, "  ");

const Rows = styled.ol`
  display: grid;
  max-height: 60vh;
  overflow-y: auto;
  border: 2px solid var(--rule);
  border-radius: 10px;
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 4px 20px;
    padding: 10px 12px;
    border-top: 1px solid var(--rule);
    &:first-child {
      border-top: 0;
    }
    @media (min-width: 900px) {
      grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
    }
  }
`;

const Source = styled.code`
  color: var(--ink-soft);
  font-size: 0.85rem;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
`;

function OneRow({
  row,
  source,
  ruling,
  onRule,
}: {
  row: ReadRow;
  source: string;
  ruling: Ruling;
  onRule: (r: Ruling) => void;
}) {
  const doubt = row.doubts.length > 0;
  const more = Object.values(row.texts).filter(Boolean).join(" · ");
  return (
    <li data-doubt={doubt && !ruling.ok && !ruling.out ? "yes" : undefined}>
      <div style={ruling.out ? { opacity: 0.55 } : undefined}>
        <p>
          <Mono style={{ fontWeight: 700, fontSize: "1.15rem" }}>{ruling.code ?? row.code}</Mono>{" "}
          {row.title || <em>no words</em>}
        </p>
        {more && <Soft>{more}</Soft>}
        {doubt && (
          <>
            <p>
              <strong>
                {ruling.out
                  ? "Left out."
                  : ruling.ok
                    ? "You said that it is right."
                    : `Doubtful: ${row.doubts.map((d) => DOUBT_WORDS[d]).join("; ")}.`}
              </strong>
            </p>
            <Row $gap={8}>
              {!ruling.ok && (
                <Button
                  aria-label={`${row.code} is right`}
                  onPress={() => onRule({ ...(ruling.code ? { code: ruling.code } : {}), ok: true })}
                >
                  It is right
                </Button>
              )}
              {!ruling.out && (
                <Button $look="quiet" aria-label={`Leave ${row.code} out`} onPress={() => onRule({ out: true })}>
                  Leave it out
                </Button>
              )}
              <Field
                aria-label={`Code instead of ${row.code}`}
                label="Or it is code"
                inputMode="numeric"
                maxLength={4}
                value={ruling.code ?? ""}
                onChange={(code) => onRule(/^[1-9]\d{0,3}$/.test(code) ? { ok: true, code } : {})}
              />
            </Row>
          </>
        )}
      </div>
      <Source>{source}</Source>
    </li>
  );
}

const ROLE_WORDS: Record<Role, string> = {
  code: "Code",
  title: "Meaning",
  sets: "Set when",
  affects: "Affects",
  look: "Look first",
  note: "More",
  "left-out": "Left out",
};

/** What was taken for what, by column; wrong guesses are mended here. */
function ColumnRoles({ table, onChange }: { table: ReadTable; onChange: (column: number, role: Role) => void }) {
  const [open, setOpen] = useState(false);
  if (table.columns.length < 2 || table.split === "plain" || table.split === "stacked") return null;
  return (
    <div style={{ display: "grid", gap: 10 }}>
      <Row>
        <span>Columns: {table.columns.map((c) => ROLE_WORDS[c.role]).join(", ")}.</span>
        <Button $look="quiet" onPress={() => setOpen(!open)}>
          {open ? "They are right" : "Not so?"}
        </Button>
      </Row>
      {open &&
        table.columns.map((c, i) => (
          <Choice
            key={i}
            label={`Column ${i + 1}${c.heading ? `, "${c.heading}"` : ""}`}
            value={c.role}
            options={(Object.keys(ROLE_WORDS) as Role[]).map((r) => ({ value: r, label: ROLE_WORDS[r] }))}
            onChange={(role) => onChange(i, role)}
          />
        ))}
    </div>
  );
}
