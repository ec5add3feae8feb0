/** What the lamp does with the key on, engine off (KOEO), and no wire in. */
export type LampSeen = "steady" | "dark" | "flashing" | "goes-out";

export interface LampVerdict {
  seen: LampSeen;
  /** May the codes be asked for? */
  pass: boolean;
  headline: string;
  reason: string;
  /** What to look at, in this order. */
  look: string[];
}

/** Other things that the same unit drives, and whether they answer: they tell a bulb from a dead unit. */
export type OthersSeen = "all" | "none" | "not-checked";

/** Verdict of the lamp check: only a unit that passes is worth asking for codes. */
export function lampVerdict(seen: LampSeen, others: OthersSeen = "not-checked"): LampVerdict {
  switch (seen) {
    case "steady":
      return {
        seen,
        pass: true,
        headline: "The lamp is steady, as it should be.",
        reason: "Most likely its unit is alive: it can be asked for its codes.",
        look: [],
      };
    case "flashing":
      return {
        seen,
        pass: false,
        headline: "The lamp flashes with no wire in.",
        reason:
          "The test line is already joined to ground, or the unit is in a test mode. Codes read now could be another mode's.",
        look: [
          "Is a wire or paper clip still in the connector? Take it out, key off, key on.",
          "Look at the test line's wire for chafing against the body or the column.",
          "Is something plugged into the connector, such as an alarm or an adapter? Take it off.",
          "Still flashing with the connector bare: the test line is shorted to ground in the loom.",
        ],
      };
    case "goes-out":
      return {
        seen,
        pass: false,
        headline: "The lamp lights and goes out again.",
        reason:
          "On most vehicles it stays lit with the engine off. It may be another lamp, or the key is not fully on.",
        look: [
          "Is it the right lamp? Belt and airbag lamps go out by themselves; the one to watch stays.",
          "Turn the key fully to on, without starting, and look again.",
          "Look up whether this vehicle's lamp goes out by design; then check it again with the engine just stopped.",
        ],
      };
    case "dark":
      return others === "none"
        ? {
            seen,
            pass: false,
            headline: "The lamp and all that the unit drives are dead.",
            reason:
              "Several things dead at once point to the unit's power or ground, or the unit itself, not to each part.",
            look: [
              "Measure the unit's power: fuse first, then the feed at its plug with the key on.",
              "Measure its ground: less than 0.1 V to battery negative with the key on.",
              "Only with both good is the unit itself suspect.",
            ],
          }
        : {
            seen,
            pass: false,
            headline: others === "all" ? "Only the lamp is dead." : "The lamp is dark.",
            reason:
              others === "all"
                ? "The unit drives its other outputs, so it is alive. Bulb, fuse or the lamp's circuit is at fault."
                : "Bulb, fuse, lamp circuit, or a unit that is dead or without power.",
            look: [
              "Bulb: swap it with a lamp that lights, such as the oil lamp's.",
              "Fuse of the instruments: other lamps in the panel dark too?",
              "Lamp circuit: ground the lamp wire at the unit's plug, key on; a lamp that lights now has a good bulb and wire.",
              ...(others === "all"
                ? []
                : [
                    "Does the fuel pump prime for two seconds at key-on? If not, the unit has no power, no ground, or is dead.",
                  ]),
            ],
          };
  }
}
