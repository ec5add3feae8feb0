import { describe, expect, it } from "vitest";
import { PACKS } from "@packs/index";
import { outline, place } from "./outline";

const CONNECTORS = PACKS.flatMap((p) => p.connectors);

describe("a connector's outline", () => {
  it("is drawn for every one that ships, and of one that the pack draws the wire side is its mirror image", () => {
    expect(CONNECTORS.some((c) => c.shape === "own")).toBe(true);
    for (const c of CONNECTORS) {
      const [socket, wire] = [outline(c, "socket"), outline(c, "wire")];
      expect([c.id, /^M [\d. -]/.test(socket.d), /NaN|undefined/.test(socket.d + wire.d)]).toEqual([c.id, true, false]);
      expect([c.id, wire.transform]).toEqual([c.id, c.outline ? `translate(${c.size[0]} 0) scale(-1 1)` : undefined]);
      if (c.outline) expect(wire.d).toBe(socket.d);
      // A cavity mirrors about the same middle as its shell.
      for (const cavity of c.cavities)
        expect(place(c, cavity, "wire")[0] + place(c, cavity, "socket")[0]).toBe(c.size[0]);
    }
  });
});
