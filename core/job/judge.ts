import { alive, unitVerdict } from "../procedure/unit-check";
import type { Sure } from "../flash/judge/sureness";
import { unitsOf, type SystemAccess } from "../pack/scope";
import { inputOf } from "../record/inputs";
import type { Reading } from "../record/types";
import type { JobCase } from "./case";
import { clearsOf } from "./epochs";
import { codeKind } from "./faults";
import { knownOf, type Known } from "./known";
import { proofOf, type Proof } from "./proof";
import type { Evidence, Statement } from "./statement";
import { atLeast, atMost } from "./told";

/** All that can be said of a job's vehicle now, and what it is said from. */
export interface Judgement {
  systems: { access: SystemAccess; known: Known; proof: Proof }[];
  statements: Statement[];
}

const readingEvidence = (r: Reading): Evidence => ({
  kind: "reading",
  id: r.id,
  at: r.startedAt,
  input: r.input,
  run: r.run,
});

/** The judgement of a job: pure, from its records alone. Pages show it and judge nothing themselves. */
export function judge(c: JobCase): Judgement {
  const systems = c.systems.map((access) => ({
    access,
    known: knownOf(c, access.system),
    proof: proofOf(c, access.system),
  }));
  const read = systems.filter((s) => s.access.way.tells.kind !== "readiness");
  return {
    systems,
    statements: [
      ...unitStatements(c),
      ...read.flatMap((s) => [...knownStatements(c, s.known), ...proofStatements(c, s.proof)]),
      verdictOf(
        c,
        read.map((s) => s.proof),
      ),
      ...readiness(c),
    ],
  };
}

function knownStatements(c: JobCase, k: Known): Statement[] {
  const evidence = k.last ? [readingEvidence(k.last.reading), ...lookedEvidence(k.last.reading)] : [];
  const about = { system: k.system, evidence, doubts: k.doubts };
  const out: Statement[] = [];
  if (k.disagree) out.push({ ...about, kind: "readings-disagree", sure: "certain" });
  switch (k.answer) {
    case "not-read":
      return [{ ...about, kind: "not-read", sure: "certain" }];
    case "other-unit":
      return [...out, { ...about, kind: "other-unit", other: k.last?.other?.system ?? null, sure: "certain" }];
    case "no-answer":
    case "unclear":
      return [...out, { ...about, kind: k.answer, sure: "certain" }];
    case "none":
      return [...out, { ...about, kind: "nothing-stored", sure: k.none }];
    case "codes":
      for (const x of k.codes) {
        const times = x.in.reduce(
          (n, t) => n + (t.codes.find((y) => y.code === x.code && y.memory === x.memory)?.heard ?? 0),
          0,
        );
        const heard: Evidence[] =
          k.last && inputOf(k.last.reading.input).known !== "seen"
            ? []
            : [{ kind: "heard", at: k.last!.reading.startedAt, code: x.code, times }];
        out.push({
          ...about,
          kind: "stored",
          code: x.code,
          memory: x.memory,
          is: codeKind(c, k.system, x.code),
          sure: x.sure,
          evidence: [...x.in.map((t) => readingEvidence(t.reading)), ...evidence.slice(1), ...heard],
        });
      }
      if (atLeast(k.whole, "likely")) out.push({ ...about, kind: "list-whole", sure: k.whole });
      return out;
  }
}

function lookedEvidence(r: Reading): Evidence[] {
  return (["lamp", "socket"] as const).flatMap((what) =>
    r.looked?.[what] ? [{ kind: "told" as const, at: r.recordedAt ?? r.startedAt, what }] : [],
  );
}

function proofStatements(c: JobCase, p: Proof): Statement[] {
  if (!p.cleared || !p.after.length) return [];
  const last = clearsOf(c, c.systems.find((s) => s.system === p.system)!.memory).at(-1)!;
  const driven = p.after.filter((t) => t.reading.run === "drive" || t.reading.run === "idle");
  const evidence: Evidence[] = [
    ...p.after.map((t) => readingEvidence(t.reading)),
    { kind: "clear", at: last.at, way: last.way, seconds: last.seconds },
    ...p.before.slice(-1).map((t) => readingEvidence(t.reading)),
    ...driven.map((t): Evidence => ({
      kind: "told",
      at: t.reading.startedAt,
      what: t.reading.run === "drive" ? "drive" : "idle",
    })),
  ];
  const about = { system: p.system, evidence, doubts: p.after.flatMap((t) => t.doubts) };
  const took: Statement[] = p.clearTook ? [{ ...about, kind: "clear-took", sure: "likely" }] : [];
  return [
    ...took,
    ...p.rows.map((r): Statement => ({
      ...about,
      kind: "persistence",
      code: r.code,
      memory: r.memory,
      is: r.persistence,
      sure: r.sure,
    })),
  ];
}

