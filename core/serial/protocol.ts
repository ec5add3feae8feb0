import type { Parameter } from "../pack/way";

/**
 * The bytes between a serial unit and whoever asks it. A request is `K`, command, protocol number, sum; a reply `k`, command,
 * length, that many bytes, sum. The sum is that of all bytes before it, modulo 256. A unit that is asked in another protocol
 * than its own answers with bytes that do not add up, as a unit at the wrong speed would.
 */
export const COMMANDS = { hello: 1, block: 2, codes: 3, wipe: 4 } as const;
export type Command = (typeof COMMANDS)[keyof typeof COMMANDS];

const ASK = 0x4b;
const REPLY = 0x6b;

const sum = (bytes: ArrayLike<number>, n: number) => {
  let s = 0;
  for (let i = 0; i < n; i++) s += bytes[i];
  return s & 255;
};

export function request(command: Command, protocol: number): Uint8Array {
  const head = [ASK, command, protocol];
  return Uint8Array.from([...head, sum(head, 3)]);
}

export function reply(command: Command, payload: readonly number[]): Uint8Array {
  const body = [REPLY, command, payload.length, ...payload];
  return Uint8Array.from([...body, sum(body, body.length)]);
}

/** Reads a request, or null where it is none. */
export function readRequest(bytes: Uint8Array): { command: Command; protocol: number } | null {
  const known = Object.values(COMMANDS).includes(bytes[1] as Command);
  if (bytes.length !== 4 || bytes[0] !== ASK || !known || bytes[3] !== sum(bytes, 3)) return null;
  return { command: bytes[1] as Command, protocol: bytes[2] };
}

export type Read = { payload: Uint8Array } | { wrong: "silence" | "gibberish" };

/** Reads what came back on a request: nothing, bytes that do not add up, or what was asked for. */
export function readReply(bytes: Uint8Array, command: Command): Read {
  if (!bytes.length) return { wrong: "silence" };
  const n = bytes[2];
  const good =
    bytes[0] === REPLY && bytes[1] === command && bytes.length === n + 4 && bytes[n + 3] === sum(bytes, n + 3);
  return good ? { payload: bytes.slice(3, n + 3) } : { wrong: "gibberish" };
}

/** Values of a block. A parameter that lies beyond its end is missing. */
export function valuesOf(parameters: readonly Parameter[], block: Uint8Array): Record<string, number> {
  const values: Record<string, number> = {};
  for (const p of parameters) {
    if (p.at + p.bytes > block.length) continue;
    const raw = p.bytes === 2 ? block[p.at] * 256 + block[p.at + 1] : block[p.at];
    values[p.id] = raw * p.factor + p.offset;
  }
  return values;
}

/** The block that holds these values, as a unit would send it; the counterpart of {@link valuesOf}. */
export function blockOf(parameters: readonly Parameter[], values: Readonly<Record<string, number>>): number[] {
  const block = new Array<number>(Math.max(...parameters.map((p) => p.at + p.bytes))).fill(0);
  for (const p of parameters) {
    const raw = Math.round(((values[p.id] ?? 0) - p.offset) / p.factor);
    const clamped = Math.max(0, Math.min(p.bytes === 2 ? 65_535 : 255, raw));
    if (p.bytes === 2) block[p.at] = clamped >> 8;
    block[p.at + p.bytes - 1] = clamped & 255;
  }
  return block;
}

/** Codes travel as two bytes each, the higher one first. */
export const codesTo = (codes: readonly string[]): number[] => codes.flatMap((c) => [Number(c) >> 8, Number(c) & 255]);
export const codesFrom = (payload: Uint8Array): string[] =>
  Array.from({ length: payload.length >> 1 }, (_, i) => String(payload[2 * i] * 256 + payload[2 * i + 1]));
