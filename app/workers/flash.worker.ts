import "@core/schema/joi-now";
import { expose } from "comlink";
import { decode, readFilm, type Decoded, type FilmRead } from "@core/flash/decode";
import type { Dialect } from "@core/flash/dialect/dialect";
import type { Called, Evidence, Filmed, Pressed } from "@core/flash/seen/evidence";
import { howWell } from "@core/flash/search/instead";
import { identify, type Identified } from "@core/flash/identify";
import { learn, type Learned } from "@core/flash/learn/learn";
import { misreadsOf, type Misread, type MisreadAsked } from "@core/job/misread";
import { readTrace } from "@core/lamp/trace";
import { PACK_MAX_BYTES, readPack, tooLarge, type PackChecked } from "@core/pack/schema";
import { readTable, type ReadTable, type TableHints } from "@core/table/read-table";

const api = {
  decode: (dialect: Dialect, evidence: Evidence | Pressed | Called, table: string[]): Decoded =>
    decode(dialect, evidence, { table }),
  readFilm: (dialect: Dialect, filmed: Filmed, table: string[]): FilmRead => readFilm(dialect, filmed, { table }),
  identify: (dialects: Dialect[], evidence: Evidence | Filmed): Identified => identify(dialects, evidence),
  /** What was misread for a code that stands in no table. */
  misreads: (asked: MisreadAsked): Misread[] =>
    misreadsOf(
      asked,
      asked.watches.map(({ seen, lists }) => howWell(asked.dialect, seen, lists, asked.cylinders)),
    ),
  /** How a lamp talks that none of them does. */
  learn: (watches: (Evidence | Filmed)[]): Learned => learn(watches),
  /** Reads a trace file; at most the first bytes that could be one are held. */
  readTrace: async (file: Blob, maxBytes: number) =>
    readTrace(file.size > maxBytes ? "x".repeat(maxBytes + 1) : await file.text()),
  /** Reads the table on a page of text. */
  readTable: (page: string, hints: TableHints): ReadTable => readTable(page, hints),
  /** Reads a make's file. */
  readPack: async (file: Blob): Promise<PackChecked> =>
    file.size > PACK_MAX_BYTES ? tooLarge() : readPack(await file.text()),
};

export type FlashApi = typeof api;
expose(api);
