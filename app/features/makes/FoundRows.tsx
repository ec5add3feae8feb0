import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { useMemo, useState, type ReactNode } from "react";
import styled from "styled-components";
import { entryOf } from "@core/table/entries";
import type { Doubt, ReadRow, ReadTable } from "@core/table/read-table";
import type { Role } from "@core/table/columns";
import type { Entry } from "@core/pack/pack";
import { holds, map, object, oneOf, optional, text, word, type Of } from "@core/schema/rule";
import { useDraft } from "~/store/use-draft";
import { useMake } from "~/store/use-make";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { Mono, Row, Soft } from "~/ui/bits";

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

/** What is done with a doubtful row: by its place on the page and its code. */
const rulingRule = object({ ok: optional(oneOf(true)), out: optional(oneOf(true)), code: optional(word(4)) });
type Ruling = Of<typeof rulingRule>;

/** What was said of the rows of one page; of another page it says nothing. */
const rulingsRule = object({ of: text(64), rulings: map(word(20), rulingRule) });
type Rulings = Of<typeof rulingsRule>;
const areRulings = (v: unknown): v is Rulings => "value" in holds(rulingsRule, v);
const NONE: Rulings = { of: "", rulings: {} };

const keyOf = (row: ReadRow): string => `${row.from} ${row.code}`;

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

/** What was found on a page: doubtful rows first, and what is taken over. */
export function FoundRows({
  page,
  source,
  table,
  there,
  onColumn,
  onTake,
}: {
  /** Its text, as it was read. */
  page: string;
  /** The place on the page that a row was read from. */
  source: (row: ReadRow) => ReactNode;
  table: ReadTable;
  /** So many codes are in the make already. */
  there: number;
  onColumn: (column: number, role: Role) => void;
  onTake: (entries: Entry[], mode: "all" | "beside") => void;
}) {
  const { pack } = useMake();
  const of = useMemo(() => bytesToHex(sha256(utf8ToBytes(page))), [page]);
  const [kept, keep] = useDraft<Rulings>(`make/${pack.id}/rulings`, NONE, areRulings);
  const rulings = kept.of === of ? kept.rulings : {};
  const ruled = (row: ReadRow) => rulings[keyOf(row)] ?? {};
  const rule = (row: ReadRow, ruling: Ruling) => keep({ of, rulings: { ...rulings, [keyOf(row)]: ruling } });
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
      <Rows aria-label="Codes found" tabIndex={0}>
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
