import { decode } from "@core/flash/decode";
import { encode, normal, seeded } from "@core/flash/dialect/encode";
import { entriesFor, systemsOf } from "@core/pack/scope";
import { evidenceOf } from "@core/record/evidence";
import { closeJob, EMPTY_STORY, newJob, stepDone, withLampCheck, withReading, withStory } from "@core/record/job";
import { endsOf, endText } from "@core/job/end";
import { judge } from "@core/job/judge";
import { knownOf } from "@core/job/known";
import { sayKnown } from "@core/job/say";
import { resultFrom } from "@core/record/readings";
import { RECORD_VERSION, type Doc, type Job, type Reading, type Story, type Vehicle } from "@core/record/types";
import { packById } from "./index";

/** Drives of the estate: how many days ago, whether the lamp came on, and under which conditions. */
const DRIVES: readonly (readonly [number, boolean, ...string[]])[] = [
  [12, false, "Cold", "Town", "Dry"],
  [11, true, "Warm", "Country", "Wet"],
  [9, false, "Warm", "Country", "Dry"],
  [8, true, "Cold", "Town", "Wet"],
  [6, false, "Warm", "Motorway", "Dry"],
  [5, false, "Cold", "Town", "Dry"],
  [4, true, "Warm", "Town", "Wet"],
];

/** The demo fleet of the Saltmarsh Ferry & Tramway Trust. Its readings are tapped by a made-up hand and really decoded. */
export function buildDemo(now: number): Doc[] {
  const day = 86_400_000;
  const at = (daysAgo: number, minutes = 0) => new Date(now - daysAgo * day + minutes * 60_000).toISOString();
  const vehicle = (
    id: string,
    plate: string,
    pack: string,
    variant: string,
    year: number,
    engine: string,
    more: Partial<Vehicle> = {},
  ): Vehicle => ({
    version: RECORD_VERSION,
    kind: "vehicle",
    id,
    plate,
    pack,
    variant,
    year,
    engine,
    market: "home",
    changes: [],
    drives: [],
    immobiliser: "none",
    radio: "not-asked",
    createdAt: at(400),
    ...more,
  });
  const estate = vehicle("demo-sm418t", "SM 418 T", "norrvik", "estate", 1989, "2.3", {
    drives: DRIVES.map(([daysAgo, cameOn, ...conditions]) => ({ at: at(daysAgo), cameOn, conditions })),
  });
  const hatch = vehicle("demo-sm233k", "SM 233 K", "calverra", "hatch", 1994, "1.6", {
    radio: "code-known",
    changes: [{ text: "Air pump removed with the new exhaust", codes: ["27"] }],
  });
  const pickup = vehicle("demo-et31", "ET 31", "norrvik", "pickup", 1991, "2.3", { radio: "none" });
  const six = vehicle("demo-sm077f", "SM 077 F", "norrvik", "estate", 1990, "2.8 V6");
  const old = vehicle("demo-et9", "ET 9", "calverra", "hatch", 1991, "1.5", { radio: "none" });

  const story = (s: Partial<Story>): Story => ({ ...EMPTY_STORY, lamp: "CHECK ENGINE (MIL)", ...s });

  const more = [
    vehicle("demo-sm501c", "SM 501 C", "osaril", "coupe", 1991, "2.5 six", { radio: "none" }),
    vehicle("demo-et44", "ET 44", "lindqvar", "saloon", 1993, "3.0"),
    vehicle("demo-sm12d", "SM 12 D", "dunmarrow", "pickup", 1992, "5.0 V8", { radio: "none" }),
    vehicle("demo-ferry3", "FERRY 3", "hollin-pike", "truck", 1996, "5.9 D", { radio: "none" }),
    vehicle("demo-mc7", "MC 7", "tarvello", "sport", 2008, "1000", { radio: "none" }),
    vehicle("demo-sm9a", "SM 9 A", "aldermoor", "two-seater", 1990, "3.8 V6"),
    vehicle("demo-et70p", "ET 70 P", "pellworth", "mini", 1998, "1.2", { radio: "none" }),
    vehicle("demo-sm88m", "SM 88 M", "merrow", "mini-merrow", 1995, "1.4", { radio: "none" }),
  ];

  // An open job of the estate: told, waiting for the lamp check.
  const estateJob = knowing(
    withStory(
      newJob(estate, "engine", "demo-job-estate", at(0, -25)),
      story({
        since: "last Thursday",
        engine: "warm",
        speed: "country",
        load: "light",
        weather: ["Wet"],
        symptoms: ["Stumbles"],
        goesOut: "sometimes",
        words: "Came on at cruise on the causeway, out again after the lights.",
      }),
      false,
      at(0, -22),
    ),
  );

  const six0 = run({
    vehicle: six,
    id: "demo-job-six",
    start: at(6),
    story: story({ since: "two weeks", engine: "cold", symptoms: ["Stumbles"] }),
    before: ["14", "35"],
    after: null,
    seed: 7,
  });
  const pickup0 = run({
    vehicle: pickup,
    id: "demo-job-pickup",
    start: at(41),
    story: story({ since: "a month", engine: "any", speed: "town", symptoms: ["Less power"] }),
    before: ["21", "27"],
    after: [],
    seed: 12,
  });
  const old0 = run({
    vehicle: old,
    id: "demo-job-old",
    start: at(130),
    story: story({ since: "the last inspection", engine: "warm", symptoms: ["Uses more fuel"] }),
    before: ["5", "21"],
    after: ["5"],
    seed: 31,
  });
  const hatch0 = run({
    vehicle: hatch,
    id: "demo-job-hatch",
    start: at(250),
    story: story({ since: "spring", engine: "cold", speed: "standing", symptoms: ["Hunting idle"] }),
    before: ["14", "27"],
    after: ["27"],
    seed: 44,
  });
  return [estate, hatch, pickup, six, old, ...more, estateJob, ...six0, ...pickup0, ...old0, ...hatch0];
}

