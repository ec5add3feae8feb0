import type { Pack } from "@core/pack/pack";
import type { Vehicle } from "@core/record/types";
import { unitAnswers } from "@core/simulated/serial-unit";
import type { Simulated } from "@core/simulated/state";
import { clock } from "./clock";
import { readValue, writeValue } from "./values";

/** A line to a serial unit: bytes out, what comes back until it falls silent. */
export interface SerialLine {
  ask: (bytes: Uint8Array) => Promise<Uint8Array>;
  close: () => Promise<void>;
}

/** What a reply takes at most, ms; a unit that is silent for so long does not answer. */
const SILENCE_MS = 400;

interface Port {
  open: (options: { baudRate: number }) => Promise<void>;
  close: () => Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
  writable: WritableStream<Uint8Array> | null;
}

/** Can this browser open a serial port? */
export const hasSerialPorts = (): boolean => "serial" in navigator;

/** A real port that the person picks; must be called from a press of a button. */
export async function openPort(baudRate: number): Promise<SerialLine> {
  const { serial } = navigator as unknown as { serial: { requestPort: () => Promise<Port> } };
  const port = await serial.requestPort();
  await port.open({ baudRate });
  return {
    ask: async (bytes) => {
      const writer = port.writable!.getWriter();
      await writer.write(bytes);
      writer.releaseLock();
      const reader = port.readable!.getReader();
      const timer = setTimeout(() => void reader.cancel(), SILENCE_MS);
      const got: number[] = [];
      try {
        // A reply says its own length in its third byte.
        while (got.length < 4 || got.length < got[2] + 4) {
          const { value, done } = await reader.read();
          if (done) break;
          got.push(...value);
        }
      } finally {
        clearTimeout(timer);
        reader.releaseLock();
      }
      return Uint8Array.from(got);
    },
    close: () => port.close(),
  };
}

/** The unit of a simulated vehicle, on the same terms: its state is what its page last stored. */
export function simulatedLine(pack: Pack, vehicle: Vehicle): SerialLine {
  const key = `simulated/${vehicle.id}`;
  return {
    ask: async (bytes) => {
      const state = (await readValue(key)) as Simulated | null;
      if (!state) return new Uint8Array();
      const answer = unitAnswers(state, pack, vehicle, bytes, clock.now());
      if (answer.vehicle !== state) {
        await writeValue(key, answer.vehicle);
        const channel = new BroadcastChannel(key);
        channel.postMessage(answer.vehicle.memory);
        channel.close();
      }
      return answer.bytes;
    },
    close: () => Promise.resolve(),
  };
}
