import { useEffect, useState, type ReactNode } from "react";
import { ProgressBar } from "react-aria-components/ProgressBar";
import styled from "styled-components";
import { assumedIn, talkIn } from "@core/pack/make/build";
import { dialectIdOf } from "@core/pack/way";
import { entryOf } from "@core/table/entries";
import { PAGE_MAX, type Doubt, type ReadRow, type ReadTable, type TableHints } from "@core/table/read-table";
import type { PhotoStep, Place } from "@core/table/photo/read";
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
import { CutOut } from "./CutOut";
import { Columns } from "./layout";
import { pageFile } from "./page-file";
import { usePhoto, type Photo } from "./use-photo";

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
  unclear: "its number is hard to read",
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
  const { photo, open, stop } = usePhoto(setProblem);
  const seen = photo?.phase === "done" ? photo : null;
  const source = seen ? seen.read.text : page;
  const hints = { ...hintsOf(pack), ...(seen && { seen: seen.read.seen }) };
  const table = useRead(source, hints, columns, setProblem);
  const paste = (text: string) => {
    if (text.length > PAGE_MAX)
      return setProblem(
        `That is more than a page: ${Math.round(text.length / 1000)} kB of text. Take the table alone.`,
      );
    stop();
    setProblem(null);
    setColumns([]);
    setPage(text);
  };
  const take = async (file: File) => {
    const found = await pageFile(file);
    if ("problem" in found) return setProblem(found.problem);
    if ("text" in found) return paste(found.text);
    setColumns([]);
    await open(found.picture);
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
          label="Or a photo, a scan or a file of it"
          pick="Open a picture or file"
          accept={[".csv", ".tsv", ".txt", "text/csv", "text/plain", "image/*"]}
          onFile={(f) => void take(f)}
        >
          Lay the page flat in even light and fill the picture with it. It stays on this device.
        </FileDrop>
      </Columns>
      {photo && <PhotoState photo={photo} onStop={stop} />}
      {problem && (
        <div role="alert">
          <Caution>{problem}</Caution>
        </div>
      )}
      {source.trim() && table && rows.length === 0 && photo?.phase !== "reading" && (
        <div role="status">
          <Caution>
            No code was found on this page. A row needs a number and words, such as &quot;24 Vehicle speed sensor&quot;.
            Paste the table alone, or add the codes by hand below.
          </Caution>
        </div>
      )}
      {rows.length > 0 && table && photo?.phase !== "reading" && (
        <Found
          key={source}
          source={(row) =>
            seen ? (
              <CutOut page={seen.page} at={placeOf(seen.read.lines, row)} says={`Code ${row.code} on the page`} />
            ) : (
              <Source>{sourceOf(page, row)}</Source>
            )
          }
          table={table}
          there={entries.length}
          onColumn={(c, role) => setColumns([...columns.filter(([k]) => k !== c), [c, role]])}
          onTake={onTake}
        />
      )}
    </Sheet>
  );
}

const STEP_WORDS: Record<PhotoStep, string> = {
  prepare: "Straightening the page and evening out the light",
  read: "Reading the print",
  digits: "Looking at each number once more",
};

const Track = styled.div`
  height: 10px;
  border-radius: 5px;
  background: var(--rule);
  i {
    display: block;
    height: 100%;
    border-radius: 5px;
    background: var(--petrol);
  }
`;

/** Where a picture stands that is being read, with a way to call it off. */
function PhotoState({ photo, onStop }: { photo: Photo; onStop: () => void }) {
  if (photo.phase === "done")
    return (
      <Row>
        <span>Read from {photo.name}.</span>
        <Button $look="quiet" onPress={onStop}>
          Leave the picture aside
        </Button>
      </Row>
    );
  const done = { prepare: 0.05, read: 0.15 + 0.55 * photo.share, digits: 0.75 + 0.25 * photo.share }[photo.step];
  return (
    <Row>
      <ProgressBar aria-label={`Reading ${photo.name}`} value={100 * done} style={{ flex: "1 1 240px" }}>
        <p>{STEP_WORDS[photo.step]} …</p>
        <Track>
          <i style={{ width: `${100 * done}%` }} />
        </Track>
      </ProgressBar>
      <Button onPress={onStop}>Stop</Button>
    </Row>
  );
}

/** Where a row stands on the picture, pixels from its top. */
const placeOf = (lines: readonly Place[], { from, to }: ReadRow): Place => {
  const own = lines.slice(from, to + 1);
  const [first] = own;
  return first ? { ...first, y1: own[own.length - 1].y1 } : { x0: 0, x1: 1, y0: 0, y1: 1 };
};

/** What was found on a page: doubtful rows first, and what is taken over. */
function Found({
  source,
  table,
  there,
  onColumn,
  onTake,
}: {
  /** The place on the page that a row was read from. */
  source: (row: ReadRow) => ReactNode;
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
            <OneRow key={i} row={row} source={source(row)} ruling={ruled(row)} onRule={(r) => rule(row, r)} />
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
  const [read, setRead] = useState<{ page: string; table: ReadTable } | null>(null);
  const of = JSON.stringify([page, hints, columns]);
  useEffect(() => {
    let gone = false;
    if (!page.trim()) return;
    const timer = setTimeout(() => {
      flashWorker()
        .readTable(page, { ...hints, columns: new Map(columns) })
        .then(
          (table) => !gone && setRead({ page, table }),
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
  // What was read off another page says nothing of this one.
  return read?.page === page ? read.table : null;
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
  source: ReactNode;
  ruling: Ruling;
  onRule: (r: Ruling) => void;
}) {
  const doubt = row.doubts.length > 0;
  const more = Object.values(row.texts).filter(Boolean).join(" · ");
  return (
    <li
      data-code={ruling.code ?? row.code}
      data-title={row.title}
      data-doubt={doubt && !ruling.ok && !ruling.out ? "yes" : undefined}
    >
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
      {source}
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
