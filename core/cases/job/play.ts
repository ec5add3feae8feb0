import { judge } from "../../job/judge";
import type { Known } from "../../job/known";
import { endsOf, endText } from "../../job/end";
import { askedOf, lockOf } from "../../job/gates";
import { hasLamp, othersOf } from "../../job/lamp-check";
import { atLeast } from "../../job/told";
import type { Pack } from "../../pack/pack";
import { tableOwner, unitsOf, type SystemAccess } from "../../pack/scope";
import { tellsByDashLamp } from "../../pack/way";
import type { UnitSeen } from "../../procedure/unit-check";
import { closeJob, withLampCheck } from "../../record/job";
import { inputOf } from "../../record/inputs";
import type { Input, Reading } from "../../record/types";
import { lampOf, outputsOf } from "../../simulated/answers";
import type { Checked } from "./check";
import { clearAll } from "./clears";
import type { Doer, Slip } from "./person";
import { inputFor, readOnce } from "./readings";
import { Stage } from "./stage";

/** What came of a played job. */
export interface Outcome {
  pack: string;
  kind: Doer["kind"];
  slips: Slip[];
  checked: Checked[];
  /** Of each system that was to be read: by which input, whether the right answer was reached, and after how many readings. */
  reached: { system: string; way: string; input: Input; right: boolean; passes: number; said: string }[];
  /** Why the job could not go on, where it could not. */
  stuck: string | null;
}

/** Plays one whole job of a made-up vehicle and a made-up person. The same seed gives the same job. */
export function playJob(pack: Pack, kind: Doer["kind"], seed: number): Outcome {
  const stage = new Stage(pack, kind, seed);
  lampCheck(stage);
  const reached: Outcome["reached"] = [];
  const wanted = stage.systems.filter((_, i) => i === 0 || kind === "careful" || stage.random() < 0.5);
  for (const s of wanted) reached.push(readUntilKnown(stage, s, "before"));
  if (stage.random() < 0.9) repairAndProve(stage, wanted);
  const [end] = endsOf(judge(stage.case()));
  stage.job = closeJob(stage.job, end, endText(stage.case(), end), stage.iso());
  return {
    pack: pack.id,
    kind,
    slips: [...stage.made],
    checked: [...stage.checked.values()],
    reached: reached.filter((r) => r.way !== "readiness"),
    stuck: stage.stuck,
  };
}

function lampCheck(stage: Stage): void {
  stage.do({ do: "key", to: "on" });
  stage.wait(1500);
  const units = unitsOf(stage.systems);
  const wrong = stage.slip("wrong-lamp") ? stage.pick(stage.systems) : null;
  const look = (s: SystemAccess): UnitSeen => {
    const lit =
      lampOf(stage.v, stage.pack, stage.vehicle, (s === units[0] && wrong ? wrong : s).system).kind !== "dark";
    const lamp = hasLamp(s) ? (lit ? "steady" : "dark") : null;
    const all = outputsOf(stage.v, stage.pack, stage.vehicle, stage.now).filter((o) => o.system === s.system);
    const asked = lamp !== "steady" || stage.random() < 0.3;
    const outputs = asked
      ? Object.fromEntries(
          all
            .filter(() => stage.doer.kind === "careful" || stage.random() < 0.7)
            .map((o) => [o.id, o.works ? "works" : "dead"] as const),
        )
      : {};
    return {
      lamp: lamp ?? (Object.values(outputs).includes("works") ? "steady" : Object.keys(outputs).length ? "dark" : null),
      outputs,
    };
  };
  const tell = (seen: Record<string, UnitSeen>) => {
    const own = seen[units[0].system];
    stage.job = withLampCheck(stage.job, own.lamp ?? "steady", othersOf(own.outputs), stage.iso(), seen);
    stage.check("lamp check");
  };
  const seen = Object.fromEntries(units.map((s) => [s.system, look(s)]));
  if (stage.slip("wrong-answer"))
    tell({ ...seen, [units[0].system]: { ...seen[units[0].system], lamp: stage.pick(["steady", "dark"] as const) } });
  tell(seen);
  stage.do({ do: "key", to: "off" });
  stage.wait(5000);
}

