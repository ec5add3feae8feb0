import Joi from "joi";
import { JOB_ENDS, RECORD_VERSION, STEP_IDS, type Doc } from "./types";

const text = Joi.string().allow("").max(4000);
const word = Joi.string().min(1).max(120);
const time = Joi.string().isoDate();
const words = Joi.array().items(text).max(60).required();
const code = Joi.string().pattern(/^\d{1,4}$/);
const codes = Joi.array().items(code).max(200).required();
const share = Joi.number().min(0).max(1);
const shares = Joi.object().pattern(code, share);
const times = Joi.object().pattern(code, Joi.number().integer().min(0));
const ms = Joi.number().min(0);
const base = { version: Joi.number().valid(RECORD_VERSION).required(), id: word.required() };

const vehicle = Joi.object({
  ...base,
  kind: Joi.string().valid("vehicle").required(),
  plate: word.required(),
  pack: word.required(),
  variant: word.required(),
  year: Joi.number().integer().min(1900).max(2100).required(),
  engine: word.required(),
  market: word.required(),
  changes: Joi.array()
    .items(Joi.object({ text: text.required(), codes }))
    .max(100)
    .required(),
  radio: Joi.string().valid("none", "code-known", "code-unknown", "not-asked").required(),
  createdAt: time.required(),
});

const lampSeen = Joi.string().valid("steady", "dark", "flashing", "goes-out");
const step = Joi.string().valid(...STEP_IDS);

const job = Joi.object({
  ...base,
  kind: Joi.string().valid("job").required(),
  vehicle: word.required(),
  title: text.required(),
  openedAt: time.required(),
  closedAt: time.allow(null).required(),
  end: Joi.string().valid(...JOB_ENDS),
  handOver: Joi.boolean().required(),
  done: Joi.array().items(step).required(),
  story: Joi.object({
    lamp: text.required(),
    since: text.required(),
    engine: Joi.string().valid("cold", "warm", "any", "").required(),
    speed: Joi.string().valid("standing", "town", "country", "motorway", "any", "").required(),
    load: Joi.string().valid("light", "hill", "hard", "any", "").required(),
    weather: words,
    before: words,
    symptoms: words,
    goesOut: Joi.string().valid("yes", "no", "sometimes", "").required(),
    words: text.required(),
  }).required(),
  lampCheck: Joi.object({
    at: time.required(),
    seen: lampSeen.required(),
    others: Joi.string().valid("all", "none", "not-checked").required(),
    units: Joi.object().pattern(
      word,
      Joi.object({
        lamp: lampSeen.allow(null).required(),
        outputs: Joi.object().pattern(word, Joi.string().valid("works", "dead")).required(),
        power: Joi.string().valid("good", "bad"),
        ground: Joi.string().valid("good", "bad"),
      }),
    ),
  })
    .allow(null)
    .required(),
  system: word.required(),
  hookUpStep: Joi.number().integer().min(0).required(),
  stepTimer: Joi.object({ step: word.required(), startedAt: time.required() }).allow(null),
  ruledOut: Joi.object().pattern(word, Joi.array().items(word).max(40)),
  clears: Joi.array()
    .items(
      Joi.object({
        at: time.required(),
        way: word.required(),
        system: word.required(),
        seconds: ms.required(),
        wiped: Joi.array().items(word).max(40),
        code,
      }),
    )
    .required(),
  clearing: Joi.object({ way: word.required(), startedAt: time.required() }).allow(null).required(),
  notebook: Joi.array()
    .items(
      Joi.object({
        at: time.required(),
        by: Joi.string().valid("klinko", "person").required(),
        step: step.required(),
        text: text.required(),
      }),
    )
    .max(5000)
    .required(),
  verdict: text.required(),
});

/** Numbers by the ten thousand: gone through in one loop, since a rule for each would hold the page up. */
const series = Joi.array()
  .max(200_000)
  .custom((value: unknown[]) => {
    if (!value.every((x) => typeof x === "number" && Number.isFinite(x))) throw new Error("not a row of numbers");
    return value;
  });

