import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { climb, type Ladder } from "../schema/ladder";
import { holds, object, oneOf, optional, pattern, record, text, time, whole, word, type Of } from "../schema/rule";
import type { Pack } from "../pack/pack";
import { checkPack } from "../pack/schema";
import { readNotes, type CodeNotes } from "./code-notes";
import { openDoc } from "./open";
import { same } from "./same";
import { LIMITS, type Doc } from "./types";

/** A file of records: as they are stored, one key a record. */
const BACKUP_FORMAT = "klinko-backup";
export const BACKUP_VERSION = 1;
/** With photos and films; a text that is much longer is none that a browser can hold. */
export const BACKUP_MAX_BYTES = 400_000_000;

/** How files of each version that was released become those of the next; the records in them climb on their own. */
const BACKUP_LADDER: Ladder = {};

const shape = object({
  format: oneOf(BACKUP_FORMAT),
  version: whole(1),
  savedAt: time,
  records: record,
  /** Makes of one's own, by id; a file from before there were any has none. */
  makes: optional(record),
  /** Own notes to codes. */
  notes: optional(record),
  /** Photos and kept films, by id. */
  photos: optional(record),
  films: optional(record),
  /** SHA-256 of all that stands before it, hexadecimal. */
  sha256: optional(text(64)),
});
type Backup = Of<typeof shape>;

/** Parts of a file that hold entries by name. */
export type Section = "records" | "makes" | "notes" | "photos" | "films";

