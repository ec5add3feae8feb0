import type { Check, CheckKind } from "./checks";
import type { CircuitHere } from "./circuits";
import type { Suspect } from "./suspect";
import type { Group } from "./weigh";

const big = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const itOf = (c: CircuitHere | null): string => (c ? c.part : "circuit");

/** A thing that can be wrong, as it is called. */
function suspectTitle(s: Pick<Suspect, "failure" | "circuit" | "name">): string {
  const part = itOf(s.circuit);
  switch (s.failure) {
    case "plug":
      return `Plug of the ${part}`;
    case "wire-open":
    case "wire-short":
      return `Wires of the ${part}`;
    case "part":
      return `The ${part} itself`;
    case "hose":
      return s.circuit?.kind === "air-flow" || s.circuit?.kind === "mixture"
        ? "An intake hose that leaks"
        : `Vacuum hose of the ${part}`;
    case "gap":
      return `Gap, ring or fit of the ${part}`;
    case "sticks":
      return `The ${part}, stuck or out of adjustment`;
    case "air-leak":
      return "An air leak at the intake";
    case "exhaust-leak":
      return "A leak in the exhaust ahead of the oxygen sensor";
    case "fuel-low":
      return "Fuel pressure too low";
    case "fuel-high":
      return "Fuel pressure too high, or fuel where it should not be";
    case "program":
      return "The control unit's program";
    case "memory-feed":
      return "The memory's power, cut at some time";
    case "sensor-ground":
      return s.name ? big(s.name) : "The ground that the sensors share";
    case "reference":
      return s.name ? big(s.name) : "The 5 V reference that the sensors share";
    case "feed":
      return s.name ? `The feed: ${s.name}` : "The feed of the valves and coils";
    case "joint":
      return s.name ? big(s.name) : "A plug that several circuits share";
    case "loom":
      return "The loom where it passes the exhaust";
    case "unit-ground":
      return s.name ? `The unit's ground: ${s.name}` : "The control unit's ground";
    case "charging":
      return "Battery, terminals or charging";
    case "unit":
      return "The control unit";
  }
}

/** A group by its likeliest suspect. */
export const groupTitle = (g: Group): string => suspectTitle(g.suspects[0]);

/** How a check is called, what is done, and how its outcome is named. */
export interface CheckWords {
  title: string;
  how: string[];
  good: string;
  bad: string;
  /** What can hurt, or break, at this check. */
  caution: string | null;
}

type Worded = Omit<CheckWords, "caution">;

const SIGNAL_WIRES = "Plug off at both ends, key off.";

