import Joi from "joi";
import type { Dialect } from "./dialect";
import { runsOf } from "./digits";

const ms = Joi.number().min(0).max(600_000);
const times = Joi.number().integer().min(1).max(20);

const phase = Joi.object({
  kind: Joi.string().valid("code", "stored", "group", "steady", "even").required(),
})
  .when(".kind", {
    switch: [
      {
        is: "code",
        then: Joi.object({
          code: Joi.string()
            .pattern(/^\d{1,4}$/)
            .required(),
          times: times.required(),
          means: Joi.string().valid("mode", "end", "pass").required(),
        }),
      },
      {
        is: "stored",
        then: Joi.object({ times: times.required(), memory: Joi.string().valid("stored", "live").required() }),
      },
      {
        is: "group",
        then: Joi.object({
          flashes: Joi.alternatives(
            Joi.number().integer().min(1).max(40),
            Joi.string().valid("cylinders/2"),
          ).required(),
          means: Joi.string().valid("cylinders", "act", "separator", "clear").required(),
          beforeMs: ms.required(),
          afterMs: ms.required(),
        }),
      },
      { is: "steady", then: Joi.object({ lamp: Joi.string().valid("lit", "dark").required(), ms: ms.required() }) },
      { is: "even", then: Joi.object({ onMs: ms.min(50).required(), offMs: ms.min(50).required() }) },
    ],
  })
  .id("phase");

/** What a dialect in a file must look like. Sizes are bounded, so that a hostile one cannot make an endless show. */
export const dialectSchema = Joi.object<Dialect>({
  id: Joi.string().max(60).required(),
  title: Joi.string().max(200).required(),
  rest: Joi.string().valid("dark", "lit").required(),
  marks: Joi.object({ short: ms.min(50).required(), long: ms.min(50) }).required(),
  gaps: Joi.object({
    flash: ms.min(50).required(),
    digit: ms.required(),
    repeat: ms.required(),
    code: ms.required(),
    pass: ms.required(),
  }).required(),
  digits: Joi.object({
    style: Joi.string().valid("counted", "long-short", "total").required(),
    count: Joi.array().items(Joi.number().integer().min(1).max(4)).min(1).required(),
    zero: Joi.number().integer().min(10).max(20).allow(null),
  }).required(),
  max: Joi.number().integer().min(1).max(9999).required(),
  order: Joi.string().valid("ascending", "stored").required(),
  phases: Joi.array().items(phase).min(1).max(20).required(),
  loopFrom: Joi.number().integer().min(0).allow(null).required(),
  advance: Joi.string().valid("self", "button").required(),
  empty: phase.allow(null).required(),
}).custom((dialect: Dialect, helpers) => {
  const fail = (message: string) => helpers.message({ custom: `{{#label}} ${message}` });
  if (dialect.digits.style === "long-short" && !dialect.marks.long) return fail("shows long flashes: give marks.long");
  if (!dialect.phases.some((p) => p.kind === "stored"))
    return fail("never shows the list of faults: add a phase of kind stored");
  if (dialect.loopFrom !== null && dialect.loopFrom >= dialect.phases.length)
    return fail(`returns to phase ${dialect.loopFrom}, but the last one is ${dialect.phases.length - 1}`);
  if (dialect.advance === "self" && dialect.digits.style !== "total" && dialect.gaps.code <= dialect.gaps.digit)
    return fail("cannot be read: gaps.code must be longer than gaps.digit");
  for (const p of [...dialect.phases, ...(dialect.empty ? [dialect.empty] : [])])
    if (p.kind === "code" && !runsOf(dialect, p.code)) return fail(`cannot show its own fixed code ${p.code}`);
  return dialect;
});
