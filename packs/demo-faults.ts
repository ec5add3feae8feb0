import type { SimulatedFault } from "@core/simulated/state";

/** What is wrong with the demo vehicles that are there to be read. Others hide faults drawn from their own table. */
export const DEMO_FAULTS: Record<string, readonly SimulatedFault[]> = {
  "demo-sm418t": [
    { system: "engine", code: "26", returns: "drive" },
    { system: "engine", code: "43", returns: "never" },
    { system: "brake", code: "23", returns: "never" },
  ],
  "demo-sm233k": [
    { system: "engine", code: "7", returns: "key-on" },
    { system: "engine", code: "27", returns: "key-on" },
    { system: "brake", code: "13", returns: "never" },
  ],
  "demo-sm501c": [
    { system: "engine", code: "13", returns: "key-on" },
    { system: "engine", code: "21", returns: "never" },
  ],
  "demo-et44": [
    { system: "engine", code: "3", returns: "drive" },
    { system: "engine", code: "6", returns: "never" },
    { system: "airbag", code: "6", returns: "key-on" },
  ],
  "demo-sm12d": [
    { system: "engine", code: "231", returns: "key-on" },
    { system: "engine", code: "233", returns: "never" },
  ],
  "demo-ferry3": [
    { system: "engine", code: "13", returns: "drive" },
    { system: "engine", code: "22", returns: "never" },
  ],
  "demo-mc7": [
    { system: "engine", code: "4", returns: "key-on" },
    { system: "engine", code: "14", returns: "never" },
    { system: "brake", code: "29", returns: "drive" },
  ],
  "demo-sm9a": [
    { system: "engine", code: "13", returns: "never" },
    { system: "engine", code: "34", returns: "drive" },
    { system: "climate", code: "49", returns: "key-on" },
  ],
  // What their stored jobs read is what is still in them.
  "demo-sm077f": [
    { system: "engine", code: "14", returns: "key-on" },
    { system: "engine", code: "35", returns: "never" },
  ],
  "demo-et31": [],
  "demo-et9": [{ system: "engine", code: "5", returns: "drive" }],
  "demo-sm88m": [
    { system: "engine", code: "15", returns: "never" },
    { system: "engine", code: "28", returns: "drive" },
  ],
};

/** Those of the demo fleet, and what is rehearsed on, have a stand-in to try things on: a real one is beside its owner. */
export const hasStandIn = (vehicle: string): boolean => /^(?:demo|rehearsal)-/.test(vehicle);
/** Id of a vehicle that is there to be rehearsed on. */
export const standInId = (id: string): string => `rehearsal-${id}`;
