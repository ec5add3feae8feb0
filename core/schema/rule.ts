import type Joi from "joi";

/**
 * One rule gives the check at the border and the type inside: what is written once cannot drift apart. The type of a
 * rule is read off with {@link Of}; the check is Joi's.
 */
export interface Rule<T> {
  /** Its check, made when it is first asked for. @throws before Joi is there: see {@link rulesReady} */
  readonly joi: () => Joi.Schema;
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

/**
 * Joi itself. It is a third of all that a first visit would load, and a page that has nothing to check yet can be shown without: it comes
 * when there is something to check.
 */
let root: Joi.Root | null = null;

/** Where Joi is at hand from the start: in workers, on the server, in the command line tool. */
export function giveJoi(joi: Joi.Root): void {
  root = joi;
}

/** From then on rules can be held. */
export async function rulesReady(): Promise<void> {
  root ??= (await import("joi")).default;
}

/** A rule by a Joi schema of one's own. */
export const rule = <T>(make: (joi: Joi.Root) => Joi.Schema): Rule<T> => {
  let made: Joi.Schema | null = null;
  return {
    joi: () => {
      if (!root) throw new Error("A rule was asked for before Joi was loaded: await rulesReady() first.");
      return (made ??= make(root));
    },
  };
};

export const text = (max: number): Rule<string> => rule((joi) => joi.string().allow("").max(max));
export const word = (max: number): Rule<string> => rule((joi) => joi.string().min(1).max(max));
/** @param says how such a text looks, for whoever has to mend one */
export const pattern = (form: RegExp, says = ""): Rule<string> =>
  rule((joi) => {
    const own = joi.string().pattern(form, says);
    return form.test("") ? own.allow("") : own;
  });
export const time: Rule<string> = rule((joi) => joi.string().isoDate());
export const flag: Rule<boolean> = rule((joi) => joi.boolean());
/** Whatever there is. */
export const any: Rule<unknown> = rule((joi) => joi.any());
/** An object, whatever is in it. */
export const record: Rule<Record<string, unknown>> = rule((joi) => joi.object());
/** Something that a class made. */
export const instance = <T>(of: new (...args: never[]) => T): Rule<T> => rule((joi) => joi.object().instance(of));
export const number = (from = -Infinity, to = Infinity): Rule<number> => rule((joi) => bounded(joi.number(), from, to));
export const whole = (from = -Infinity, to = Infinity): Rule<number> =>
  rule((joi) => bounded(joi.number().integer(), from, to));

const bounded = (joi: Joi.NumberSchema, from: number, to: number) => {
  const low = Number.isFinite(from) ? joi.min(from) : joi;
  return Number.isFinite(to) ? low.max(to) : low;
};

export const oneOf = <const T extends readonly (string | number | boolean | null)[]>(...values: T): Rule<T[number]> =>
  rule((joi) => joi.valid(...values));

/** @param min, max how many; @param unique by which field no two are alike */
export const list = <T>(
  item: Rule<T>,
  { min = 0, max, unique }: { min?: number; max: number; unique?: string | true },
): Rule<T[]> =>
  rule((joi) => {
    const most = joi.array().items(item.joi()).max(max);
    const own = min > 0 ? most.min(min) : most;
    return unique === undefined ? own : unique === true ? own.unique() : own.unique(unique);
  });

/** Two values in order. */
export const pair = <A, B = A>(a: Rule<A>, b: Rule<B>): Rule<[A, B]> =>
  rule((joi) => joi.array().ordered(a.joi().required(), b.joi().required()).length(2));

/** Values by name. @param keys rule of the names */
export const map = <T>(keys: Rule<string>, value: Rule<T>): Rule<Record<string, T>> =>
  rule((joi) => joi.object().pattern(keys.joi(), value.joi()));

/** Numbers by the hundred thousand: gone through in one loop, since a rule for each would hold the page up. */
export const series = (max: number): Rule<number[]> =>
  rule((joi) =>
    joi
      .array()
      .max(max)
      .custom((value: unknown[]) => {
        if (!value.every((x) => typeof x === "number" && Number.isFinite(x))) throw new Error("not a row of numbers");
        return value;
      }),
  );

/** All fields are needed but those that are {@link optional}; one that is not named here is kept, or a fault, as the check asks. */
export const object = <F extends Fields>(fields: F): Rule<ObjectOf<F>> & { fields: F } => ({
  fields,
  ...rule((joi) =>
    joi.object(
      Object.fromEntries(
        Object.entries(fields).map(([name, f]) => [name, "missable" in f ? f.joi() : needed(f.joi())]),
      ),
    ),
  ),
});

/** What has a value of its own when it is missing need not be there. */
const needed = (joi: Joi.Schema) => (joi.$_getFlag("default") === undefined ? joi.required() : joi);

export const optional = <T>({ joi }: Rule<T>): Missable<T> => ({ joi, missable: true });
export const nullable = <T>({ joi }: Rule<T>): Rule<T | null> => rule(() => joi().allow(null));

/** What is missing has this value: so a record of an older version opens. */
export const otherwise = <T>({ joi }: Rule<T>, value: T): Rule<T> =>
  rule(() => joi().default(() => structuredClone(value)));

/** One of several. */
export const either = <const R extends readonly Rule<unknown>[]>(...rules: R): Rule<Of<R[number]>> =>
  rule((joi) =>
    joi
      .alternatives()
      .try(...rules.map((r) => r.joi()))
      .match("one"),
  );

type Kinds<K extends Record<string, Rule<object>>> = { [N in keyof K]: Flat<{ kind: N } & Of<K[N]>> }[keyof K];

/** One of several shapes, told apart by their field `kind`, so that a fault names the field and not all of them. */
export const byKind = <K extends Record<string, Rule<object>>>(kinds: K): Rule<Kinds<K>> =>
  rule((joi) =>
    joi.object({ kind: joi.valid(...Object.keys(kinds)).required() }).when(".kind", {
      switch: Object.entries(kinds).map(([is, of]) => ({ is, then: of.joi() })),
    }),
  );

/** A rule that looks at the whole. @param fault what is wrong, or null */
export const also = <T>({ joi }: Rule<T>, fault: (value: T) => string | null): Rule<T> =>
  rule(() =>
    joi().custom((value: T, helpers): unknown => {
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
  const checked = joi().validate(value, { convert: false, allowUnknown: unknown === "kept", abortEarly: !all });
  if (!checked.error) return { value: checked.value as T };
  return {
    faults: checked.error.details.map(({ path, message, type }) => ({
      path,
      message,
      unknown: type === "object.unknown",
    })),
  };
}