const reading = Joi.object({
  ...base,
  kind: Joi.string().valid("reading").required(),
  job: word.required(),
  vehicle: word.required(),
  system: word.required(),
  way: word.required(),
  dialect: text.required(),
  input: Joi.string()
    .valid(
      "camera",
      "film",
      "tap",
      "keys",
      "hold",
      "trace",
      "press",
      "counts",
      "text",
      "modules",
      "readiness",
      "serial",
    )
    .required(),
  run: Joi.string().valid("before", "key-on", "idle", "drive").required(),
  startedAt: time.required(),
  marks: Joi.array()
    .items(
      Joi.object({
        id: Joi.number().integer().required(),
        t: ms.required(),
        up: ms,
        kind: Joi.string().valid("s", "l", "p"),
        p: share,
      }),
    )
    .max(20_000)
    .required(),
  levels: Joi.object({ t: series.required(), y: series.required() }).custom((value: { t: number[]; y: number[] }) => {
    if (value.t.length !== value.y.length) throw new Error("times and brightness are not of one length");
    return value;
  }),
  corrected: Joi.boolean(),
  counts: text,
  pauses: Joi.array().items(Joi.array().ordered(ms.required(), ms.required())).max(200).required(),
  until: ms.allow(null).required(),
  result: Joi.object({
    state: Joi.string().valid("codes", "none", "dark", "steady", "unclear").required(),
    codes,
    memories: Joi.object({ stored: codes.optional(), live: codes.optional() }).required(),
    complete: Joi.boolean().required(),
    confidence: share.required(),
    codeConfidence: shares.required(),
    heard: Joi.object({
      exactShown: Joi.object({ stored: times, live: times }).required(),
      wholeRound: Joi.boolean().required(),
      roundsShown: times.required(),
      over: Joi.boolean().required(),
      completeness: share.required(),
      memoryConfidence: Joi.object({ stored: shares, live: shares }).required(),
      cylinders: Joi.number().integer().min(1).max(16).allow(null).required(),
      tempo: Joi.number().positive().required(),
    }),
  })
    .allow(null)
    .required(),
  lists: Joi.object().pattern(
    word,
    Joi.object({
      state: Joi.string().valid("codes", "none", "unclear").required(),
      codes,
      unclear: words,
    }),
  ),
  readiness: Joi.string().valid("complete", "not-complete", "unclear"),
  keyOn: Joi.boolean(),
  looked: Joi.object({ lamp: word, socket: word }),
  rested: Joi.string().valid("lit", "dark", "lit-then-dark"),
  withdrawnAt: time,
  recordedAt: time.allow(null).required(),
});

const schemas: Record<string, Joi.Schema<Doc>> = { vehicle, job, reading };

/** A stored thing that cannot be used as it is; it stays where it is, untouched, and can be saved as a file. */
export interface Locked {
  key: string;
  why: "newer" | "damaged";
  message: string;
  raw: unknown;
}

/** Opens what was stored under a key: migrated to this version, or locked with the reason. */
export function openDoc(key: string, raw: unknown): { doc: Doc } | { locked: Locked } {
  const lock = (why: Locked["why"], message: string) => ({ locked: { key, why, message, raw } });
  if (typeof raw !== "object" || raw === null) return lock("damaged", "This record is empty or not a record.");
  const { version, kind } = raw as { version?: unknown; kind?: unknown };
  if (typeof version === "number" && version > RECORD_VERSION)
    return lock(
      "newer",
      `Written by a newer Klinko (version ${version}; this one knows ${RECORD_VERSION}). Update Klinko to open it.`,
    );
  const schema = typeof kind === "string" && Object.hasOwn(schemas, kind) ? schemas[kind] : null;
  if (!schema) return lock("damaged", "This record is of no known kind.");
  const checked: Joi.ValidationResult<Doc> = schema.validate(raw, { convert: false });
  if (checked.error) return lock("damaged", `${checked.error.details[0].path.join(".")}: ${checked.error.message}`);
  return { doc: checked.value };
}
