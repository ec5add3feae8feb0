import { encode } from "@core/flash/encode";
import { writeTrace } from "@core/lamp/trace";
import { dialectOf } from "./films";

/** The trace of a lamp of a make that shows these codes, for so many ms. */
export const traceOf = (pack: string, id: string, codes: string[], until: number): string =>
  writeTrace({ edges: encode(dialectOf(pack, id), { stored: codes }, until), until });