const id = word(LIMITS.name);
const attachedRule = object({
  vehicle: text(LIMITS.name),
  /** Id of the job that a photo belongs to, or of the reading of a film; empty where it is of the vehicle. */
  of: text(LIMITS.name),
  at: time,
  /** A data URL. */
  data: pattern(
    /^data:[a-z]+\/[a-z0-9]+(;[a-z0-9=".,-]+)*;base64,[A-Za-z0-9+/]+={0,2}$/,
    "a picture or film in base64",
  ),
});
/** A photo or a kept film, as it stands in a file. */
export type Attached = Of<typeof attachedRule> & { id: string };

/** What a file of records holds: those that can be brought in, and why others cannot. */
export interface BackupRead {
  savedAt: string;
  docs: Doc[];
  makes: Pack[];
  notes: CodeNotes;
  photos: Attached[];
  films: Attached[];
  faults: { key: string; message: string }[];
  /** Is it just as it was saved? null of a file that has no sum to tell. */
  intact: boolean | null;
}

/** How a file with a sum begins. */
const HEAD = `{"format":"${BACKUP_FORMAT}"`;
/** What stands before the sum at the end of a file. */
const SUM = ',\n"sha256":"';
/** A text is summed up in pieces of so many characters. */
const PIECE = 1 << 20;

/**
 * Writes a file of records piece by piece, so that it need not be held whole, its sum at the end.
 * @param out takes each piece of text
 */
export function backupWriter(savedAt: string, out: (text: string) => void) {
  const sum = sha256.create();
  let open: Section | null = null;
  const opened = new Set<Section>();
  const say = (piece: string): void => {
    sum.update(utf8ToBytes(piece));
    out(piece);
  };
  const close = () => open && say("}");
  const begin = (section: Section) => {
    if (opened.has(section)) throw new Error(`What belongs to ${section} comes together.`);
    close();
    say(`,\n"${section}":{`);
    opened.add(section);
    open = section;
  };
  say(`${HEAD},"version":${BACKUP_VERSION},"savedAt":${JSON.stringify(savedAt)}`);
  return {
    /** One entry. All of a section come one after the other. */
    put(section: Section, key: string, value: unknown): void {
      const first = open !== section;
      if (first) begin(section);
      say(`${first ? "" : ","}\n${JSON.stringify(key)}:${JSON.stringify(value)}`);
    },
    end(): void {
      if (!opened.has("records")) begin("records");
      close();
      out(`${SUM}${bytesToHex(sum.digest())}"}\n`);
    },
  };
}

/** Is the text as it was saved? null where it has no sum. */
function intactOf(text: string): boolean | null {
  const at = text.lastIndexOf(SUM);
  const told = at < 0 ? null : /^([0-9a-f]{64})"\}\s*$/.exec(text.slice(at + SUM.length, at + SUM.length + 80));
  // Files from before there was a sum were laid out in lines from the first bracket on.
  if (!told) return text.includes('"sha256"') || text.startsWith(HEAD) ? false : null;
  const sum = sha256.create();
  for (let from = 0; from < at;) {
    let to = Math.min(at, from + PIECE);
    // A character of two halves stays whole.
    if (to < at && /[\uD800-\uDBFF]/.test(text[to - 1])) to--;
    sum.update(utf8ToBytes(text.slice(from, to)));
    from = to;
  }
  return bytesToHex(sum.digest()) === told[1];
}

export function writeBackup(
  records: Record<string, unknown>,
  savedAt: string,
  makes: Record<string, unknown> = {},
  notes: CodeNotes = {},
): string {
  const pieces: string[] = [];
  const writer = backupWriter(savedAt, (piece) => void pieces.push(piece));
  for (const [section, of] of Object.entries({ records, makes, notes }))
    for (const [key, value] of Object.entries(of)) writer.put(section as Section, key, value);
  writer.end();
  return pieces.join("");
}

/**
 * Reads a file of records. A record that is damaged, of a newer version, or filed under another name than its own is told of and left out.
 * @returns `fault` where the file as a whole is none
 */
export function readBackup(text: string): BackupRead | { fault: string } {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return {
      fault: "This is no file of records: it is not JSON, or it was cut off. Save it anew, or take another copy.",
    };
  }
  const held = holds(shape, raw);
  if ("faults" in held)
    return {
      fault: `This is no file of records that Klinko saved: ${held.faults[0].path.join(".") || "its beginning"} is not as it should be.`,
    };
  const { version } = held.value;
  if (version > BACKUP_VERSION) return { fault: "A newer Klinko saved this file. Update Klinko to bring it in." };
  const {
    savedAt,
    records,
    makes = {},
    notes = {},
    photos = {},
    films = {},
  } = climb(BACKUP_LADDER, { ...held.value }, version, BACKUP_VERSION) as unknown as Backup;
  const read: BackupRead = {
    savedAt,
    docs: [],
    makes: [],
    notes: readNotes(notes),
    photos: [],
    films: [],
    faults: [],
    intact: intactOf(text),
  };
  if (Object.keys(notes).length && !Object.keys(read.notes).length)
    read.faults.push({ key: "notes", message: "The notes to codes are not as they should be and are left out." });
  for (const [key, record] of Object.entries(records)) {
    const opened = openDoc(key, record);
    if ("locked" in opened) read.faults.push({ key, message: opened.locked.message });
    else if (keyOf(opened.doc) !== key)
      read.faults.push({ key, message: "It is filed under another name than its own." });
    else read.docs.push(opened.doc);
  }
  for (const [id, make] of Object.entries(makes)) {
    const checked = checkPack(make);
    if ("faults" in checked)
      read.faults.push({ key: `make/${id}`, message: `${checked.faults[0].path} ${checked.faults[0].message}.` });
    else read.makes.push(checked.pack);
  }
  const attach = (to: Attached[], of: Record<string, unknown>, what: string) => {
    for (const [key, raw] of Object.entries(of)) {
      const [named, own] = [holds(id, key), holds(attachedRule, raw)];
      if ("faults" in own || "faults" in named)
        read.faults.push({
          key: `${what}/${key.slice(0, LIMITS.name)}`,
          message: `It is no ${what} that can be read.`,
        });
      else to.push({ id: key, ...own.value });
    }
  };
  attach(read.photos, photos, "photo");
  attach(read.films, films, "film");
  return read;
}

/** Under which key a record is stored. */
export const keyOf = ({ kind, id }: Pick<Doc, "kind" | "id">): string => `${kind}/${id}`;

/** What is to be done with the records of a file, beside those that are here already. */
export interface Merge {
  add: Doc[];
  /** Here already, just so. */
  same: number;
  /** Here already, and otherwise: what is here stays, unless somebody joins the two. */
  kept: string[];
  /** What they belong to is neither in the file nor here. */
  astray: string[];
}

/** Nothing that is here is ever written over. @param here what is stored, by key */
export function mergeBackup(docs: readonly Doc[], here: ReadonlyMap<string, unknown>): Merge {
  const merge: Merge = { add: [], same: 0, kept: [], astray: [] };
  const known = new Set([...here.keys(), ...docs.map(keyOf)]);
  for (const doc of docs) {
    const key = keyOf(doc);
    const own = here.get(key);
    const to =
      doc.kind === "vehicle" ? [] : [`vehicle/${doc.vehicle}`, ...(doc.kind === "reading" ? [`job/${doc.job}`] : [])];
    if (own !== undefined) {
      if (same(own, doc)) merge.same++;
      else merge.kept.push(key);
    } else if (to.every((k) => known.has(k))) merge.add.push(doc);
    else merge.astray.push(key);
  }
  // What others belong to comes first, so that a writing that breaks off leaves nothing astray.
  merge.add.sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));
  return merge;
}

const ORDER: readonly Doc["kind"][] = ["vehicle", "job", "reading"];
