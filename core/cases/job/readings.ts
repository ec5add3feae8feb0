import { decode } from "../../flash/decode";
import { nothingMore } from "../../flash/judge/settle";
import { lookFor, OTHER } from "../../job/identity";
import { entriesFor, tableOwner, type SystemAccess } from "../../pack/scope";
import { tellsByDashLamp } from "../../pack/way";
import { readinessVerdict } from "../../procedure/readiness";
import { evidenceOf } from "../../record/evidence";
import { newReading, resultFrom, resultOf, resultOfRest } from "../../record/readings";
import type { Input, Reading, SystemList } from "../../record/types";
import { flashesNow, lampOf } from "../../simulated/answers";
import { READER_BUTTON, UNIT_BUTTON } from "../../simulated/state";
import { hookUp, keyOn } from "./hook-up";
import type { Stage } from "./stage";
import { watchLamp } from "./watch";

export function inputFor(stage: Stage, s: SystemAccess): Input {
  const { tells } = s.way;
  if (tells.kind === "text") return "text";
  if (tells.kind === "modules") return "modules";
  if (tells.kind === "serial") return "serial";
  if (tells.kind === "readiness") return "readiness";
  if (s.dialect!.advance === "button") return stage.random() < 0.8 ? "press" : "counts";
  const long = s.dialect!.digits.style === "long-short";
  return stage.pick<Input>(long ? ["hold", "keys", "camera", "counts"] : ["tap", "tap", "hold", "camera", "counts"]);
}

/** Hooks up, turns the key, reads, records, takes the wire out again. */
export function readOnce(stage: Stage, s: SystemAccess, input: Input, run: Reading["run"]): void {
  if (s.way.engineWarm) stage.do({ do: "warm-up" });
  hookUp(stage, s);
  const blank = newReading({
    id: `r${stage.readings.length + 1}`,
    job: "job",
    vehicle: "made",
    system: s.system,
    way: s.way.id,
    dialect: s.dialect?.id ?? "",
    input,
    run,
    startedAt: stage.iso(),
  });
  const reading =
    input === "readiness"
      ? readReadiness(stage, s, blank)
      : s.way.tells.kind !== "lamp"
        ? readLists(stage, s, blank)
        : s.dialect!.advance === "button"
          ? readPresses(stage, s, blank)
          : readLamp(stage, s, blank);
  stage.wait(3000);
  stage.readings.push({ ...reading, recordedAt: stage.iso() });

  stage.do({ do: "key", to: "off" });
  if (stage.v.wire) stage.do({ do: "wire", wire: null });
  stage.wait(8000);
}

/** The lamp that is looked at, and what is told of it. */
function lampWatched(stage: Stage, s: SystemAccess): SystemAccess {
  const dash = stage.systems.filter((x) => tellsByDashLamp(x.way) && x.unit !== s.unit);
  const blinks = (x: SystemAccess) => lampOf(stage.v, stage.pack, stage.vehicle, x.system).kind === "show";
  if (!tellsByDashLamp(s.way) || !dash.length) return s;
  if (stage.slip("wrong-lamp")) return stage.pick(dash);
  const other = dash.find(blinks);
  return !blinks(s) && other && stage.random() < 0.7 ? other : s;
}

function lookedAt(stage: Stage, s: SystemAccess, watched: SystemAccess): Reading["looked"] {
  const look = lookFor(s, stage.systems);
  if (!look || stage.slip("does-not-look")) return undefined;
  if (look.what === "lamp") return { lamp: watched.lamp };
  const at = stage.v.leads?.at.signal ?? "";
  return { socket: look.options.includes(at) ? at : OTHER };
}

