/**
 * What of the settings the first picture of a page must know: it stands in cookies, so that the server has it, and at the root of the page,
 * where the style sheet and the dates look for it.
 */
const LOOKS = {
  theme: ["light", "dark"],
  type: ["large"],
  hand: ["right"],
  dates: ["iso", "month-first", "day-first"],
} as const;
type Look = keyof typeof LOOKS;
const NAMES = Object.keys(LOOKS) as Look[];
const YEAR_S = 31_536_000;

/** What cookies tell; whatever is not one of the values is left out. */
export function looksIn(cookies: string): Partial<Record<Look, string>> {
  const told = NAMES.flatMap((name) => {
    const value = new RegExp(`(?:^|;\\s*)klinko-${name}=([a-z-]+)`).exec(cookies)?.[1];
    return (LOOKS[name] as readonly string[]).includes(value ?? "") ? [[name, value!] as const] : [];
  });
  return Object.fromEntries(told);
}

/** The same as attributes of the page's root. */
export const asAttributes = (looks: Partial<Record<Look, string>>): Record<string, string> =>
  Object.fromEntries(Object.entries(looks).map(([name, value]) => [`data-${name}`, value]));

/** Takes a look over at once, and keeps it for the next page. One that is as usual is not kept. */
export function takeLooks(settings: Record<Look, string>): void {
  for (const name of NAMES) {
    const own = (LOOKS[name] as readonly string[]).includes(settings[name]) ? settings[name] : "";
    document.cookie = `klinko-${name}=${own}; path=/; max-age=${own ? YEAR_S : 0}; samesite=lax`;
    if (own) document.documentElement.dataset[name] = own;
    else delete document.documentElement.dataset[name];
  }
}