const WORDS: Readonly<Record<CheckKind, (c: Check) => Worded>> = {
  "look-plug": ({ circuit }) => ({
    title: `Look at the plug of the ${itOf(circuit)}`,
    how: ["Key off. Is the plug fully on? Pull it: dry, no green, no pin pushed back or loose."],
    good: "Good: on, dry, clean",
    bad: "Off, wet, green or loose",
  }),
  "clean-plug": ({ circuit }) => ({
    title: `Clean the plug of the ${itOf(circuit)} and read again`,
    how: ["Contact cleaner on both halves, plug on and off five times. Clear, run it as when it came, read again."],
    good: "The code came back",
    bad: "The code stays away",
  }),
  wiggle: ({ circuit }) => ({
    title: `Wiggle the plug and wires of the ${itOf(circuit)}`,
    how: [
      "Engine idling. Wiggle the plug, then the loom towards the unit. Does the engine stumble, or the lamp come on?",
    ],
    good: "Nothing changes",
    bad: "It stumbles or the lamp comes on",
  }),
  unplug: ({ circuit }) => ({
    title: `Pull the plug of the ${itOf(circuit)} and read again`,
    how: [
      "Plug off, clear, key on for a minute, read. An open line should set the opposite code.",
      "If it does, wires and unit are good and the part is shorted.",
    ],
    good: "The opposite code is set",
    bad: "The same code comes back",
  }),
  "bridge-plug": ({ circuit }) => ({
    title: `Bridge the plug of the ${itOf(circuit)} and read again`,
    how: [
      "Plug off the sensor. Join the two pins of the loom's side with a thin wire, clear, key on for a minute, read.",
      "If the opposite code is set, the wires and the unit are good.",
    ],
    good: "The opposite code is set",
    bad: "The same code comes back",
  }),
  "follow-wires": ({ circuit }) => ({
    title: `Follow the wires of the ${itOf(circuit)}`,
    how: [
      `From the plug to the first loom and on to the bulkhead: chafed, pinched, melted or mended?${circuit?.beside === "exhaust" ? " They run past the exhaust: look there first." : circuit?.beside === "moving" ? " They bend with every move: look at the fold." : circuit?.beside === "water" ? " They sit in the spray: look for green inside the cover." : ""}`,
    ],
    good: "Nothing found",
    bad: "Damaged",
  }),
  "from-unit": ({ circuit }) => ({
    title: `Measure the ${itOf(circuit)} from the unit's plug`,
    how: [
      "Key off, unit's plug off. Measure across the two cavities of this circuit on the loom's side.",
      "The value of the part: then plug, wires and part are all good in one go.",
    ],
    good: "The part's value",
    bad: "Open, shorted or wrong",
  }),
  "ring-through": ({ circuit }) => ({
    title: `Ring through the wires of the ${itOf(circuit)}`,
    how: [`${SIGNAL_WIRES} Each wire from the part's plug to the unit's: below 1 Ω, also while you move the loom.`],
    good: "All below 1 Ω",
    bad: "One is open or comes and goes",
  }),
  "to-ground": ({ circuit }) => ({
    title: `Measure the wires of the ${itOf(circuit)} against ground and each other`,
    how: [`${SIGNAL_WIRES} Signal wire against ground and against its neighbours: open.`],
    good: "Open, as it should be",
    bad: "Joined to ground or a neighbour",
  }),
  part: ({ circuit, limit }) => ({
    title: `Measure the ${itOf(circuit)}`,
    how: [
      limit
        ? `${big(limit.at)}.`
        : "By the manual's figure; this make's file gives none. A slow sweep, or warm against cold, must not jump.",
    ],
    good: "As it should be",
    bad: "Out of its figure, or it jumps",
  }),
  hose: ({ circuit }) => ({
    title:
      circuit?.kind === "air-flow" || circuit?.kind === "mixture"
        ? "Look at the intake hoses"
        : `Look at the vacuum hose of the ${itOf(circuit)}`,
    how: ["On at both ends, not split, not hard, no oil inside. Bend it: cracks open only then."],
    good: "Good",
    bad: "Off, split or full of oil",
  }),
  gap: ({ circuit }) => ({
    title: `Look at gap and fit of the ${itOf(circuit)}`,
    how: ["Tight, no metal dust on the tip, gap by the manual, no tooth of the ring broken."],
    good: "Good",
    bad: "Loose, dirty or damaged",
  }),
  moves: ({ circuit }) => ({
    title: `Does the ${itOf(circuit)} move and switch as it should?`,
    how: [
      "Work it by hand or with battery voltage, key off where you can: free, no carbon, clicks, switches where it should.",
    ],
    good: "Moves freely, switches",
    bad: "Sticks, is sooted or set wrong",
  }),
  "vacuum-hold": ({ circuit, limit }) => ({
    title: `Does the ${itOf(circuit)} hold vacuum?`,
    how: [
      `${big(limit!.at)}.`,
      circuit?.kind === "recirculation"
        ? "At idle the engine should stumble as the vacuum goes on: then the valve opens."
        : "First with the hose, then at the part alone: that tells the hose from the part.",
    ],
    good: "It holds",
    bad: "It drops",
  }),
  duty: ({ circuit, limit }) => ({
    title: `Measure the duty cycle of the ${itOf(circuit)}`,
    how: [
      `${big(limit!.at)}.`,
      "0 or 100 % that never changes: the wire. Far off but alive: the unit fights against something that sticks.",
    ],
    good: "As it should be",
    bad: "Off, or it never changes",
  }),
  "swap-part": ({ circuit }) => ({
    title: `Swap the ${itOf(circuit)} for a known good one`,
    how: ["Same number. Clear, run it as when it came, read again. Put the old one back if nothing changes."],
    good: "The code came back",
    bad: "The code stays away",
  }),
  "air-leak": () => ({
    title: "Look for an air leak at the intake",
    how: ["Engine idling. Listen along gaskets and hoses; a little soapy water at a joint: does the idle change?"],
    good: "Nothing changes",
    bad: "There is a leak",
  }),
  "exhaust-leak": () => ({
    title: "Look for a leak in the exhaust ahead of the sensor",
    how: ["Cold start: listen and feel near joints and manifold for puffs. Soot marks show the place."],
    good: "Tight",
    bad: "It leaks",
  }),
  "fuel-pressure": () => ({
    title: "Measure the fuel pressure",
    how: ["At the rail, by the manual: at idle, and with the regulator's hose off. Look for fuel in that hose."],
    good: "As the manual says",
    bad: "Too low or too high",
  }),
  "program-chip": () => ({
    title: "Look at the chip and the unit's socket",
    how: ["Battery off. The chip sits on all its legs, no moisture, no green at the unit's plug."],
    good: "Good",
    bad: "Loose or wet",
  }),
  "memory-feed": () => ({
    title: "Was the power cut?",
    how: [
      "Battery off, a fuse out, terminals loose, starter dragging the voltage down: any of that since the last clear?",
    ],
    good: "No, none of that",
    bad: "Yes",
  }),
  "sensor-ground": ({ name }) => ({
    title: `Measure ${name ?? "the sensors' ground"}`,
    how: [
      "Meter from the ground pin at the sensor's plug to battery negative, plug off or probed from behind, key on.",
    ],
    good: "Good: next to nothing",
    bad: "There is a voltage",
  }),
  reference: ({ name }) => ({
    title: `Measure ${name ?? "the 5 V reference"}`,
    how: [
      "Meter from the reference pin to ground at a sensor's plug, plug off, key on.",
      "Too low: pull the other sensors on it one by one. It comes back when the shorted one is off.",
    ],
    good: "Good",
    bad: "Missing or wrong",
  }),
  feed: ({ name }) => ({
    title: `Look at ${name ?? "the feed of the valves and coils"}`,
    how: ["Fuse and relay first, then the voltage at a part's plug, key on."],
    good: "Battery voltage is there",
    bad: "Blown, or no voltage",
  }),
  joint: ({ name }) => ({
    title: `Open and look at the ${name ?? "shared plug"}`,
    how: ["Key off. Pins straight, dry, none pushed back. Close it until it clicks."],
    good: "Good",
    bad: "Wet, green or loose",
  }),
  loom: () => ({
    title: "Look at the loom where it passes the exhaust",
    how: ["Cold engine. Cover melted, hard or shining? Open it there: wires touching?"],
    good: "Good",
    bad: "Melted or chafed",
  }),
  "unit-ground": ({ name }) => ({
    title: `Measure the unit's ground${name ? `: ${name}` : ""}`,
    how: [
      "Meter from the unit's ground pin to battery negative, engine running, lights on: below 0.1 V. Look at the screw: clean, tight, bare metal.",
    ],
    good: "Below 0.1 V, clean and tight",
    bad: "More, or dirty",
  }),
  charging: () => ({
    title: "Measure battery and charging",
    how: ["Across the posts: at rest, then at 2000 1/min with lights on. Then the belt, and the terminals by hand."],
    good: "As it should be",
    bad: "Too low or too high, or loose",
  }),
  "swap-unit": () => ({
    title: "Try another control unit",
    how: [
      "Only with the same number, and after power and ground were measured good. A second-hand one can be bad itself.",
    ],
    good: "The code came back",
    bad: "The code stays away",
  }),
};

