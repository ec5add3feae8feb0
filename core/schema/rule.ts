import Joi from "joi";

/**
 * One rule gives the check at the border and the type inside: what is written once cannot drift apart. The type of a
 * rule is read off with {@link Of}; the check is Joi's.
 */
export interface Rule<T> {
  readonly joi: Joi.Schema;
  /** Only for the compiler. */
  readonly of?: T;
}

/** A field that may be missing. */
interface Missable<T> extends Rule<T> {
  readonly missable: true;
}

type Fields = Record<string, Rule<unknown>>;
type Flat<T> = { [K in keyof T]: T[K] };
type ObjectOf<F extends Fields> = Flat<
  { [K in keyof F as F[K] extends Missable<unknown> ? never : K]: Of<F[K]> } & {
    [K in keyof F as F[K] extends Missable<unknown> ? K : never]?: Of<F[K]>;
  }
>;

/** The type that a rule lets through. */
export type Of<R> = R extends Rule<infer T> ? T : never;

/** A rule by a Joi schema of one's own. */
export const rule = <T>(joi: Joi.Schema): Rule<T> => ({ joi });

export const text = (max: number): Rule<string> => rule(Joi.string().allow("").max(max));
export const word = (max: number): Rule<string> => rule(Joi.string().min(1).max(max));
/** @param says how such a text looks, for whoever has to mend one */
export const pattern = (form: RegExp, says = ""): Rule<string> => {
  const joi = Joi.string().pattern(form, says);
  return rule(form.test("") ? joi.allow("") : joi);
};
export const time: Rule<string> = rule(Joi.string().isoDate());
export const flag: Rule<boolean> = rule(Joi.boolean());
export const number = (from = -Infinity, to = Infinity): Rule<number> => rule(bounded(Joi.number(), from, to));
export const whole = (from = -Infinity, to = Infinity): Rule<number> => rule(bounded(Joi.number().integer(), from, to));

const bounded = (joi: Joi.NumberSchema, from: number, to: number) => {
  const low = Number.isFinite(from) ? joi.min(from) : joi;
  return Number.isFinite(to) ? low.max(to) : low;
};

export const oneOf = <const T extends readonly (string | number | null)[]>(...values: T): Rule<T[number]> =>
  rule(Joi.valid(...values));

/** @param min, max how many; @param unique by which field no two are alike */
export const list = <T>(
  item: Rule<T>,
  { min = 0, max, unique }: { min?: number; max: number; unique?: string | true },
): Rule<T[]> => {
  const most = Joi.array().items(item.joi).max(max);
  const joi = min > 0 ? most.min(min) : most;
  return rule(unique === undefined ? joi : unique === true ? joi.unique() : joi.unique(unique));
};

/** Two values in order. */
export const pair = <A, B = A>(a: Rule<A>, b: Rule<B>): Rule<[A, B]> =>
  rule(Joi.array().ordered(a.joi.required(), b.joi.required()).length(2));

/** Values by name. @param keys rule of the names */
export const map = <T>(keys: Rule<string>, value: Rule<T>): Rule<Record<string, T>> =>
  rule(Joi.object().pattern(keys.joi, value.joi));

/** Numbers by the hundred thousand: gone through in one loop, since a rule for each would hold the page up. */
export const series = (max: number): Rule<number[]> =>
  rule(
    Joi.array()
      .max(max)
      .custom((value: unknown[]) => {
        if (!value.every((x) => typeof x === "number" && Number.isFinite(x))) throw new Error("not a row of numbers");
        return value;
      }),
  );

/** All fields are needed but those that are {@link optional}; one that is not named here is kept, or a fault, as the check asks. */
export const object = <F extends Fields>(fields: F): Rule<ObjectOf<F>> & { fields: F } => ({
  fields,
  joi: Joi.object(
    Object.fromEntries(Object.entries(fields).map(([name, f]) => [name, "missable" in f ? f.joi : needed(f.joi)])),
  ),
});

/** What has a value of its own when it is missing need not be there. */
const needed = (joi: Joi.Schema) => (joi.$_getFlag("default") === undefined ? joi.required() : joi);

export const optional = <T>({ joi }: Rule<T>): Missable<T> => ({ joi, missable: true });
export const nullable = <T>({ joi }: Rule<T>): Rule<T | null> => rule(joi.allow(null));

/** What is missing has this value: so a record of an older version opens. */
export const otherwise = <T>({ joi }: Rule<T>, value: T): Rule<T> => rule(joi.default(() => structuredClone(value)));

/** One of several. */
export const either = <const R extends readonly Rule<unknown>[]>(...rules: R): Rule<Of<R[number]>> =>
  rule(
    Joi.alternatives()
      .try(...rules.map((r) => r.joi))
      .match("one"),
  );

type Kinds<K extends Record<string, Rule<object>>> = { [N in keyof K]: Flat<{ kind: N } & Of<K[N]>> }[keyof K];

/** One of several shapes, told apart by their field `kind`, so that a fault names the field and not all of them. */
export const byKind = <K extends Record<string, Rule<object>>>(kinds: K): Rule<Kinds<K>> =>
  rule(
    Joi.object({ kind: Joi.valid(...Object.keys(kinds)).required() }).when(".kind", {
      switch: Object.entries(kinds).map(([is, { joi }]) => ({ is, then: joi })),
    }),
  );

/** A rule that looks at the whole. @param fault what is wrong, or null */
export const also = <T>({ joi }: Rule<T>, fault: (value: T) => string | null): Rule<T> =>
  rule(
    joi.custom((value: T, helpers): unknown => {
      const wrong = fault(value);
      return wrong === null ? value : helpers.message({ custom: `{{#label}} ${wrong}` });
    }),
  );

/** Rules as a check of a whole that comes from outside. @param unknown are fields that no rule names a fault? */
export function holds<T>(
  { joi }: Rule<T>,
  value: unknown,
  { unknown = "kept", all = false }: { unknown?: "kept" | "fault"; all?: boolean } = {},
): { value: T } | { faults: { path: (string | number)[]; message: string; unknown: boolean }[] } {
  const checked = joi.validate(value, { convert: false, allowUnknown: unknown === "kept", abortEarly: !all });
  if (!checked.error) return { value: checked.value as T };
  return {
    faults: checked.error.details.map(({ path, message, type }) => ({
      path,
      message,
      unknown: type === "object.unknown",
    })),
  };
}
