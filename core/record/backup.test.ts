import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { backupWriter, BACKUP_VERSION, keyOf, mergeBackup, readBackup, writeBackup } from "./backup";
import { mergeNotes } from "./code-notes";
import { newJob, note } from "./job";
import { recordsJsonSchema } from "./json-schema";
import { newReading } from "./readings";
import { RECORD_VERSION, type Doc, type Vehicle } from "./types";

const NOW = "2026-11-24T09:00:00.000Z";

const vehicle = (n: number): Vehicle => ({
  version: RECORD_VERSION,
  kind: "vehicle",
  id: `v${n}`,
  plate: `AB ${n}`,
  pack: "p",
  variant: "x",
  year: 1989,
  engine: "E",
  market: "m",
  changes: [],
  drives: [],
  radio: "none",
  immobiliser: "none",
  createdAt: NOW,
});

/** A vehicle with a job and some readings. */
function fleet(n: number): Doc[] {
  const job = newJob({ id: `v${n}` }, "engine", `j${n}`, NOW);
  const readings = [1, 2].map((k) =>
    newReading({
      id: `r${n}-${k}`,
      job: job.id,
      vehicle: `v${n}`,
      system: "engine",
      way: "w",
      dialect: "d",
      input: "film",
      run: "before",
      startedAt: NOW,
    }),
  );
  return [vehicle(n), job, { ...readings[0], levels: { t: [0, 33.3], y: [70, 150] } }, readings[1]];
}

const ALL = [1, 2, 3].flatMap(fleet);
const stored = (docs: readonly Doc[]) => new Map<string, unknown>(docs.map((d) => [keyOf(d), d]));
const fileOf = (docs: readonly Doc[]) => writeBackup(Object.fromEntries(stored(docs)), NOW);

function opened(text: string) {
  const read = readBackup(text);
  if ("fault" in read) throw new Error(read.fault);
  return read;
}

