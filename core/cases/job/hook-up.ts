import type { SystemAccess } from "../../pack/scope";
import { flashesNow, lampOf } from "../../simulated/answers";
import type { Stage } from "./stage";

/** Puts the wire, the reader or the serial lead where this way asks for it, or, by a slip, elsewhere. */
export function hookUp(stage: Stage, s: SystemAccess): void {
  const { ask } = s.way;
  const c = s.connector;
  const wrong = (ask.kind === "bridge" || ask.kind === "reader") && stage.slip("wrong-wire");
  if (ask.kind === "bridge") {
    const [a, b] = ask.bridge;
    const test =
      c!.cavities.find((x) => x.role === "test" && !ask.bridge.includes(x.id)) ??
      c!.cavities.find((x) => x.role === "empty");
    const ground = c!.cavities.find((x) => ask.bridge.includes(x.id) && x.role === "ground")?.id ?? b;
    stage.do({
      do: "wire",
      wire: { connector: c!.id, from: wrong && test ? test.id : a, to: wrong && test ? ground : b },
    });
  } else if (ask.kind === "reader") {
    const other = stage.systems.find((x) => x !== s && x.way.ask.kind === "reader")?.way.ask;
    const signal = wrong && other?.kind === "reader" ? other.signal : ask.signal;
    stage.do({ do: "leads", leads: { connector: c!.id, at: { black: ask.ground, signal }, fed: true } });
  } else if (ask.kind === "lead") {
    stage.do({
      do: "leads",
      leads: { connector: c!.id, fed: false, at: Object.fromEntries(ask.wires.map((w) => [w.colour, w.cavity])) },
    });
  }
}

/** Turns the key as the way asks; returns when it came on. */
export function keyOn(stage: Stage, s: SystemAccess): number {
  const { ask } = s.way;
  if (ask.kind === "key-cycle") {
    const slow = stage.slip("slow-key");
    for (let i = 0; i < ask.times; i++) {
      if (i) {
        stage.do({ do: "key", to: "off" });
        stage.wait(slow ? 2500 : 700);
      }
      stage.do({ do: "key", to: "on" });
      if (i < ask.times - 1) stage.wait(slow ? 2500 : 700);
    }
    return stage.now;
  }
  stage.do({ do: "key", to: "on" });
  const at = stage.now;
  if (s.way.engine === "running") {
    stage.wait(3000);
    stage.do({ do: "key", to: "run" });
    const { tells } = s.way;
    if (tells.kind === "lamp" && tells.act && stage.random() < 0.9) {
      // Acts within the window, whenever the one flash comes.
      const lamp = lampOf(stage.v, stage.pack, stage.vehicle, s.system);
      const asked = [...firstFlashes(stage, lamp)].find((f) => f.means === "act");
      if (asked) stage.v = { ...stage.v, actedAt: asked.at + 2000 };
    }
  }
  return at;
}

function* firstFlashes(stage: Stage, lamp: ReturnType<typeof lampOf>): Generator<{ at: number; means?: string }> {
  const { flashes, since } = flashesNow(lamp);
  let n = 0;
  for (const f of flashes as Iterable<{ start: number; flash?: { unit: { means?: string } } }>) {
    if (++n > 60) return;
    yield { at: since + f.start, means: f.flash?.unit.means };
  }
}
