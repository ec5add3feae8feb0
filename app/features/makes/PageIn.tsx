import { useEffect, useState } from "react";
import styled from "styled-components";
import { assumedOf } from "@core/pack/assumed";
import { talkIn } from "@core/pack/make/build";
import { dialectIdOf } from "@core/pack/way";
import type { Place } from "@core/table/photo/read";
import { PAGE_MAX, type ReadRow, type ReadTable, type TableHints } from "@core/table/read-table";
import type { Role } from "@core/table/columns";
import type { Entry, Pack } from "@core/pack/pack";
import { useDraft } from "~/store/use-draft";
import { useMake } from "~/store/use-make";
import { flashWorker } from "~/workers/flash";
import { Field } from "~/ui/Field";
import { FileDrop } from "~/ui/FileDrop";
import { Caution, Sheet } from "~/ui/bits";
import { CutOut } from "./CutOut";
import { FoundRows } from "./FoundRows";
import { PhotoState } from "./PhotoState";
import { Columns } from "./layout";
import { pageFile } from "./page-file";
import { usePhoto } from "./use-photo";

const isText = (v: unknown): v is string => typeof v === "string" && v.length <= PAGE_MAX;

/** What is known of a system's codes before the page is read. */
function hintsOf(pack: Pack, system: string): TableHints {
  const reads = (id: string) => pack.variants.some((v) => v.systems.some((s) => s.system === system && s.way === id));
  const way = pack.ways.find((w) => dialectIdOf(w) !== null && reads(w.id));
  const talk = way && !assumedOf(pack, way).includes("talk") ? talkIn(pack, dialectIdOf(way)!) : null;
  if (!talk || talk.style === "total") return {};
  return { digits: talk.digits, zero: talk.zero || talk.style === "long-short" };
}

/** The page of the manual: pasted or from a file; each code beside the line that it was read from, what is doubtful marked. */
export function PageIn({
  system,
  entries,
  onTake,
}: {
  /** Whose codes they are. */
  system: string;
  entries: readonly Entry[];
  onTake: (entries: Entry[], mode: "all" | "beside") => void;
}) {
  const { pack } = useMake();
  const [page, setPage] = useDraft<string>(`make/${pack.id}/page`, "", isText);
  const [problem, setProblem] = useState<string | null>(null);
  const [columns, setColumns] = useState<[number, Role][]>([]);
  const { photo, open, stop } = usePhoto(pack.id, setProblem);
  const seen = photo?.phase === "done" ? photo : null;
  const source = seen ? seen.read.text : page;
  const hints = { ...hintsOf(pack, system), ...(seen && { seen: seen.read.seen }) };
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
        <FoundRows
          key={source}
          page={source}
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
          onTake={(taken, mode) => {
            stop();
            onTake(taken, mode);
          }}
        />
      )}
    </Sheet>
  );
}

/** Where a row stands on the picture, pixels from its top. */
const placeOf = (lines: readonly Place[], { from, to }: ReadRow): Place => {
  const own = lines.slice(from, to + 1);
  const [first] = own;
  return first ? { ...first, y1: own[own.length - 1].y1 } : { x0: 0, x1: 1, y0: 0, y1: 1 };
};

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

const Source = styled.code`
  color: var(--ink-soft);
  font-size: 0.85rem;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
`;
