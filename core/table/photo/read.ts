import { codeBand, inBand, withLooks, type Band, type Look } from "./code-column";
import { piecesIn } from "./digits";
import { cutOut, type Gray } from "./gray";
import { linesOfWords, pageText, type Word, type WordLine } from "./layout";
import { offered, OFFERS, prepared } from "./prepare";

/** Whoever reads print off a picture. */
export interface PageReader {
  /** All words of a page, with their places. */
  words: (page: Gray) => Promise<Word[]>;
  /** One cell in which digits alone stand. */
  digits: (cell: Gray) => Promise<{ text: string; sure: number }>;
}

export interface Place {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

/** A page that was read off a picture. */
export interface PhotoPage {
  /** Its text, columns under one another. */
  text: string;
  /** The number of each line that is well seen; null where there is none, or it is hard to read. */
  seen: (string | null)[];
  /** The page as it was read, level and clean. */
  page: Gray;
  /** Where each line of the text stands on the page, pixels from its top left. */
  lines: Place[];
}

/** What is being done, and how far that is, 0 to 1. */
export type PhotoStep = "prepare" | "read" | "digits";
type Tell = (step: PhotoStep, share: number) => void;

/** The reader is so sure of a page on the whole, or the page is offered to it in another way, 0 to 1. */
const SURE_ON_THE_WHOLE = 0.86;
/** Height at which a cell of digits is shown, pixels a letter. */
const CELL_HIGH = 48;
/** More lines than a page of a manual has are not looked at twice. */
const MOST_LINES = 200;

/** Reads a picture of a page: first the whole, then each code once more by itself. */
export async function readPhoto(picture: Gray, reader: PageReader, tell: Tell = () => undefined): Promise<PhotoPage> {
  tell("prepare", 0);
  const base = prepared(picture);
  let best: { page: Gray; words: Word[]; sure: number } | null = null;
  for (const [i, offer] of OFFERS.entries()) {
    tell("read", i / OFFERS.length);
    const page = offered(base, offer);
    const words = await reader.words(page);
    const sure = sureOf(words);
    if (!best || sure > best.sure) best = { page, words, sure };
    if (best.sure >= SURE_ON_THE_WHOLE) break;
  }
  const { page, words } = best!;
  const plain = linesOfWords(words);
  const band = codeBand(plain);
  // Of a page that the reader is not sure of all looks have to agree.
  const agree = sureOf(words) >= SURE_ON_THE_WHOLE ? 2 : 3;
  const { lines, seen } = band
    ? withLooks(plain, band, await looksAt(page, plain, band, reader, tell), agree)
    : { lines: plain, seen: plain.map(() => null) };
  return { text: pageText(lines), seen, page, lines: lines.map(placeOf) };
}

const placeOf = ({ words, y0, y1 }: WordLine): Place => ({ x0: words[0]?.x0 ?? 0, x1: words.at(-1)?.x1 ?? 0, y0, y1 });

/** How sure the reader is, by letters. */
function sureOf(words: readonly Word[]): number {
  const real = words.filter((w) => /[\p{L}\d]/u.test(w.text));
  const letters = real.reduce((n, w) => n + w.text.length, 0);
  return letters ? real.reduce((s, w) => s + w.sure * w.text.length, 0) / letters : 0;
}

/** Each cell of the column of codes once more, from a line above the first one that was made out to the last. */
async function looksAt(
  page: Gray,
  lines: readonly WordLine[],
  band: Band,
  reader: PageReader,
  tell: Tell,
): Promise<Map<number, Look>> {
  const coded = [...lines.keys()].filter((k) => inBand(lines[k], band).some((w) => /^\d{1,4}$/.test(w.text)));
  const [from, to] = [Math.max(0, coded[0] - 1), coded.at(-1)!];
  const looks = new Map<number, Look>();
  for (let k = from; k <= Math.min(to, from + MOST_LINES); k++) {
    tell("digits", (k - from) / (to - from + 1));
    const own = inBand(lines[k], band);
    const y0 = Math.min(lines[k].y0, ...own.map((w) => w.y0));
    const y1 = Math.max(lines[k].y1, ...own.map((w) => w.y1));
    const high = Math.max(8, y1 - y0);
    const cell = cutOut(page, band.x0, y0 - 0.35 * high, band.x1 - band.x0, 1.7 * high, CELL_HIGH / high);
    looks.set(k, { ...(await reader.digits(cell)), pieces: piecesIn(cell) });
  }
  return looks;
}
