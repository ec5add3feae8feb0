import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import type { Dialect } from "@core/flash/dialect/dialect";
import { encode } from "@core/flash/dialect/encode";
import { Play } from "lucide-react";
import { clock } from "~/store/clock";
import { Button } from "~/ui/Button";
import { Row, Soft } from "~/ui/bits";

const Band = styled.svg`
  display: block;
  width: 100%;
  height: 46px;
  border-radius: 8px;
  background: var(--band);
`;

const Bulb = styled.span<{ $lit: boolean }>`
  flex: none;
  width: 48px;
  height: 48px;
  border-radius: 50%;
  border: 3px solid var(--band-line);
  background: ${({ $lit }) => ($lit ? "var(--lit)" : "var(--band)")};
  box-shadow: ${({ $lit }) => ($lit ? "0 0 18px var(--lit-glow)" : "none")};
`;

/** So much of a show is drawn, ms. */
const DRAWN_MS = 16_000;

/** What the lamp does with one code stored: a round of it to true time, and played where somebody asks for it. */
export function LampDemo({ dialect, code }: { dialect: Dialect; code: string }) {
  const { spans, until } = useMemo(() => showOf(dialect, code), [dialect, code]);
  const [from, setFrom] = useState<number | null>(null);
  const [lit, setLit] = useState(false);
  const rest = dialect.rest === "lit";
  useEffect(() => {
    if (from === null) return;
    const calls = spans.flatMap(([a, b]) => [
      clock.after(Math.max(0, from + a - clock.now()), () => setLit(!rest)),
      clock.after(Math.max(0, from + b - clock.now()), () => setLit(rest)),
    ]);
    calls.push(clock.after(Math.max(0, from + until - clock.now()), () => setFrom(null)));
    return () => calls.forEach((off) => off());
  }, [from, spans, until, rest]);
  const shown = from === null ? rest : lit;
  return (
    <div style={{ display: "grid", gap: 8 }}>
      <Row>
        <Bulb $lit={shown} aria-hidden />
        <Button onPress={() => (setLit(rest), setFrom(from === null ? clock.now() : null))}>
          <Play size={18} aria-hidden /> {from === null ? `Blink code ${code}` : "Stop"}
        </Button>
      </Row>
      <Band
        viewBox={`0 0 ${until} 46`}
        preserveAspectRatio="none"
        role="img"
        aria-label={`How code ${code} looks in time`}
      >
        {rest && <rect x={0} y={12} width={until} height={22} fill="var(--lit)" />}
        {spans.map(([a, b]) => (
          <rect key={a} x={a} y={12} width={b - a} height={22} fill={rest ? "var(--band)" : "var(--lit)"} />
        ))}
      </Band>
      <Soft>{(until / 1000).toFixed(0)} seconds, from left to right.</Soft>
    </div>
  );
}

/** When the lamp is away from its rest, for a round with one code. */
function showOf(dialect: Dialect, code: string): { spans: [number, number][]; until: number } {
  // By a button each code stands alone.
  const alone =
    dialect.advance === "button"
      ? { ...dialect, gaps: { ...dialect.gaps, code: 3000, repeat: 3000, pass: 3000 } }
      : dialect;
  const edges = encode(alone, { stored: [code] }, DRAWN_MS);
  const spans: [number, number][] = [];
  const rest = dialect.rest === "lit" ? 1 : 0;
  for (const [i, [t, state]] of edges.entries())
    if (state !== rest) spans.push([t, Math.min(edges[i + 1]?.[0] ?? DRAWN_MS, DRAWN_MS)]);
  const last = spans.at(-1)?.[1] ?? 1000;
  return { spans, until: dialect.loopFrom === null ? Math.min(DRAWN_MS, last + 1500) : DRAWN_MS };
}