/** Where the job stands as a whole: no better than the worst of its systems. */
function verdictOf(c: JobCase, proofs: readonly Proof[]): Statement {
  const read = proofs.filter((p) => p.state !== "not-read" || p.cleared);
  const evidence = read.flatMap((p) => [...p.before.slice(-1), ...p.after].map((t) => readingEvidence(t.reading)));
  const about = { system: c.job.system, evidence, doubts: [] };
  const any = (...is: Proof["state"][]) => read.some((p) => is.includes(p.state));
  if (!read.length) return { ...about, kind: "verdict", is: "open", sure: "certain" };
  if (any("not-fixed")) return { ...about, kind: "verdict", is: "not-fixed", sure: weakest(read) };
  if (any("not-read", "not-proven")) return { ...about, kind: "verdict", is: "not-proven", sure: "certain" };
  if (any("not-cleared")) return { ...about, kind: "verdict", is: "open", sure: "certain" };
  if (any("fixed")) return { ...about, kind: "verdict", is: "fixed", sure: "likely" };
  return {
    ...about,
    kind: "verdict",
    is: "nothing-found",
    sure: read.reduce<Sure>((s, p) => atMost(s, lastSure(p)), "certain"),
  };
}

const lastSure = (p: Proof): Sure => {
  const last = [...p.before, ...p.after].at(-1);
  return !last ? "unsure" : last.answer === "none" ? last.none : last.whole;
};

/** Of "not fixed": as sure as the surest code that is there and no quieter. */
function weakest(read: readonly Proof[]): Sure {
  const there = read.flatMap((p) =>
    p.rows.filter(
      (r) => r.kind === "fault" && ["hard", "intermittent", "back", "still", "new", "late"].includes(r.persistence),
    ),
  );
  return there.reduce<Sure>((s, r) => (atLeast(s, r.sure) ? s : r.sure), "unsure");
}

/** What the lamp check says of each unit that was looked at. */
function unitStatements(c: JobCase): Statement[] {
  const check = c.job.lampCheck;
  if (!check) return [];
  const evidence: Evidence[] = [{ kind: "lamp-check", at: check.at }];
  const units = unitsOf(c.systems);
  const seenOf = (s: SystemAccess) => check.units?.[s.system];
  return units.flatMap((s): Statement[] => {
    const seen = seenOf(s);
    if (!seen) return [];
    const about = { system: s.system, evidence, doubts: [] };
    const verdict = unitVerdict(
      s.about,
      seen,
      units.filter((x) => x !== s).map((x) => ({ about: x.about, seen: seenOf(x) })),
    );
    const unit: Statement = { ...about, kind: "unit-alive", sure: "likely" };
    if (verdict?.suspect === "lamp-only") return [unit, { ...about, kind: "only-lamp", sure: "likely" }];
    if (alive(seen)) return [unit];
    return verdict && verdict.suspect !== "wrong-lamp"
      ? [{ ...about, kind: "unit-suspect", suspect: verdict.suspect, sure: "unsure" }]
      : [];
  });
}

/** Readiness, from the watches since the last clear that wiped it. */
function readiness(c: JobCase): Statement[] {
  return c.systems
    .filter((s) => s.way.tells.kind === "readiness")
    .flatMap((s): Statement[] => {
      const clear = clearsOf(c, s.memory).at(-1);
      const watches = c.readings
        .filter(
          (r) =>
            r.system === s.system &&
            r.recordedAt &&
            !r.withdrawnAt &&
            r.readiness &&
            (!clear || r.startedAt > clear.at),
        )
        .sort((a, b) => a.startedAt.localeCompare(b.startedAt));
      const last = watches.at(-1);
      if (!last || last.readiness === "unclear") return [];
      const about = {
        system: s.system,
        evidence: [readingEvidence(last)],
        doubts: [{ kind: "start-unseen" as const }],
      };
      return [{ ...about, kind: last.readiness === "complete" ? "ready" : "not-ready", sure: "likely" }];
    });
}