/** What can hurt at a check: as the make's table says it of the circuit, else by what the check and its circuit are. */
function cautionOf({ kind, circuit }: Check): string | null {
  const told = [...new Set(circuit?.entries.flatMap((e) => e.caution ?? []))];
  if (told.length) return told.join(" ");
  if (circuit && /refrigerant/i.test(circuit.circuit))
    return "Refrigerant under pressure: nothing of it is opened here. That is licensed work.";
  if (kind === "fuel-pressure")
    return "Fuel under pressure: cold engine, no sparks, rag and glasses. Stop and go by the manual where you are not sure.";
  if (circuit && /ignition|coil|spark/i.test(circuit.circuit))
    return "High voltage: engine off before any lead or plug is touched.";
  if (circuit && /modulator|abs pump/i.test(circuit.circuit))
    return "Brake fluid under pressure: have it without pressure by the manual before any plug near the modulator comes off.";
  if (circuit && /injector|fuel (pump|rack|pressure)|shut-off/i.test(circuit.circuit))
    return "Fuel: no sparks, no hot engine, rag at hand.";
  if (["wiggle", "duty", "air-leak", "exhaust-leak", "charging", "unit-ground"].includes(kind))
    return "Engine running: outdoors, brake on, out of gear, hands, sleeves and leads clear of belt and fan.";
  if (kind === "swap-unit" || kind === "program-chip") return "Battery negative off before the unit's plug is touched.";
  return null;
}

/** A check in words. What the make's own table says of it stands with it. */
export function checkWords(check: Check): CheckWords {
  const words = WORDS[check.kind](check);
  return { ...words, how: [...words.how, ...tableSays(check)], caution: cautionOf(check) };
}

/** Words by which a look in a table is about this kind of check. */
const ABOUT: Partial<Record<CheckKind, RegExp>> = {
  part: /measure|sweep|closed throttle|heater cold|Ω|sensor's figure/i,
  hose: /hose/i,
  gap: /gap|ring|tight/i,
  moves: /clean|carbon|stiff|move|click|passage/i,
  feed: /fuse|relay|feed/i,
};

const tableSays = (check: Check): string[] => {
  const about = ABOUT[check.kind];
  const looks = check.circuit?.entries.flatMap((e) => e.lookFirst) ?? [];
  return about ? [...new Set(looks.filter((l) => about.test(l)))].slice(0, 2) : [];
};