describe("a file of records", () => {
  it("holds own notes to codes, and of two to one code the newer one stays", () => {
    const note = (text: string, at: string) => ({ text, at });
    const notes = { "norrvik/engine/22": note("float sticks", "2026-11-20T09:00:00.000Z") };
    expect(opened(writeBackup({}, NOW, {}, notes)).notes).toEqual(notes);
    const here = { "norrvik/engine/22": note("older", "2026-11-19T09:00:00.000Z"), "x/y/1": note("mine", NOW) };
    expect(mergeNotes(here, notes)).toEqual({ ...here, ...notes });
    expect(mergeNotes(notes, here)["norrvik/engine/22"].text).toBe("float sticks");
    const damaged = opened(JSON.stringify({ ...(JSON.parse(writeBackup({}, NOW)) as object), notes: { a: 5 } }));
    expect(damaged.faults.map((f) => f.key)).toEqual(["notes"]);
  });

  it("gives back what was written, and brought in twice changes nothing", () => {
    fc.assert(
      fc.property(fc.subarray(ALL), fc.subarray(ALL), (inFile, here) => {
        const read = opened(fileOf(inFile));
        const empty = { makes: [], notes: {}, photos: [], films: [], faults: [] };
        expect(read).toEqual({ savedAt: NOW, docs: inFile, ...empty, intact: true });
        const first = mergeBackup(read.docs, stored(here));
        const after = stored([...here, ...first.add]);
        const again = mergeBackup(read.docs, after);
        expect(again.add).toEqual([]);
        expect(again.same).toBe(inFile.length - first.astray.length);
        // Whatever comes in belongs to something.
        for (const d of first.add) if (d.kind !== "vehicle") expect(after.has(`vehicle/${d.vehicle}`)).toBe(true);
        // In an order in which a writing may break off anywhere.
        for (const [i, d] of first.add.entries())
          if (d.kind === "reading") expect(stored([...here, ...first.add.slice(0, i)]).has(`job/${d.job}`)).toBe(true);
      }),
      { numRuns: 200 },
    );
  });

  it("never writes over what is here, whichever of the two is newer or damaged", () => {
    const [own, job] = fleet(1);
    if (job.kind !== "job") throw new Error();
    const changed = note(job, "read", "a line more", NOW);
    for (const here of [changed, { ...job, version: RECORD_VERSION + 1 }, { kind: "job" }, "damaged"]) {
      const merge = mergeBackup([own, job], new Map<string, unknown>([[keyOf(job), here]]));
      expect(merge).toEqual({ add: [own], same: 0, kept: ["job/j1"], astray: [] });
    }
  });

  it("leaves out a record that cannot be opened, with its reason, and takes the others", () => {
    const [own, job, film, other] = fleet(1);
    const text = writeBackup(
      {
        [keyOf(own)]: own,
        [keyOf(job)]: { ...job, version: RECORD_VERSION + 1 },
        [keyOf(film)]: { ...film, levels: { t: [1], y: [] } },
        "reading/else": other,
        "reading/none": null,
      },
      NOW,
    );
    const { docs, faults } = opened(text);
    expect(docs).toEqual([own]);
    expect(
      faults.map((f) => [f.key, /newer Klinko|one length|another name|not a record/.exec(f.message)?.[0]]),
    ).toEqual([
      ["job/j1", "newer Klinko"],
      ["reading/r1-1", "one length"],
      ["reading/else", "another name"],
      ["reading/none", "not a record"],
    ]);
    expect(mergeBackup([own, film], new Map())).toMatchObject({ add: [own], astray: ["reading/r1-1"] });
  });

  it("knows of any letter that was changed in it since, and of one without a sum that it cannot know", () => {
    const whole = fileOf(ALL);
    const { sha256: _, ...before } = JSON.parse(whole) as { sha256: string };
    expect(opened(JSON.stringify(before, null, 1)).intact).toBeNull();
    // Saved anew by an editor that lays it out: what it holds may be the same, but nothing vouches for it.
    expect(opened(JSON.stringify(JSON.parse(whole), null, 2)).intact).toBe(false);
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.constantFrom("a", "7", " ", "\u00e9", '"'), (at, letter) => {
        if (whole[at] === letter || /\s/.test(whole[at])) return;
        const read = readBackup(whole.slice(0, at) + letter + whole.slice(at + 1));
        // Refused, or known to be changed.
        if (!("fault" in read)) expect(read.intact).toBe(false);
      }),
      { numRuns: 300 },
    );
  });

  it("holds photos and films, and leaves out what is none", () => {
    const photo = { vehicle: "v1", of: "", at: NOW, data: "data:image/jpeg;base64,/9j/4AAQ" };
    const pieces: string[] = [];
    const writer = backupWriter(NOW, (piece) => void pieces.push(piece));
    for (const doc of fleet(1)) writer.put("records", keyOf(doc), doc);
    writer.put("photos", "p1", photo);
    writer.put("photos", "script", { ...photo, data: "javascript:alert(1)" });
    writer.put("photos", "text", { ...photo, data: "data:text/html,<script>" });
    writer.put("films", "f1", { ...photo, of: "r1-1", data: "data:video/webm;codecs=vp8;base64,GkXf" });
    expect(() => writer.put("records", "late", {})).toThrow("comes together");
    writer.end();
    const read = opened(pieces.join(""));
    expect(read.photos).toEqual([{ id: "p1", ...photo }]);
    expect(read.films.map((f) => f.id)).toEqual(["f1"]);
    expect(read.faults.map((f) => f.key)).toEqual(["photo/script", "photo/text"]);
    expect(read.intact).toBe(true);
  });

  it.each([
    ["", /not JSON, or it was cut off/],
    [fileOf(ALL).slice(0, -30), /not JSON, or it was cut off/],
    ["[]", /its beginning/],
    ["{}", /format/],
    [JSON.stringify({ format: "klinko-backup", version: 1, savedAt: "soon", records: {} }), /savedAt/],
    [JSON.stringify({ format: "klinko-backup", version: 1, savedAt: NOW, records: [] }), /records/],
    [
      JSON.stringify({ format: "klinko-backup", version: BACKUP_VERSION + 1, savedAt: NOW, records: {} }),
      /newer Klinko/,
    ],
  ])("that is none is refused as a whole (%#)", (text, why) => {
    const read = readBackup(text);
    expect("fault" in read && read.fault).toMatch(why);
  });
});

it("the published JSON Schema is that of the rules", () => {
  const published = JSON.parse(readFileSync("docs/formats/records.schema.json", "utf8")) as object;
  expect(JSON.parse(JSON.stringify(recordsJsonSchema()))).toEqual(published);
});
