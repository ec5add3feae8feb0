import { useEffect, useRef } from "react";
import { useFetcher } from "react-router";
import { holds, rulesReady, type Of, type Rule } from "@core/schema/rule";
import { beginActing } from "./acting";
import { StoreProblem } from "./box";

/** Something that a page can ask to be done: what it needs, and what it does. `D` is what is known where it is carried out. */
interface Intent<R extends Rule<object>, D> {
  needs: R;
  run: (what: Of<R>, doing: D) => Promise<unknown>;
}

/** Makes intents for one kind of page. */
export const intentFor =
  <D>() =>
  <R extends Rule<object>>(needs: R, run: Intent<R, D>["run"]): Intent<R, D> => ({ needs, run });

// What an intent needs differs from one to the next: the table holds them all.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Intents<D> = Record<string, Intent<any, D>>;
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export type Sent<I extends Intents<any>> = { [K in keyof I & string]: { intent: K } & Of<I[K]["needs"]> }[keyof I &
  string];

/** What went wrong, in words that stand beside what was done. */
export interface Trouble {
  problem: string;
  /** It may be asked once more, and is done then. */
  ask?: true;
}

/** Carries out what a page asks for. What cannot be stored, or does not hold, comes back as words; nothing that was typed is lost. */
export const actionFor =
  <D, P>(doingOf: (params: P) => D) =>
  (intents: Intents<D>) =>
  async ({ request, params }: { request: Request; params: P }): Promise<unknown> => {
    const { intent: name, ...given } = (await request.json()) as { intent?: unknown };
    if (typeof name !== "string" || !Object.hasOwn(intents, name))
      throw new Response("This page does not know what it was asked to do.", { status: 400 });
    const own = intents[name] as Intent<Rule<object>, D>;
    await rulesReady();
    const held = holds(own.needs, given);
    if ("faults" in held) return { problem: `Not saved: ${held.faults[0].message}.` } satisfies Trouble;
    try {
      return (await own.run(held.value, doingOf(params))) ?? null;
    } catch (error) {
      if (error instanceof StoreProblem) return { problem: error.message } satisfies Trouble;
      if (error instanceof RangeError) return { problem: `Not saved: ${error.message}.` } satisfies Trouble;
      throw error;
    }
  };

/**
 * Sends what is to be done to an action; the pages follow when it is stored.
 * @param done called when it is, and not where it failed
 */
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export function useSending<I extends Intents<any>>(action: string, done?: () => void) {
  const fetcher = useFetcher<Trouble | null>();
  const { state, data } = fetcher;
  const problem = state === "idle" ? (data?.problem ?? null) : null;
  const asked = useRef(false);
  const over = useRef<() => void>(() => undefined);
  useEffect(() => {
    if (state !== "idle") asked.current = true;
    else if (asked.current) {
      asked.current = false;
      over.current();
      if (!problem) done?.();
    }
  });
  useEffect(() => () => over.current(), []);
  return {
    send: (what: Sent<I>): void => {
      over.current();
      over.current = beginActing();
      void fetcher.submit(what, { method: "post", action, encType: "application/json" });
    },
    busy: state !== "idle",
    problem,
    /** What was asked last is done if it is asked once more. */
    asks: problem !== null && data?.ask === true,
  };
}
