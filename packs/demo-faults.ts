import type { SimulatedFault } from "@core/simulated/vehicle";

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
};
