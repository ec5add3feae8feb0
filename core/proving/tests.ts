import type { Proof } from "../job/proof";
import { atLeast } from "../job/told";
import { lower } from "../wording";
import type { Pack } from "../pack/pack";
import type { Story } from "../record/types";

/** Something that brings a fault back, if it is still there: the quickest first. */
export interface ProvingTest {
  id: "key-on" | "idle" | "wiggle" | "drive";
  title: string;
  how: string[];
  caution: string | null;
  /** So long it takes, where there is a time to run. */
  seconds?: number;
  /** A reading since the clear shows what it brought; of a wiggle no record tells. */
  done: boolean;
}

const RUNNING = "Outdoors, brake on, wheels chocked, hands, sleeves and leads clear of belt and fan.";
const ROAD = "Under the law of the road. Nobody reads a screen while driving.";

const SPEEDS: Readonly<Record<Story["speed"], string>> = {
  standing: "standing with the engine running",
  town: "in town",
  country: "on the road",
  motorway: "at motorway speed",
  any: "",
  "": "",
};

/** When it came on, as a drive has to be to bring it back: "with the engine warm, on the road, in the wet". Empty where nothing was told. */
export function conditionsOf(story: Story): string {
  const weather = story.weather.map(
    (w) => ({ Wet: "in the wet", Frost: "in frost", Heat: "in the heat", Dry: "in the dry" })[w] ?? "",
  );
  return [
    story.engine === "cold" || story.engine === "warm" ? `with the engine ${story.engine}` : "",
    SPEEDS[story.speed],
    { light: "under light load", hill: "uphill", hard: "at full throttle", any: "", "": "" }[story.load],
    ...weather,
  ]
    .filter(Boolean)
    .join(", ");
}

/** Tests that tell a hard fault from one that comes and goes, in the order of what they take; those that were done stand first. */
export function testsOf(
  proof: Proof,
  story: Story,
  { proving }: Pick<Pack, "proving">,
  parts: readonly string[],
): ProvingTest[] {
  if (!proof.cleared || !proof.rows.some((r) => r.kind === "fault")) return [];
  const ran = new Set(proof.ran);
  const conditions = conditionsOf(story);
  const idle = Math.max(1, proving.idleMinutes);
  return [
    {
      id: "key-on",
      title: "Read at once",
      how: ["Key on, engine not started. What is back now is there now, or the clear did not take."],
      caution: null,
      done: proof.after.length > 0,
    },
    {
      id: "idle",
      title: `Let it idle for ${idle} ${idle === 1 ? "minute" : "minutes"}, then read`,
      how: [
        "In neutral first. An automatic also in gear, foot on the brake, nobody in front of it.",
        "Lights and heater on for a minute: what comes with the load shows then.",
        "Nothing back? Let it warm up until the fan has run once, and read again: what comes with the heat shows then.",
      ],
      seconds: idle * 60,
      caution: RUNNING,
      done: ran.has("idle") || ran.has("drive"),
    },
    {
      id: "wiggle",
      title: "Wiggle with the lamp in sight",
      how: [
        `Engine idling. Move plug and wires of ${parts.length ? parts.slice(0, 3).join(", then of ") : "each circuit that was stored"}, hand's width by hand's width.`,
        "Lamp on, or a stumble: the place is under your hand.",
      ],
      caution: RUNNING,
      done: false,
    },
    {
      id: "drive",
      title: "Drive it as when it came on, then read",
      how: [
        conditions
          ? `It came on ${conditions}: drive it like that.`
          : "Nobody said when it comes on: drive it as you mostly do.",
        proving.drive,
      ],
      caution: ROAD,
      done: ran.has("drive"),
    },
  ];
}

/**
 * Codes that came back before the others did: the lead. None where nothing is back, where all came back together, or where what is
 * there may never have been wiped.
 */
export function leadOf({ rows, after }: Proof): string[] {
  const faults = rows.filter((r) => r.kind === "fault" && r.before);
  const first = after.findIndex((_, i) => faults.some((r) => r.after[i] === true));
  if (first < 0 || !faults.some((r) => r.after[first] === false)) return [];
  const back = faults.filter((r) => r.after[first] === true);
  const sure = back.every((r) => atLeast(r.sure, "likely") && r.persistence !== "still" && r.persistence !== "late");
  return sure ? [...new Set(back.map((r) => r.code))] : [];
}

/** The parts whose circuits were stored, for a sentence. */
export const partsIn = (proof: Proof, circuitOf: (code: string) => string | undefined): string[] => [
  ...new Set(
    proof.rows.flatMap((r) => {
      const circuit = r.kind === "fault" ? circuitOf(r.code) : undefined;
      return circuit ? [`the ${lower(circuit.replace(/\s+circuit\b/i, "").trim())}`] : [];
    }),
  ),
];
