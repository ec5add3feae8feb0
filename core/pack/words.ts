import Joi from "joi";

/** Text in a pack is text: what looks like markup or holds control characters is refused, wherever it would be shown. */
const plain = Joi.string().pattern(/^(?!.*<[a-z!/?])[^\p{Cc}\p{Co}\p{Cn}]*$/iu, "plain text without markup");

export const id = Joi.string().pattern(/^[a-z0-9][a-z0-9-]{0,39}$/, "small letters, digits and dashes");
export const line = plain.min(1).max(200);
export const text = plain.min(1).max(1000);
export const list = (items: Joi.Schema, max: number) => Joi.array().items(items).max(max).required();
