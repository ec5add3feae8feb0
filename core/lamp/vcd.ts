import type { Trace } from "./trace";

/** A lamp's timeline with the name under which it is written. */
export interface Signal {
  name: string;
  trace: Trace;
}

/**
 * Writes timelines as a value change dump (IEEE 1364, section 18): one wire a lamp, 1 where it is lit, times in ms. Names are
 * brought to letters, digits and underscores.
 */
export function writeVcd(signals: readonly Signal[], date: string): string {
  const id = (k: number) => String.fromCharCode(33 + k);
  const changes = signals
    .flatMap(({ trace }, k) => trace.edges.map(([t, lit]) => ({ t: Math.round(t), k, lit })))
    .sort((a, b) => a.t - b.t || a.k - b.k);
  const lines = [
    `$date ${date} $end`,
    "$version Klinko $end",
    "$timescale 1 ms $end",
    "$scope module lamps $end",
    ...signals.map(
      ({ name }, k) => `$var wire 1 ${id(k)} ${name.replace(/\W+/g, "_").replace(/^_+|_+$/g, "") || "lamp"} $end`,
    ),
    "$upscope $end",
    "$enddefinitions $end",
  ];
  let at = -1;
  for (const { t, k, lit } of changes) {
    if (t !== at) lines.push(`#${t}`);
    at = t;
    lines.push(`${lit}${id(k)}`);
  }
  const end = Math.round(Math.max(0, ...signals.map((s) => s.trace.until)));
  if (end > at) lines.push(`#${end}`);
  return lines.join("\n") + "\n";
}
