import { useEffect, useState } from "react";
import { evidenceOf } from "@core/record/evidence";
import type { Pack } from "@core/pack/pack";
import type { Dialect } from "@core/flash/dialect/dialect";
import type { Learned } from "@core/flash/learn/learn";
import type { KeptLamp } from "@core/record/lamp";
import { isPicture } from "@core/record/inputs";
import { clock } from "~/store/clock";
import { flashWorker } from "~/workers/flash";
import { looseHome } from "./home";
import type { ReadingSession } from "./session";

export interface Known {
  pack: Pack;
  dialect: Dialect;
}

/** A dialect with the makes that speak it, and how likely it is, 0 to 1. */
export interface Believed {
  dialect: Dialect;
  makes: string[];
  probability: number;
}

/** Asked again so often while more is seen, ms; and not before so many marks, unless no more come. */
const ASK_MS = 3000;
const FEWEST = 6;
/** So sure a dialect is named as such; below, it is one of several. */
export const SURE = 0.9;

/** Where it is surely none of those that are known, and surely a list, it is read by what was learned of it. */
const NONE_OF_THEM = 0.5;
const NO_LIST = 0.1;
/** It is learned anew when there are so many times as many marks. */
const MORE = 1.25;

/** Dialects of lamps that show by themselves, each once, with all makes that speak it, and those that were learned and kept. */
export function dialectsOf(packs: readonly Pack[], lamps: readonly KeptLamp[]): Believed[] {
  const by = new Map<string, Believed>();
  for (const pack of packs)
    for (const dialect of pack.dialects) {
      if (dialect.advance === "button") continue;
      const known = by.get(dialect.id);
      if (known) known.makes.push(pack.make);
      else by.set(dialect.id, { dialect, makes: [pack.make], probability: 0 });
    }
  return [...by.values(), ...lamps.map(({ name, dialect }) => ({ dialect, makes: [name], probability: 0 }))];
}

/**
 * Which dialect a lamp speaks, when no make was chosen: asked of the worker as more is seen; the session reads on by the likeliest,
 * until the person says another. `given` is how likely the lamp speaks what it is read by, 0 to 1.
 */
export function useBelieved(session: ReadingSession, known: readonly Believed[]) {
  const [ranked, setRanked] = useState<Believed[]>([]);
  const [none, setNone] = useState(0);
  const [learned, setLearned] = useState<Learned | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  useEffect(() => {
    let asked = "";
    let busy = false;
    let learnedOf = { startedAt: "", marks: 0 };
    const ask = async () => {
      const { reading, phase } = session.state;
      const stamp = `${phase} ${reading.marks.length} ${reading.startedAt}`;
      // A film is through before it could be asked twice.
      if (reading.input === "film" && phase === "watching") return;
      if (busy || stamp === asked || reading.marks.length < (phase === "stopped" ? 1 : FEWEST)) return;
      busy = true;
      asked = stamp;
      setAsking(true);
      try {
        const until = reading.until ?? (isPicture(reading.input) ? (reading.levels?.t.at(-1) ?? 0) : session.now());
        const evidence = evidenceOf(reading, until, session.home.dialect);
        if (evidence.mode === "counts" || evidence.mode === "button") return;
        const dialects = known.map((k) => k.dialect);
        const answer = await flashWorker("judge").identify(dialects, evidence);
        // What is learned anew of a few marks more costs seconds and says the same.
        const more =
          phase === "stopped" ||
          reading.startedAt !== learnedOf.startedAt ||
          reading.marks.length >= MORE * learnedOf.marks;
        const own =
          answer.none <= NONE_OF_THEM ? null : more ? await flashWorker("judge").learn([evidence]) : undefined;
        if (own) learnedOf = { startedAt: reading.startedAt, marks: reading.marks.length };
        // Of a reading that was thrown away meanwhile it tells nothing.
        if (session.state.reading.startedAt !== reading.startedAt) return;
        setNone(answer.none + answer.even);
        if (own !== undefined) setLearned(own?.dialect && own.none < NO_LIST ? own : null);
        setRanked(
          answer.ranked.flatMap((a) =>
            known.filter((k) => k.dialect.id === a.dialect).map((k) => ({ ...k, probability: a.probability })),
          ),
        );
      } catch {
        // A worker that died is started anew with the next question.
        asked = "";
      } finally {
        busy = false;
        setAsking(false);
      }
    };
    void ask();
    const stop = clock.every(ASK_MS, () => void ask());
    const ended = session.subscribe(() => session.state.phase === "stopped" && void ask());
    return () => {
      stop();
      ended();
    };
  }, [session, known]);
  const own = said === null ? learned : null;
  const dialect = own?.dialect ?? known.find((k) => k.dialect.id === said)?.dialect ?? ranked[0]?.dialect;
  const given = said !== null ? 1 : own ? 1 - own.none : (ranked[0]?.probability ?? 0);
  const sure = given >= SURE && !own;
  useEffect(() => {
    session.become(looseHome(dialect ?? known[0].dialect, !dialect ? "unknown" : sure ? "given" : "likely"));
  }, [session, dialect, sure, known]);
  /** Another lamp comes. */
  const forget = () => {
    setRanked([]);
    setNone(0);
    setLearned(null);
    setSaid(null);
  };
  return { ranked, none, learned: own, said, setSaid, asking, given, forget };
}