function readLamp(stage: Stage, s: SystemAccess, blank: Reading): Reading {
  const dialect = s.dialect!;
  const late = stage.slip("late-watch") ? 2000 + stage.random() * 40_000 : 0;
  const early = 800 + 1500 * stage.random();
  let from = stage.now;
  stage.wait(early);
  const keyOnAt = keyOn(stage, s);
  // Where the key goes on several times, watching begins with the last.
  if (s.way.ask.kind === "key-cycle") from = keyOnAt - 300;
  const watched = lampWatched(stage, s);
  const looked = lookedAt(stage, s, watched);
  const lamp = lampOf(stage.v, stage.pack, stage.vehicle, watched.system);
  const begin = late ? keyOnAt + late : from;
  const start = { ...blank, startedAt: new Date(begin).toISOString(), ...(looked && { looked }) };
  // A watch that is begun late is not told to have begun with the key, mostly.
  const withKey = !late || stage.random() < 0.2;
  if (lamp.kind !== "show") {
    stage.wait(25_000);
    stage.snapshot(blank.id, watched.unit);
    const rested = lamp.kind === "lit" ? "lit" : "dark";
    return { ...start, until: 20_000, rested, result: resultOfRest(rested, 20_000) };
  }
  const tapsKeyOn = stage.slip("before-key-on");
  const { reading, took } = watchLamp(
    {
      dialect,
      lamp,
      keyOnAt,
      from: begin,
      input: blank.input,
      eyes: stage.doer.eyes,
      stopAfter: stage.slip("stops-early") ? 8000 + stage.random() * 60_000 : null,
      tapsLampTest: stage.slip("taps-lamp-test"),
      tapsKeyOn,
      miscallsLeadIn: stage.slip("miscalls-lead-in"),
      reload: stage.slip("reload"),
      table: entriesFor(stage.pack, stage.vehicle, s.system).map((e) => e.code),
      random: stage.random,
    },
    { ...start, ...(withKey && { keyOn: true }) },
  );
  stage.now = Math.max(stage.now, begin + took);
  stage.snapshot(blank.id, watched.unit);
  if (reading.marks.length || reading.counts) return reading;
  const test = dialect.phases[0]?.kind === "steady" && !late;
  const end = flashesNow(lamp).flashes[Symbol.iterator]().next().done
    ? "dark"
    : dialect.empty?.kind === "steady" && dialect.empty.lamp === "lit"
      ? "lit"
      : test
        ? "lit-then-dark"
        : "dark";
  return { ...reading, rested: end, result: resultOfRest(end, took) };
}

function readPresses(stage: Stage, s: SystemAccess, blank: Reading): Reading {
  const { ask } = s.way;
  if (ask.kind !== "reader" && ask.kind !== "unit-button") return blank;
  const button = ask.kind === "reader" ? READER_BUTTON : UNIT_BUTTON;
  keyOn(stage, s);
  stage.wait(3000);
  const looked = lookedAt(stage, s, s);
  // The unit whose line the signal lead is on answers.
  const answers =
    ask.kind === "reader"
      ? (stage.systems.find((x) => x.way.ask.kind === "reader" && x.way.ask.signal === stage.v.leads?.at.signal) ?? s)
      : s;
  const press = (seconds: number): number[] => {
    stage.do({ do: "down", button });
    stage.wait(seconds * 1000);
    const before = stage.v.press?.at;
    stage.do({ do: "up", button });
    if (stage.v.press?.at === before || !stage.v.press) return [];
    const lamp = lampOf(stage.v, stage.pack, stage.vehicle, answers.system);
    const now = flashesNow(lamp);
    return [...now.flashes].map((f) => now.since + f.start);
  };
  if (stage.random() < 0.4) {
    press(ask.readSeconds + 0.5);
    stage.wait(12_000);
  }
  const began = stage.now;
  const marks: Reading["marks"] = [];
  const counts: number[] = [];
  const known = entriesFor(stage.pack, stage.vehicle, s.system).map((e) => e.code);
  const read = (n: number) => {
    for (let i = 0; i < n; i++) {
      const flashes = press(stage.slip("short-press") ? 1 : ask.readSeconds + 0.4);
      const t = stage.now - began;
      marks.push({ id: marks.length + 1, t, kind: "p" });
      let seen = 0;
      for (const at of flashes) {
        if (stage.random() < stage.doer.eyes.miss) continue;
        const tap = at - began + stage.doer.eyes.reaction + 30 * stage.random();
        marks.push({ id: marks.length + 1, t: Math.round(tap) });
        seen++;
        if (stage.random() < stage.doer.eyes.double) marks.push({ id: marks.length + 1, t: Math.round(tap + 150) });
      }
      if (seen)
        counts.push(
          stage.random() < stage.doer.eyes.miscount ? Math.max(1, seen + (stage.random() < 0.5 ? 1 : -1)) : seen,
        );
      stage.wait(Math.max(0, (flashes.at(-1) ?? stage.now) - stage.now) + 3500);
    }
  };
  const stops = stage.slip("stops-early");
  const stored = stage.v.memory[tableOwner(stage.pack, answers.system)]?.length ?? 0;
  const look = (presses: number) => {
    read(presses);
    const base = {
      ...blank,
      startedAt: new Date(began).toISOString(),
      until: stage.now - began,
      ...(looked && { looked }),
    };
    const put = blank.input === "counts" ? { ...base, counts: counts.join(" "), until: 0 } : { ...base, marks };
    return decodeReading(s, put, known);
  };
  let result = look(stops ? 1 + Math.floor(2 * stage.random()) : Math.max(3, stored + 2));
  for (let again = 0; again < 3 && !stops && !result.enough; again++) result = look(2);
  stage.snapshot(blank.id, answers.unit);
  return result.reading;
}

