import type { JobCase } from "../../job/case";
import { codeKind } from "../../job/faults";
import { judge, type Judgement } from "../../job/judge";
import { sayKnown, sayVerdict, why } from "../../job/say";
import type { Statement } from "../../job/statement";
import { tableOwner } from "../../pack/scope";
import type { Simulated, SimulatedFault } from "../../simulated/state";

/** The vehicle as it was when a reading was made. */
export interface Snapshot {
  at: number;
  memory: Readonly<Record<string, readonly string[]>>;
  live: Record<string, readonly string[]>;
  ready: boolean;
  /** The unit whose lamp was looked at. */
  watched: string | null;
  faults: readonly SimulatedFault[];
}

/** What is so, whatever anybody says. */
export interface World {
  snapshots: Map<string, Snapshot>;
  wipes: { memory: string; at: number }[];
  dead: readonly string[];
  lamps: readonly string[];
  outputs: readonly string[];
}

/** A statement that was held against the vehicle. */
export interface Checked {
  key: string;
  kind: string;
  system: string;
  sure: Statement["sure"];
  right: boolean;
  when: string;
  input: string;
  text: string;
}

/** Every statement of a job now, with whether it is so. Its words are made too, since they must never fail. */
export function checkStatements(c: JobCase, v: Simulated, world: World, when: string): Checked[] {
  const j = judge(c);
  sayVerdict(j);
  for (const s of j.systems) sayKnown(s.access.name, s.known);
  return j.statements.flatMap((s): Checked[] => {
    const reasons = why(s, c, (t) => t);
    if (!reasons.length && s.kind !== "not-read" && s.kind !== "verdict") throw new Error(`${s.kind} rests on nothing`);
    const right = holds(s, j, c, v, world);
    if (right === null) return [];
    const reading = s.evidence.find((e) => e.kind === "reading");
    const input = reading?.kind === "reading" ? reading.input : "";
    const detail = "code" in s ? `${"is" in s ? s.is : ""} ${s.memory ?? ""}${s.code}` : "is" in s ? s.is : "";
    const key = `${when} ${s.kind} ${s.system} ${detail} ${s.evidence.map((e) => ("id" in e ? e.id : e.at)).join()}`;
    return [
      {
        key,
        kind: s.kind === "persistence" || s.kind === "verdict" ? s.is : s.kind,
        system: s.system,
        sure: s.sure,
        right,
        when,
        input,
        text: `${s.kind} ${detail} ${reasons.join(" ")}`,
      },
    ];
  });
}

const same = (a: readonly string[], b: readonly string[]) => [...a].sort().join() === [...b].sort().join();

