import fc from "fast-check";
import { expect, it } from "vitest";
import type { Parameter } from "../pack/way";
import { blockOf, codesFrom, codesTo, COMMANDS, readReply, readRequest, reply, request, valuesOf } from "./protocol";

const byte = fc.integer({ min: 0, max: 255 });
const command = fc.constantFrom(...Object.values(COMMANDS));

it("requests and replies come back as they were sent", () => {
  fc.assert(
    fc.property(command, byte, fc.array(byte, { maxLength: 200 }), (c, protocol, payload) => {
      expect(readRequest(request(c, protocol))).toEqual({ command: c, protocol });
      expect(readReply(reply(c, payload), c)).toEqual({ payload: Uint8Array.from(payload) });
    }),
  );
});

it("a single wrong byte is never taken for a good reply, nor noise for a request", () => {
  fc.assert(
    fc.property(
      command,
      fc.array(byte, { maxLength: 40 }),
      fc.nat(),
      fc.integer({ min: 1, max: 255 }),
      (c, payload, at, by) => {
        const bytes = reply(c, payload);
        bytes[at % bytes.length] ^= by;
        expect(readReply(bytes, c)).toEqual({ wrong: "gibberish" });
      },
    ),
  );
  fc.assert(fc.property(fc.uint8Array({ maxLength: 12 }), (noise) => void readRequest(noise)));
  expect(readReply(new Uint8Array(), COMMANDS.block)).toEqual({ wrong: "silence" });
});

it("values and codes survive the wire, values within a step of their byte", () => {
  const parameters: Parameter[] = [
    { id: "rpm", name: "", unit: "1/min", at: 0, bytes: 2, factor: 1, offset: 0, idle: [0, 1] },
    { id: "ect", name: "", unit: "°C", at: 2, bytes: 1, factor: 1, offset: -55, idle: [0, 1] },
    { id: "tps", name: "", unit: "V", at: 3, bytes: 1, factor: 0.02, offset: 0, idle: [0, 1] },
  ];
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 9000 }),
      fc.double({ min: -40, max: 150, noNaN: true }),
      fc.double({ min: 0, max: 5, noNaN: true }),
      (rpm, ect, tps) => {
        const back = valuesOf(parameters, Uint8Array.from(blockOf(parameters, { rpm, ect, tps })));
        expect(back.rpm).toBe(rpm);
        expect(Math.abs(back.ect - ect)).toBeLessThanOrEqual(0.5);
        expect(Math.abs(back.tps - tps)).toBeLessThanOrEqual(0.0101);
      },
    ),
  );
  expect(valuesOf(parameters, Uint8Array.from([1, 2]))).toEqual({ rpm: 258 });
  expect(codesFrom(Uint8Array.from(codesTo(["7", "411"])))).toEqual(["7", "411"]);
});
