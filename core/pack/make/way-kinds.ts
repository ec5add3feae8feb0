import type { Ask, Cause, Step, Tells } from "../way";
import type { WayKind, WayNames } from "./ways";

const PARKED = ["Engine off", "Parking brake on", "All consumers off: fan, lights, radio"];
const step = (
  id: string,
  title: string,
  text: string,
  key: Step["key"],
  wire: Step["wire"],
  more: Partial<Step> = {},
): Step => ({ id, title, text, key, wire, ...more });
const keyOff = (wire: Step["wire"] = "any") =>
  step("key-off", "Key off", "Turn the key fully off. Wait five seconds, so that the unit goes to sleep.", "off", wire);
const find = (text: string) => step("find", "Find the plug", text, "off", "out");
const wireIn = ({ a, b, never }: WayNames, more = "") =>
  step("wire", "Put the wire in", `Bare, thin, unpainted wire: join ${a} and ${b}.${more}`, "off", "in", {
    caution: never.length
      ? `Never touch ${never.join(", ")}. Look twice, key off.`
      : "A wrong cavity can kill the unit. Count twice, key off.",
  });
const keyOn = (text: string, wire: Step["wire"] = "any", more: Partial<Step> = {}) =>
  step("key-on", "Key on, do not start", text, "on", wire, more);

const KEY_POSITION: Cause = {
  id: "key-position",
  text: "The key is not fully on.",
  look: "Turn it to the last stop before the starter; other lamps of the panel light too.",
  weight: 2,
  seen: ["dark"],
};
const SHORT: Cause = {
  id: "short",
  text: "The button was not held long enough.",
  look: "Hold it for the full time of the timer, let go at once.",
  weight: 5,
};
const POWER: Cause = {
  id: "power",
  text: "The unit has no power.",
  look: "Look at its fuse, then at its ground.",
  weight: 2,
  seen: ["dark"],
};

const bridged = ({ a, b, lamp }: WayNames): Cause[] => [
  {
    id: "no-contact",
    text: "The wire makes no contact.",
    look: `Scrape it bright and push it in again at ${a} and ${b}, key off first. Paint does not conduct.`,
    weight: 6,
    seen: ["steady"],
  },
  {
    id: "mirrored",
    text: "The cavities were counted from the other side.",
    look: "Socket face and wire side are mirror images. Find the notch, then count again.",
    weight: 5,
    seen: ["steady", "other-lamp"],
  },
  {
    id: "key-first",
    text: "The key went on before the wire was in.",
    look: "Key off, wait five seconds, wire in, key on.",
    weight: 3,
    seen: ["steady"],
  },
  {
    id: "other-lamp",
    text: "Another lamp was watched.",
    look: `Other lamps blink too. Watch this one: ${lamp}.`,
    weight: 2,
    seen: ["other-lamp"],
  },
  KEY_POSITION,
  {
    id: "lamp-died",
    text: "The lamp or the unit's power failed meanwhile.",
    look: "Wire out, key on: the lamp has to light as it did at the lamp check.",
    weight: 1.5,
    seen: ["dark"],
  },
  {
    id: "test-line",
    text: "The test line is open between plug and unit.",
    look: `Key off. Measure from ${a} to the unit's own plug: below 1 Ω.`,
    weight: 1.5,
    seen: ["steady"],
    unlikelyAfter: ["no-contact", "mirrored"],
  },
  {
    id: "unit",
    text: "The unit does not run its test.",
    look: "Only when the others are ruled out: measure the unit's power and ground under load.",
    weight: 0.6,
    unlikelyAfter: ["no-contact", "mirrored", "key-first"],
  },
];

const bridge = (plug: string, { a, b }: WayNames): Ask => ({ kind: "bridge", connector: plug, bridge: [a, b] });
const lamp = (dialect: string): Tells => ({ kind: "lamp", dialect });

const bySight = (names: WayNames) => [
  keyOff("out"),
  find(`${names.plug}. Turn its open side to you and look for the notch.`),
  wireIn(names),
  keyOn("Turn the key to on and leave it. Then watch the lamp blink its list.", "in"),
];

