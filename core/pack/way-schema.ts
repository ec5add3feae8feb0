import Joi from "joi";
import { id, line, list, text } from "./words";

const cavity = Joi.string()
  .pattern(/^[A-Z0-9]{1,3}$/, "a cavity's name")
  .required();
const seconds = Joi.number().min(0.1).max(7200);
const kind = (value: string) => Joi.string().valid(value).required();
const year = Joi.number().integer().min(1950).max(2035);

const ask = Joi.alternatives()
  .try(
    Joi.object({
      kind: kind("bridge"),
      connector: id.required(),
      bridge: Joi.array().items(cavity).length(2).required(),
    }),
    Joi.object({
      kind: kind("reader"),
      connector: id.required(),
      ground: cavity,
      signal: cavity,
      feed: line.required(),
      readSeconds: seconds.required(),
      clearSeconds: seconds.required(),
    }),
    Joi.object({
      kind: kind("unit-button"),
      where: text.required(),
      readSeconds: seconds.required(),
      clearSeconds: seconds.required(),
    }),
    Joi.object({
      kind: kind("key-cycle"),
      times: Joi.number().integer().min(2).max(8).required(),
      withinSeconds: seconds.required(),
    }),
    Joi.object({ kind: kind("buttons"), buttons: list(line, 4).min(1), holdSeconds: seconds.required() }),
    Joi.object({ kind: kind("key-on"), where: text.required() }),
    Joi.object({
      kind: kind("lead"),
      connector: id.required(),
      wires: list(Joi.object({ cavity, to: line.required(), colour: line.required() }), 12).min(1),
      insulate: line.required(),
    }),
  )
  .match("one")
  .required();

const tells = Joi.alternatives()
  .try(
    Joi.object({
      kind: kind("lamp"),
      dialect: Joi.string().required(),
      act: Joi.object({
        what: text.required(),
        seconds: seconds.required(),
        missed: Joi.string()
          .pattern(/^[1-9]\d{0,3}$/)
          .required(),
      }),
    }),
    Joi.object({
      kind: kind("text"),
      systems: list(
        Joi.object({
          system: id.required(),
          prefix: Joi.string()
            .pattern(/^[A-Za-z]?$/)
            .allow("")
            .required(),
          digits: Joi.number().integer().min(1).max(4).required(),
        }),
        12,
      ).min(1),
      none: line.required(),
      next: line.required(),
    }),
    Joi.object({
      kind: kind("modules"),
      modules: list(
        Joi.object({
          system: id.required(),
          letter: Joi.string()
            .pattern(/^[A-Z]$/)
            .required(),
          name: line.required(),
        }),
        12,
      ).min(1),
      submodes: list(
        Joi.object({
          id: id.required(),
          title: line.required(),
          shows: Joi.string().valid("codes", "value", "erase").required(),
          holdSeconds: seconds,
        }),
        8,
      ).min(1),
      digits: Joi.number().integer().min(1).max(4).required(),
      none: line.required(),
      nextSubmode: line.required(),
      nextModule: line.required(),
    }),
    Joi.object({
      kind: kind("readiness"),
      waitSeconds: seconds.required(),
      watchSeconds: seconds.required(),
      blinks: Joi.number().integer().min(1).max(20).required(),
      complete: Joi.string().valid("steady", "goes-out").required(),
    }),
    Joi.object({
      kind: kind("serial"),
      protocols: list(
        Joi.object({
          id: id.required(),
          title: line.required(),
          baud: Joi.number().integer().min(50).max(1_000_000).required(),
          years: Joi.array().ordered(year.required(), year.required()).length(2).required(),
        }),
        8,
      ).min(1),
      sampleSeconds: seconds.required(),
      parameters: list(
        Joi.object({
          id: id.required(),
          name: line.required(),
          unit: Joi.string().valid("1/min", "kPa", "V", "°C", "%", "km/h").required(),
          at: Joi.number().integer().min(0).max(250).required(),
          bytes: Joi.number().valid(1, 2).required(),
          factor: Joi.number().required(),
          offset: Joi.number().required(),
          idle: Joi.array().ordered(Joi.number().required(), Joi.number().required()).length(2).required(),
        }),
        60,
      ).min(1),
    }),
  )
  .match("one")
  .required();

const step = Joi.object({
  id: id.required(),
  title: line.required(),
  text: text.required(),
  key: Joi.string().valid("off", "on", "run", "any").required(),
  wire: Joi.string().valid("in", "out", "any").required(),
  caution: text,
  timer: Joi.object({
    kind: Joi.string().valid("hold", "wait", "warm-up", "act").required(),
    seconds: seconds.required(),
    then: text.required(),
  }),
  beat: Joi.object({ times: Joi.number().integer().min(2).max(8).required(), withinSeconds: seconds.required() }),
});

const cause = Joi.object({
  id: id.required(),
  text: text.required(),
  look: text.required(),
  weight: Joi.number().min(0.01).max(100).required(),
  seen: Joi.array()
    .items(Joi.string().valid("steady", "dark", "other-lamp", "gibberish"))
    .min(1),
  unlikelyAfter: Joi.array().items(id).max(12),
});

export const ways = list(
  Joi.object({
    id: id.required(),
    title: line.required(),
    method: Joi.string()
      .pattern(/^[A-K]$/, "a letter from A to K")
      .required(),
    ask,
    tells,
    engine: Joi.string().valid("off", "running").required(),
    engineWarm: Joi.boolean(),
    preconditions: list(text, 12),
    steps: list(step, 20).min(1).unique("id"),
    nothingHappens: list(cause, 14).unique("id"),
  }),
  20,
).unique("id");
