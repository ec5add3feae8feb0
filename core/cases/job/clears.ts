import { countedText, toCount } from "../../clearing/counting";
import { wipes } from "../../clearing/plan";
import { clearPlan } from "../../job/clear-plan";
import { wasCleared } from "../../job/epochs";
import { lockOf } from "../../job/gates";
import { judge } from "../../job/judge";
import { atLeast } from "../../job/told";
import type { Pack } from "../../pack/pack";
import { tableOwner, type SystemAccess } from "../../pack/scope";
import { beginClear, beginCount, endClear, endCount, withStart } from "../../record/job";
import type { Stage } from "./stage";

/** Clears what was read, by the cheapest way that may be taken; returns the memories that were meant to be wiped. */
export function clearAll(stage: Stage, wanted: readonly SystemAccess[]): string[] {
  const cleared = new Set<string>();
  stage.claimed = false;
  for (const s of wanted) {
    if (cleared.has(s.memory) || s.way.tells.kind === "readiness") continue;
    const j = judge(stage.case());
    const own = j.systems.find((x) => x.access === s)!;
    if (own.known.answer !== "codes") continue;
    if (lockOf(stage.job, stage.readings, "clear")) {
      stage.stuck ??= own.known.codes.some((x) => atLeast(x.sure, "likely")) ? "clear is locked after a reading" : null;
      continue;
    }
    if (stage.vehicle.radio === "not-asked") stage.vehicle = { ...stage.vehicle, radio: "none" };
    if (stage.vehicle.immobiliser === "not-asked") stage.vehicle = { ...stage.vehicle, immobiliser: "keys-here" };
    const { ways } = clearPlan(stage.case(), j, s.system, { inspectionIn: null, school: "usual" });
    const may = ways.filter((w) => w.may);
    if (ways.length && !may.length) stage.stuck ??= "no way to clear may be taken";
    const other = stage.slip("clears-other") ? stage.pick(stage.pack.clears) : null;
    const way = other ?? may[0]?.way;
    if (!way) continue;
    for (const m of clearBy(stage, way, s)) cleared.add(m);
    stage.check("clear");
  }
  return [...cleared];
}

function clearBy(stage: Stage, way: Pack["clears"][number], s: SystemAccess): string[] {
  const memories = wipes(stage.pack, way);
  const before = structuredClone(stage.v.memory);
  const begin = (what = way.title) => {
    stage.job = beginClear(stage.job, way.id, what, stage.iso());
  };
  const end = (code?: string) => {
    stage.job = endClear(
      stage.job,
      { system: way.system, wiped: memories, ...(code && { code }) },
      way.title,
      stage.iso(),
    );
  };
  if (way.does === "count") {
    countIt(stage, way, memories);
    tellWipes(stage, before);
    return memories;
  }
  begin();
  if (way.kind === "fuse") {
    stage.do({ do: "fuse", out: true, way: stage.slip("wrong-fuse") ? "none" : way.id });
    stage.wait(way.seconds * 1000 + 2000);
    stage.do({ do: "fuse", out: false });
    end();
  } else if (way.kind === "battery") {
    stage.do({ do: "battery", off: true });
    stage.wait(way.seconds * 1000 + 2000);
    stage.do({ do: "battery", off: false });
    end();
  } else if (way.kind === "submode" || way.kind === "adapter") {
    stage.wait(way.seconds * 1000);
    if (!stage.slip("wrong-fuse"))
      stage.v = { ...stage.v, memory: { ...stage.v.memory, [tableOwner(stage.pack, way.system)]: [] } };
    end();
  } else {
    const owner = tableOwner(stage.pack, way.system);
    const codes = stage.v.memory[owner] ?? [];
    for (const [i, code] of codes.entries()) {
      if (i) begin();
      stage.wait(way.seconds * 1000);
      if (!stage.slip("wrong-fuse"))
        stage.v = {
          ...stage.v,
          memory: { ...stage.v.memory, [owner]: (stage.v.memory[owner] ?? []).filter((c) => c !== code) },
        };
      end(code);
    }
    if (!codes.length) {
      stage.job = { ...stage.job, clearing: null };
      return [];
    }
    if (s.memory === owner && codes.length && !wasCleared(stage.case(), owner)) return [];
  }
  tellWipes(stage, before);
  return memories;
}

/** Uses the vehicle until its unit should have wiped itself; who slips ends the count too early. */
function countIt(stage: Stage, way: Pack["clears"][number], memories: readonly string[]) {
  const count = toCount(way)!;
  stage.job = beginCount(stage.job, { way: way.id, ...count }, way.title, stage.iso());
  const times = stage.slip("wrong-fuse") ? Math.floor(count.need / 2) : count.need;
  for (let i = 0; i < times; i++) {
    stage.wait(8 * 3_600_000);
    if (count.of === "rides") stage.do({ do: "drive" });
    else for (const to of ["on", "run", "off"] as const) stage.do({ do: "key", to });
    stage.job = withStart(stage.job, stage.iso());
  }
  stage.job = endCount(
    stage.job,
    { system: way.system, wiped: [...memories] },
    way.title,
    countedText({ ...count, have: times }),
    stage.iso(),
  );
}

/** What really was wiped, for the truth of the job. */
function tellWipes(stage: Stage, before: Record<string, string[]>) {
  for (const [system, codes] of Object.entries(before))
    if (codes.length && !(stage.v.memory[system] ?? []).length)
      stage.world.wipes.push({ memory: system, at: stage.now });
  stage.wait(5000);
}