/** The ways in that a make of one's own can have. */
export const WAY_KINDS: readonly WayKind[] = [
  {
    id: "bridge",
    method: "A",
    does: "Join two cavities of a plug with a wire, then key on",
    sees: "A lamp in the dash blinks",
    plug: "bridge",
    talk: "two-digits",
    ask: bridge,
    tells: lamp,
    engine: "off",
    preconditions: PARKED,
    steps: bySight,
    causes: bridged,
  },
  {
    id: "two-wire",
    method: "B",
    does: "Join the two wires of a small plug, then key on",
    sees: "A lamp in the dash blinks",
    plug: "bridge",
    talk: "long-short",
    ask: bridge,
    tells: lamp,
    engine: "off",
    preconditions: PARKED,
    steps: bySight,
    causes: bridged,
  },
  {
    id: "box",
    method: "C",
    does: "Join two marked contacts in a diagnosis box, engine warm",
    sees: "A lamp in the dash blinks",
    plug: "bridge",
    talk: "two-digits",
    ask: bridge,
    tells: lamp,
    engine: "off",
    warm: true,
    preconditions: ["Engine warm", "Foot off the pedal", ...PARKED],
    steps: (names) => [
      keyOff("out"),
      step("find", "Open the box", `${names.plug}. Read the names in the lid, not the colours.`, "off", "out"),
      wireIn(names),
      keyOn("After some seconds the lamp blinks each code.", "in"),
    ],
    causes: (names) => [
      ...bridged(names),
      {
        id: "cold",
        text: "The engine is cold or the throttle is not closed.",
        look: "The unit may not run its test then: warm it up, foot off the pedal.",
        weight: 3,
      },
    ],
  },
  {
    id: "reader",
    method: "D",
    does: "Put a lamp with a button on the plug, hold the button",
    sees: "Its lamp blinks one code a press",
    plug: "reader",
    talk: "press",
    ask: (plug, { a, b }) => ({
      kind: "reader",
      connector: plug,
      ground: b,
      signal: a,
      feed: "Battery positive",
      readSeconds: 3,
      clearSeconds: 7,
    }),
    tells: lamp,
    engine: "off",
    preconditions: ["Engine off", "Parking brake on", "Reader in order: lamp, button, three leads"],
    steps: ({ a, b }) => [
      keyOff("out"),
      step("black", "Black lead on ground", `Black lead into ${b}.`, "off", "out"),
      step("signal", "Signal lead on the unit's line", `Signal lead into ${a}. One unit at a time.`, "off", "in"),
      step("red", "Red lead on the feed", "Red lead on battery positive. Nothing else.", "off", "in", {
        caution: "That is battery. Only the reader's red lead touches it.",
      }),
      keyOn("The reader's lamp lights and stays lit: ready. Dark: check the leads.", "in"),
      step(
        "read",
        "Hold the button, let go, count",
        "Hold it for the read time, let go, and count. Again for the next code, until the first one comes back.",
        "on",
        "in",
        { timer: { kind: "hold", seconds: 3, then: "Let go, and count." } },
      ),
    ],
    causes: ({ a, b }) => [
      {
        id: "black-lead",
        text: "The black lead has no contact.",
        look: `It belongs into ${b}.`,
        weight: 5,
        seen: ["dark"],
      },
      {
        id: "pin",
        text: "The signal lead is in the wrong place.",
        look: `It belongs into ${a}. Count again from the notch.`,
        weight: 4,
      },
      {
        id: "red-lead",
        text: "The red lead has no battery.",
        look: "Test lamp from the feed to ground.",
        weight: 3,
        seen: ["dark"],
      },
      SHORT,
      KEY_POSITION,
      POWER,
    ],
  },
  {
    id: "unit-button",
    method: "D",
    does: "Hold a button on the unit itself",
    sees: "A small lamp beside it blinks one code a press",
    plug: null,
    talk: "press",
    ask: () => ({ kind: "unit-button", where: "On the unit, beside its small lamp.", readSeconds: 3, clearSeconds: 7 }),
    tells: lamp,
    engine: "off",
    preconditions: ["Engine off", "Parking brake on"],
    steps: () => [
      step("find", "Find the button", "It sits on the unit, beside a small lamp.", "off", "any"),
      keyOn("The small lamp lights and stays lit: ready."),
      step(
        "read",
        "Hold the button, let go, count",
        "Hold it for the read time, let go, and count. Again for the next code, until the first one comes back.",
        "on",
        "any",
        { timer: { kind: "hold", seconds: 3, then: "Let go, and count." } },
      ),
    ],
    causes: () => [SHORT, KEY_POSITION, POWER],
  },
  {
    id: "running",
    method: "E",
    does: "Join two cavities, then start the engine: it tests itself",
    sees: "A lamp in the dash blinks while it runs",
    plug: "bridge",
    talk: "two-digits",
    ask: bridge,
    tells: lamp,
    engine: "running",
    warm: true,
    preconditions: [
      "Engine at working temperature",
      "Parking brake on, gear in park or neutral",
      "All consumers off: fan, lights, radio",
      "Outdoors, or with the exhaust led away",
      "Wheels chocked",
    ],
    steps: (names) => [
      step(
        "warm",
        "Bring the engine to working temperature",
        "Drive it, or let it run until the fan has come on once. Then stop it.",
        "run",
        "out",
        {
          caution: "Carbon monoxide: outdoors, or with extraction.",
          timer: { kind: "warm-up", seconds: 600, then: "Warm enough when the top hose is hot. Stop the engine." },
        },
      ),
      keyOff("out"),
      wireIn(names, " Engine still off."),
      step("start", "Start the engine", "Start it and leave the pedal alone. Watch the lamp.", "run", "in", {
        caution: "Hands, sleeves and leads clear of belt, fan and hot exhaust.",
      }),
    ],
    causes: (names) => [
      ...bridged(names),
      {
        id: "cold",
        text: "The engine is too cold.",
        look: "Below working temperature the unit may not begin.",
        weight: 4,
      },
    ],
  },
  {
    id: "memory",
    method: "F",
    does: "Join two cavities, key on: the unit tests itself, then tells its memory",
    sees: "A lamp in the dash blinks faults that are there now, then the stored ones",
    plug: "bridge",
    talk: "now-then",
    ask: bridge,
    tells: lamp,
    engine: "off",
    preconditions: PARKED,
    steps: (names) => [
      keyOff("out"),
      find(`${names.plug}. Turn its open side to you and look for the notch.`),
      wireIn(names),
      keyOn("First clicks of the test, then faults that are there now, a lone flash, then what is stored.", "in"),
    ],
    causes: bridged,
  },
  {
    id: "key-cycle",
    method: "G",
    does: "Turn the key on and off in a beat",
    sees: "A lamp in the dash blinks",
    plug: null,
    talk: "once",
    ask: () => ({ kind: "key-cycle", times: 3, withinSeconds: 5 }),
    tells: lamp,
    engine: "off",
    preconditions: ["Engine off", "Parking brake on"],
    steps: () => [
      step("key-off", "Key off, and wait", "Ten seconds, so that the unit goes to sleep.", "off", "any", {
        timer: { kind: "wait", seconds: 10, then: "Now the key." },
      }),
      step(
        "cycle",
        "On, off, on, off, on",
        "To on each time, never to the starter. Leave it on after the last.",
        "on",
        "any",
        { caution: "Do not go to the starter.", beat: { times: 3, withinSeconds: 5 } },
      ),
      step("watch", "Watch the lamp", "It may show its list only once: have the counting ready.", "on", "any"),
    ],
    causes: () => [
      {
        id: "slow",
        text: "The key was turned too slowly.",
        look: "Follow the beat of this page.",
        weight: 6,
        seen: ["steady"],
      },
      {
        id: "not-off",
        text: "The key did not go far enough back.",
        look: "Fully off each time: the radio goes dead.",
        weight: 4,
        seen: ["steady"],
      },
      KEY_POSITION,
    ],
  },
  {
    id: "buttons",
    method: "H",
    does: "Hold buttons of the instrument, then key on",
    sees: "A number stands where the odometer was",
    plug: null,
    talk: null,
    ask: () => ({ kind: "buttons", buttons: ["SET", "RESET"], holdSeconds: 5 }),
    tells: (_, system) => ({ kind: "text", systems: [{ system, prefix: "", digits: 2 }], none: "--", next: "SET" }),
    engine: "off",
    preconditions: ["Engine off", "Gear in neutral"],
    steps: () => [
      keyOff(),
      step("hold", "Hold the buttons, key on", "Keep holding until the odometer gives way to a number.", "on", "any", {
        timer: { kind: "hold", seconds: 5, then: "Let go. A number stands where the odometer was." },
      }),
      step(
        "read",
        "Step through the numbers",
        "Each press shows the next number, until nothing more comes.",
        "on",
        "any",
      ),
    ],
    causes: () => [
      {
        id: "late",
        text: "The buttons were not held before the key went on.",
        look: "Hold them first, then the key.",
        weight: 5,
      },
      { id: "short", text: "They were let go too early.", look: "Hold for the full time of the timer.", weight: 4 },
      { id: "dark", text: "The instrument has no power.", look: "Look at its fuse.", weight: 1, seen: ["dark"] },
    ],
  },
  {
    id: "walk",
    method: "I",
    does: "Join two cavities, then walk through the modules with a button",
    sees: "A dash writes a letter and numbers",
    plug: "bridge",
    talk: null,
    ask: bridge,
    tells: (_, system) => ({
      kind: "modules",
      modules: [{ system, letter: "E", name: "Engine" }],
      submodes: [{ id: "codes", title: "Codes", shows: "codes" }],
      digits: 2,
      none: "---",
      nextSubmode: "MODE",
      nextModule: "TRIP",
    }),
    engine: "off",
    preconditions: PARKED,
    steps: (names) => [
      keyOff("out"),
      find(`${names.plug}. Turn its open side to you and look for the notch.`),
      wireIn(names),
      keyOn("The dash shows the first module.", "in"),
    ],
    // It writes on a display: no lamp can be taken for another.
    causes: (names) => bridged(names).filter((c) => c.id !== "other-lamp"),
  },
  {
    id: "readiness",
    method: "J",
    does: "Key on, and wait",
    sees: "The lamp says whether the monitors are complete",
    plug: null,
    talk: null,
    ask: () => ({ kind: "key-on", where: "The lamp in the dash." }),
    tells: () => ({ kind: "readiness", waitSeconds: 20, watchSeconds: 12, blinks: 7, complete: "steady" }),
    engine: "off",
    preconditions: ["Engine off", "Parking brake on"],
    steps: () => [
      keyOff(),
      keyOn(
        "The lamp stays lit while it waits. Watch it for the time below: blinking then means that the monitors are not complete.",
      ),
    ],
    causes: () => [
      { id: "early", text: "It was not watched long enough.", look: "The full wait, then the watch.", weight: 4 },
      KEY_POSITION,
    ],
  },
  {
    id: "unit-led",
    method: "B",
    does: "Key on, and look at the unit itself",
    sees: "A small lamp on the unit blinks",
    plug: null,
    talk: "long-short",
    ask: () => ({ kind: "key-on", where: "A small lamp on the unit itself." }),
    tells: lamp,
    engine: "off",
    preconditions: ["Engine off", "Parking brake on"],
    steps: () => [
      keyOff(),
      step("find", "Find the unit", "Find the small lamp on it; shade it with a hand.", "off", "any"),
      keyOn("The small lamp blinks its list at once."),
    ],
    causes: () => [
      {
        id: "sun",
        text: "The window is dirty or the sun is on it.",
        look: "Wipe it and shade it with a hand.",
        weight: 3,
        seen: ["dark"],
      },
      KEY_POSITION,
      POWER,
    ],
  },
];