/** How these vehicles are read is known to those who keep them. */
const knowing = (job: Job): Job => stepDone(job, "way-in");

interface Past {
  vehicle: Vehicle;
  id: string;
  start: string;
  story: Story;
  before: string[];
  /** Codes after the clear and a drive; null: not cleared yet. */
  after: string[] | null;
  seed: number;
}

function run({ vehicle, id, start, story, before, after, seed }: Past): Doc[] {
  const t = (minutes: number) => new Date(Date.parse(start) + minutes * 60_000).toISOString();
  let job: Job = newJob(vehicle, "engine", id, start);
  job = withLampCheck(knowing(withStory(job, story, false, t(3))), "steady", "all", t(5));
  job = stepDone(job, "hook-up");
  const first = watch(vehicle, id, `${id}-1`, t(9), before, "before", seed);
  const pack = packById(vehicle.pack)!;
  const systems = systemsOf(pack, vehicle);
  const caseOf = (readings: Reading[]) => ({ job, vehicle, pack, systems, readings });
  const told = (readings: Reading[]) => sayKnown("Engine", knownOf(caseOf(readings), "engine"));
  job = stepDone(withReading(job, told([first]), t(12)), "meaning");
  if (!after) return [job, first];
  const way = pack.clears.find((c) => c.system === "engine")!;
  job = stepDone({ ...job, clears: [{ at: t(20), way: way.id, system: "engine", seconds: way.seconds + 8 }] }, "clear");
  const second = watch(vehicle, id, `${id}-2`, t(60), after, "drive", seed + 1);
  const both = [first, second];
  job = withReading(job, told(both), t(63));
  const [end] = endsOf(judge(caseOf(both)));
  return [closeJob(job, end, endText(caseOf(both), end), t(65)), first, second];
}

/** One reading by a made-up hand: two rounds of the list, tapped or held with a reaction time. */
function watch(
  vehicle: Vehicle,
  job: string,
  id: string,
  startedAt: string,
  codes: string[],
  run: Reading["run"],
  seed: number,
): Reading {
  const pack = packById(vehicle.pack)!;
  const access = systemsOf(pack, vehicle).find((s) => s.system === "engine")!;
  const dialect = access.dialect!;
  const random = seeded(seed);
  const until = codes.length ? 12_000 + codes.length * (dialect.id === "lead-in" ? 52_000 : 24_000) : 60_000;
  const edges = encode(dialect, { stored: codes }, until, { speed: 0.9 + random() * 0.2, jitter: 0.03, random });
  const hold = dialect.digits.style === "long-short";
  const marks: Reading["marks"] = [];
  for (let i = 0; i < edges.length; i++) {
    const [on, lit] = edges[i];
    const off = edges[i + 1]?.[0];
    if (!lit || off === undefined || (i < 2 && !hold)) continue;
    const late = () => 240 + 45 * normal(random);
    marks.push({ id: marks.length + 1, t: Math.round(on + late()), ...(hold ? { up: Math.round(off + late()) } : {}) });
  }
  const reading: Reading = {
    version: RECORD_VERSION,
    kind: "reading",
    id,
    job,
    vehicle: vehicle.id,
    system: "engine",
    way: access.way.id,
    dialect: dialect.id,
    input: hold ? "hold" : "tap",
    run,
    startedAt,
    marks,
    pauses: [],
    until,
    result: null,
    looked: { lamp: access.lamp },
    recordedAt: new Date(Date.parse(startedAt) + until).toISOString(),
  };
  const table = entriesFor(pack, vehicle, "engine").map((e) => e.code);
  return { ...reading, result: resultFrom(decode(dialect, evidenceOf(reading, until, dialect), { table })) };
}