/** Is it so? null for what says nothing of the vehicle. */
// eslint-disable-next-line max-lines-per-function -- a case for each kind of statement
function holds(s: Statement, j: Judgement, c: JobCase, v: Simulated, world: World): boolean | null {
  const access = c.systems.find((x) => x.system === s.system);
  if (!access) return null;
  const owner = tableOwner(c.pack, s.system);
  const shots = s.evidence
    .flatMap((e) => (e.kind === "reading" ? (world.snapshots.get(e.id) ?? []) : []))
    .sort((a, b) => b.at - a.at);
  const shot = shots[0];
  // What is said to be back was there after the clear; that it was there before proves nothing.
  const clear = s.evidence.find((e) => e.kind === "clear");
  const since = clear ? shots.filter((x) => x.at > Date.parse(clear.at)) : shots;
  const dialect = access.dialect;
  const memories = dialect
    ? new Set(dialect.phases.flatMap((p) => (p.kind === "stored" ? [p.memory] : [])))
    : new Set(["stored"]);
  const storedIn = (x: Snapshot, memory: string | null): readonly string[] => {
    const live = x.live[s.system] ?? [];
    const stored = x.memory[owner] ?? [];
    if (memory) return memory === "live" ? live : stored;
    return memories.has("stored") ? stored : live;
  };
  const returning = (code: string, faults: readonly SimulatedFault[]) =>
    faults.find((f) => f.system === owner && f.code === code && f.returns !== "never");
  switch (s.kind) {
    case "stored":
      return storedIn(shot, s.memory).includes(s.code);
    case "nothing-stored":
      return [...memories].every((m) => storedIn(shot, memories.size > 1 ? m : null).length === 0);
    case "list-whole": {
      const said = j.systems.find((x) => x.access.system === s.system)!.known.codes;
      if (memories.size < 2)
        return same(
          said.map((x) => x.code),
          storedIn(shot, null),
        );
      return [...memories].every((m) =>
        same(
          said.filter((x) => x.memory === m).map((x) => x.code),
          storedIn(shot, m),
        ),
      );
    }
    case "other-unit":
      return shot ? shot.watched !== access.unit : null;
    case "clear-took": {
      // Wiped between the reading before the clear and the last one after it.
      const before = shots.at(-1)!;
      return world.wipes.some((w) => w.memory === owner && w.at >= before.at && w.at <= shot.at);
    }
    case "persistence": {
      const there = storedIn(shot, s.memory).includes(s.code);
      switch (s.is) {
        case "hard":
          return s.memory === "live"
            ? there
            : shot.faults.some((f) => f.system === owner && f.code === s.code && f.returns === "key-on") ||
                (shot.live[s.system] ?? []).includes(s.code);
        case "intermittent":
          return shot.faults.some((f) => f.system === owner && f.code === s.code && f.returns === "drive");
        case "gone":
          return !returning(s.code, v.faults);
        case "new": {
          const before = [...world.snapshots.values()].filter((x) => x.at < Date.parse(clear!.at)).at(-1);
          return (
            since.some((x) => storedIn(x, s.memory).includes(s.code)) &&
            !(before && storedIn(before, s.memory).includes(s.code))
          );
        }
        case "back":
        case "still":
        case "late":
          return since.some((x) => storedIn(x, s.memory).includes(s.code));
        default:
          return null;
      }
    }
    case "verdict": {
      const owners = new Set(c.systems.map((x) => tableOwner(c.pack, x.system)));
      const expected = new Set(c.vehicle.changes.flatMap((x) => x.codes));
      if (s.is === "fixed")
        return !v.faults.some(
          (f) => owners.has(f.system) && f.returns !== "never" && !expected.has(f.code) && readIn(c, f.system),
        );
      const of = (state: string) => j.systems.filter((x) => x.proof.state === state);
      // A code that is said to be there still, or again, was in a memory after its clear.
      if (s.is === "not-fixed")
        return of("not-fixed").some(({ access: a, proof }) =>
          proof.after.some((t) => {
            const x = world.snapshots.get(t.reading.id);
            const held = [...(x?.memory[a.memory] ?? []), ...(x?.live[a.system] ?? [])];
            return t.codes.some(({ code }) => held.includes(code) && codeKind(c, a.system, code) === "fault");
          }),
        );
      if (s.is === "nothing-found")
        return of("nothing").every((x) => {
          const last = x.known.last && world.snapshots.get(x.known.last.reading.id);
          const stored = last ? (last.memory[x.access.memory] ?? []) : [];
          const only = x.access.dialect?.phases.every((p) => p.kind !== "stored" || p.memory === "live");
          return (only ? (last?.live[x.access.system] ?? []) : stored).every(
            (code) => codeKind(c, x.access.system, code) !== "fault",
          );
        });
      return null;
    }
    case "ready":
      return shot.ready;
    case "not-ready":
      return !shot.ready;
    case "unit-alive":
      return !world.dead.includes(access.unit);
    case "only-lamp":
      return (
        world.lamps.includes(access.about.lamp) &&
        !world.dead.includes(access.unit) &&
        !(access.about.drives ?? []).some((o) => world.outputs.includes(o.id))
      );
    default:
      return null;
  }
}

/** Was the memory read in this job at all? A system that nobody read is no part of the verdict. */
const readIn = (c: JobCase, owner: string): boolean =>
  c.systems.some((s) => s.memory === owner && c.readings.some((r) => r.system === s.system || r.lists?.[s.system]));
