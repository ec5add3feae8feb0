import { useEffect, useState } from "react";
import type { Entry } from "@core/pack/pack";
import { dropDraft, readDraft, writeDraft } from "~/store/drafts";

export const rowKey = (e: Entry): string => `${e.code} ${JSON.stringify(e.scope ?? null)}`;

/** What was typed into a cell and is not stored yet: a closed page loses none of it. */
interface Left {
  /** The row's code and where it holds; empty for a new one. */
  row: string;
  column: number;
  text: string;
}
const isLeft = (v: unknown): v is Left => {
  const { row, column, text } = (v ?? {}) as Partial<Left>;
  return typeof row === "string" && typeof column === "number" && typeof text === "string" && text.length <= 1000;
};

/**
 * Keeps what is typed into a cell of the grid until it is stored, and puts it back where its page was gone.
 * @param focus brings the keys to a cell
 */
export function useLeft(keep: string, entries: readonly Entry[], focus: (row: number, column: number) => void) {
  const [left, setLeft] = useState<Left | null>(null);
  useEffect(() => {
    let gone = false;
    const found = (draft: unknown) => void (gone || !isLeft(draft) || setLeft(draft));
    readDraft(keep).then(found, () => undefined);
    return () => void (gone = true);
  }, [keep]);
  const row = !left ? -1 : left.row ? entries.findIndex((e) => rowKey(e) === left.row) : entries.length;
  useEffect(() => {
    if (left) focus(row, left.column);
    // The keys go there once, where what was left is shown; the rows may move after.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [left]);
  const drop = () => void dropDraft(keep).catch(() => undefined);
  return {
    /** What was left in a cell, or null. */
    leftAt: (at: number, column: number): string | null =>
      left && at === row && column === left.column ? left.text : null,
    /** @param entry null for a new one; @param text null where nothing is typed any more */
    typing: (entry: Entry | null, column: number, text: string | null): void => {
      if (text === null) drop();
      else writeDraft(keep, { row: entry ? rowKey(entry) : "", column, text }).catch(() => undefined);
    },
    stored: (): void => {
      setLeft(null);
      drop();
    },
  };
}
