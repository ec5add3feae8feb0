import type { Pack } from "../pack/pack";
import { systemsOf, type VehicleFacts } from "../pack/scope";
import { blockOf, codesTo, COMMANDS, readRequest, reply } from "../serial/protocol";
import { askedSince } from "./answers";
import type { Simulated } from "./state";

/** The protocol that a vehicle's unit speaks goes by its year. */
function protocolOf(protocols: readonly { years: [number, number] }[], year: number): number {
  return Math.max(
    0,
    protocols.findIndex((p) => year >= p.years[0] && year <= p.years[1]),
  );
}

/** What a unit answers on the wire, and the vehicle after it: the same bytes as through a real port. */
export function unitAnswers(
  v: Simulated,
  pack: Pack,
  facts: VehicleFacts,
  bytes: Uint8Array,
  now: number,
): { bytes: Uint8Array; vehicle: Simulated } {
  const access = systemsOf(pack, facts).find((s) => s.way.tells.kind === "serial");
  const silence = { bytes: new Uint8Array(), vehicle: v };
  if (access?.way.tells.kind !== "serial" || askedSince(v, pack, access) === null) return silence;
  const asked = readRequest(bytes);
  if (!asked) return silence;
  const { tells } = access.way;
  if (asked.protocol !== protocolOf(tells.protocols, facts.year))
    return { bytes: bytes.map((b) => b ^ 0x5a), vehicle: v };
  const codes = v.memory[access.system] ?? [];
  switch (asked.command) {
    case COMMANDS.hello:
      return { bytes: reply(asked.command, [asked.protocol]), vehicle: v };
    case COMMANDS.codes:
      return { bytes: reply(asked.command, codesTo(codes)), vehicle: v };
    case COMMANDS.wipe:
      return { bytes: reply(asked.command, []), vehicle: { ...v, memory: { ...v.memory, [access.system]: [] } } };
    case COMMANDS.block:
      return { bytes: reply(asked.command, blockOf(tells.parameters, liveValues(v, now))), vehicle: v };
  }
}

/** What the sensors of a made-up engine say: it idles, wavers, and warms up until the thermostat opens at 88 °C. */
function liveValues(v: Simulated, now: number): Record<string, number> {
  const runs = v.key === "run" && v.engineAt !== null;
  const seconds = runs ? (now - v.engineAt!) / 1000 : 0;
  const wave = (period: number, size: number) => size * Math.sin((2 * Math.PI * now) / 1000 / period);
  const ect = v.warm ? 90 + wave(40, 3) : 18 + Math.min(70, seconds * 0.7);
  return {
    rpm: runs ? 850 + (v.warm ? 0 : 250) + wave(3.1, 25) : 0,
    ect,
    iat: 17 + Math.min(15, seconds * 0.05),
    map: runs ? 36 + wave(2.3, 2) : 100,
    tps: 0.62,
    volt: runs ? 14.1 + wave(5, 0.1) : 12.4,
    o2: runs && ect > 50 ? 0.45 + wave(1.7, 0.4) : 0.45,
    iac: runs ? 28 + wave(7, 3) : 60,
  };
}
