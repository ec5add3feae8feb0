import { expose } from "comlink";
import { decode, type Decoded } from "@core/flash/decode";
import type { Dialect } from "@core/flash/dialect";
import type { Called, Evidence, Pressed } from "@core/flash/evidence";
import { readTrace } from "@core/lamp/trace";
import { buildDemo } from "./demo";

const api = {
  decode: (dialect: Dialect, evidence: Evidence | Pressed | Called, table: string[]): Decoded =>
    decode(dialect, evidence, { table }),
  /** Reads a trace file; at most the first bytes that could be one are held. */
  readTrace: async (file: Blob, maxBytes: number) =>
    readTrace(file.size > maxBytes ? "x".repeat(maxBytes + 1) : await file.text()),
  buildDemo,
};

export type FlashApi = typeof api;
expose(api);