function readLists(stage: Stage, s: SystemAccess, blank: Reading): Reading {
  keyOn(stage, s);
  stage.wait(15_000);
  stage.snapshot(blank.id, s.unit);
  const told = stage.systems.filter((x) => x.way.id === s.way.id);
  const typed = s.way.tells.kind !== "serial";
  const typo = (code: string) =>
    typed && stage.slip("typo") ? String(Math.max(1, Number(code) + stage.pick([1, -1, 10]))) : code;
  const stops = typed && stage.slip("stops-early");
  const lists = Object.fromEntries(
    told.map((x): [string, SystemList] => {
      const codes = stage.world.dead.includes(x.unit) ? [] : (stage.v.memory[tableOwner(stage.pack, x.system)] ?? []);
      const seen = (stops ? codes.slice(0, Math.floor(stage.random() * codes.length)) : codes).map(typo);
      if (stage.world.dead.includes(x.unit)) return [x.system, { state: "unclear", codes: [], unclear: [] }];
      return [
        x.system,
        {
          state: seen.length ? "codes" : stops ? "unclear" : "none",
          codes: [...new Set(seen)],
          unclear: stops && seen.length ? ["??"] : [],
        },
      ];
    }),
  );
  return { ...blank, startedAt: stage.iso(), until: 0, lists, result: resultOf(lists[s.system]) };
}

function readReadiness(stage: Stage, s: SystemAccess, blank: Reading): Reading {
  const { tells } = s.way;
  if (tells.kind !== "readiness") return blank;
  const keyOnAt = keyOn(stage, s);
  const late = stage.slip("late-watch") ? stage.random() * 40_000 : 0;
  stage.wait(late);
  const began = stage.now;
  const total = (tells.waitSeconds + tells.watchSeconds) * 1000;
  const lamp = lampOf(stage.v, stage.pack, stage.vehicle, s.system);
  const now = flashesNow(lamp);
  const flashes = [...now.flashes]
    .map((f) => now.since + f.start - began)
    .filter((t) => t > 0 && t < total && stage.random() >= stage.doer.eyes.miss);
  if (stage.slip("taps-lamp-test")) flashes.unshift(Math.max(0, keyOnAt - began + 300));
  stage.wait(total);
  stage.snapshot(blank.id, s.unit);
  const { state } = readinessVerdict(tells, { flashes, atEnd: now.lit ? "lit" : "dark", watched: total });
  return {
    ...blank,
    startedAt: new Date(began).toISOString(),
    until: 0,
    readiness: state === "too-early" ? "unclear" : state,
  };
}

/** Decodes what was put in, as the page does. */
function decodeReading(s: SystemAccess, reading: Reading, table: string[]): { reading: Reading; enough: boolean } {
  const decoded = decode(s.dialect!, evidenceOf(reading, reading.until ?? 0, s.dialect!), { table });
  return { reading: { ...reading, result: resultFrom(decoded) }, enough: nothingMore(decoded) };
}
