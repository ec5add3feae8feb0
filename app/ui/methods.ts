/** The eleven ways to get at codes, in a few words each. */
export const METHOD_WORDS: Record<string, string> = {
  A: "Bridge two cavities, key on",
  B: "Two-wire plug, or an LED on the unit",
  C: "Marked diagnosis box, test to earth",
  D: "Pulse reader with a button, one system at a time",
  E: "Self-test with the engine running",
  F: "Self-test with the engine off, and its memory",
  G: "Key cycle, no wire",
  H: "Buttons on the instrument, a number in place of the odometer",
  I: "A digital dash that walks through its modules",
  J: "Readiness by lamp",
  K: "Serial live data through a lead",
};