/** Reads a system as often as Klinko asks for and patience lasts. */
function readUntilKnown(stage: Stage, s: SystemAccess, run: Reading["run"]): Outcome["reached"][number] {
  const locked = lockOf(stage.job, stage.readings, "read", askedOf(s, stage.systems));
  const dead = stage.world.dead.includes(s.unit) || (tellsByDashLamp(s.way) && stage.world.lamps.includes(s.lamp));
  const none = {
    system: s.system,
    way: s.way.tells.kind === "readiness" ? "readiness" : s.way.id,
    input: "tap" as Input,
    passes: 0,
    said: "locked",
  };
  if (locked) return { ...none, right: dead || stage.made.has("wrong-answer") || stage.made.has("wrong-lamp") };
  let input: Input = inputFor(stage, s);
  let passes = 0;
  let said = "";
  let right = false;
  while (passes < stage.doer.patience) {
    const before = stage.readings.length;
    readOnce(stage, s, input, run);
    passes++;
    if (stage.readings.length > before) stage.check(`read ${s.system}`);
    const known = judge(stage.case()).systems.find((x) => x.access === s)!.known;
    said = `${known.answer} ${known.codes.map((x) => `${x.memory ?? ""}${x.code}`).join(" ")} ${known.answer === "none" ? known.none : known.whole}${known.disagree ? " disagree" : ""}`;
    right = dead ? saysNothing(known) : isRight(stage, s);
    // What is copied by eye gets no surer by being read once more alike.
    const copied = inputOf(input).known === "copied" && passes >= 2 && known.whole === "likely";
    const settled =
      known.answer === "codes"
        ? known.whole === "certain" || copied
        : known.answer === "none" &&
          (known.none === "certain" ||
            (known.none === "likely" && passes >= 2) ||
            known.doubts.some((d) => d.kind === "looks-alike"));
    if (settled && !known.disagree) break;
    if (dead && passes >= 2) break;
    if (stage.slip("other-input")) input = inputFor(stage, s);
    // A person who slips stops when it is likely; a careful one reads on.
    if (
      stage.doer.kind === "slipping" &&
      known.answer === "codes" &&
      atLeast(known.whole, "likely") &&
      stage.random() < 0.5
    )
      break;
  }
  return { ...none, input, passes, right, said };
}

/** Is what Klinko says of a system now right, and said as likely at least? */
function isRight(stage: Stage, s: SystemAccess): boolean {
  const { known } = judge(stage.case()).systems.find((x) => x.access === s)!;
  const truth = known.last && stage.world.snapshots.get(known.last.reading.id);
  if (!truth) return false;
  const stored = truth.memory[tableOwner(stage.pack, s.system)] ?? [];
  const live = truth.live[s.system] ?? [];
  const onlyLive = s.dialect !== null && !s.dialect.phases.some((p) => p.kind === "stored" && p.memory === "stored");
  const two = known.codes.some((x) => x.memory !== null);
  const real = onlyLive ? live : two ? [...live.map((c) => `live ${c}`), ...stored.map((c) => `stored ${c}`)] : stored;
  if (known.answer === "none")
    return real.length === 0 && (atLeast(known.none, "likely") || known.doubts.some((d) => d.kind === "looks-alike"));
  const said = known.codes.map((x) => (two && !onlyLive ? `${x.memory} ${x.code}` : x.code));
  return (
    known.answer === "codes" && atLeast(known.whole, "likely") && [...said].sort().join() === [...real].sort().join()
  );
}

function repairAndProve(stage: Stage, wanted: readonly SystemAccess[]): void {
  for (const f of stage.v.faults)
    if (f.returns !== "never" && stage.random() < 0.7 && !stage.slip("mends-wrongly"))
      stage.do({ do: "mend", system: f.system, code: f.code });
  const cleared = clearAll(stage, wanted);
  if (!cleared.length) return;
  const again = wanted.filter(
    (s) => s.way.tells.kind === "readiness" || cleared.includes(s.memory) || stage.doer.kind === "careful",
  );
  const lock = lockOf(stage.job, stage.readings, "prove");
  if (lock) stage.stuck = `prove: ${lock}`;
  stage.driven = false;
  if (stage.random() < 0.6) for (const s of again) readUntilKnown(stage, s, runTold(stage));
  drive(stage);
  for (const s of again) readUntilKnown(stage, s, runTold(stage));
  if (stage.slip("two-clears")) {
    clearAll(stage, wanted);
    stage.driven = false;
    for (const s of again) readUntilKnown(stage, s, runTold(stage));
  }
}

function runTold(stage: Stage): Reading["run"] {
  if (stage.slip("wrong-answer")) return stage.pick(["key-on", "idle", "drive"] as const);
  return stage.driven || stage.claimed ? "drive" : "key-on";
}

function drive(stage: Stage): void {
  const minutes = (stage.pack.proving.driveMinutes ?? 15) + 5;
  stage.claimed = true;
  if (stage.slip("no-drive")) return stage.wait(stage.random() < 0.5 ? 60_000 : minutes * 60_000);
  stage.do({ do: "drive" });
  stage.wait(minutes * 60_000);
  stage.driven = true;
}

/** Of a unit that cannot tell anything, nothing may be said: neither a code nor that there is none. */
function saysNothing(known: Known): boolean {
  if (known.answer === "codes") return !known.codes.some((x) => atLeast(x.sure, "likely"));
  return known.answer !== "none" || !atLeast(known.none, "likely");
}
