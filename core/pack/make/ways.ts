import type { Connector } from "../pack";
import type { Ask, Cause, Step, Tells, Way } from "../way";
import { TALK_EXAMPLES } from "./talk";

/** What the texts of a way name. */
export interface WayNames {
  plug: string;
  /** The two cavities that are joined, or that the reader sits on. */
  a: string;
  b: string;
  lamp: string;
  /** Cavities that nothing may touch. */
  never: readonly string[];
}

/** A kind of way in, by what one does and sees. */
export interface WayKind {
  id: string;
  method: string;
  /** What one does. */
  does: string;
  /** What one sees. */
  sees: string;
  /** Does it need a plug, and what is done to that? */
  plug: "bridge" | "reader" | null;
  /** The lamp to begin with, where one blinks. */
  talk: string | null;
  ask: (plug: string, names: WayNames) => Ask;
  tells: (dialect: string, system: string) => Tells;
  engine: Way["engine"];
  warm?: true;
  preconditions: readonly string[];
  steps: (names: WayNames) => Step[];
  causes: (names: WayNames) => Cause[];
}

/** The names that a way's texts need, from a connector and what is picked on it. */
export function wayNames(connector: Connector | null, [a, b]: readonly [string, string], lampName: string): WayNames {
  const never = connector?.cavities.filter((c) => ["power", "airbag"].includes(c.role)).map((c) => c.id) ?? [];
  return { plug: connector ? connector.where.replace(/\.$/, "") : "", a, b, lamp: lampName, never };
}

/** A way of a kind. */
export function wayOf(
  kind: WayKind,
  id: string,
  names: WayNames,
  parts: { plug: string; dialect: string; system: string },
): Way {
  return {
    id,
    title: kind.does,
    method: kind.method,
    ask: kind.ask(parts.plug, names),
    tells: kind.tells(parts.dialect, parts.system),
    engine: kind.engine,
    ...(kind.warm && { engineWarm: true }),
    preconditions: [...kind.preconditions],
    steps: kind.steps(names),
    nothingHappens: kind.causes(names),
  };
}

export const talkOfKind = (kind: WayKind) => TALK_EXAMPLES.find((e) => e.id === kind.talk) ?? null;

/** A way whose texts are those of its kind for other names gets those for these; what somebody has written stays. */
export function retold(way: Way, kind: WayKind, before: WayNames, now: WayNames): Way {
  const [was, is] = [kind.steps(before), kind.steps(now)];
  const [wasCauses, isCauses] = [kind.causes(before), kind.causes(now)];
  const same = (a: object | undefined, b: object) => JSON.stringify(a) === JSON.stringify(b);
  const anew = <T extends { id: string }>(list: readonly T[], old: readonly T[], fresh: readonly T[]): T[] =>
    list.map((x) =>
      same(
        old.find((o) => o.id === x.id),
        x,
      )
        ? (fresh.find((f) => f.id === x.id) ?? x)
        : x,
    );
  return { ...way, steps: anew(way.steps, was, is), nothingHappens: anew(way.nothingHappens, wasCauses, isCauses) };
}
