import { format } from "date-fns";
import { ReferenceLine, Scatter, ScatterChart, XAxis, YAxis } from "recharts";
import type { HistoryEvent } from "@core/job/history";
import { ChartBox } from "~/ui/ChartBox";

const DAY = 86_400_000;
/** Room on either side, so that what lies at an end is seen whole: a share of it all, and an hour at least, ms. */
const EDGE = { share: 0.04, least: DAY / 24 };

/** How a moment is named along a stretch so long, ms. */
const formOf = (span: number): string => (span > 300 * DAY ? "MMM yy" : span > 4 * DAY ? "d MMM" : "d MMM HH:mm");

/** Each code in a row of its own, a dot for each reading that showed it; clears as lines across. Loaded only where it is shown. */
export default function CodeChart({ events }: { events: readonly HistoryEvent[] }) {
  const read = events.filter((e) => e.kind === "codes");
  const codes = [...new Set(read.flatMap((e) => e.codes))].sort((a, b) => Number(a) - Number(b));
  const points = read.flatMap((e) => e.codes.map((code) => ({ at: Date.parse(e.at), row: codes.indexOf(code) })));
  const clears = events.filter((e) => e.kind === "clear").map((e) => Date.parse(e.at));
  const all = [...points.map((p) => p.at), ...clears];
  const [first, last] = [Math.min(...all), Math.max(...all)];
  const edge = Math.max(EDGE.least, EDGE.share * (last - first));
  const [from, to] = [first - edge, last + edge];
  const says = codes
    .map((code, row) => {
      const on = points.filter((p) => p.row === row).map((p) => format(p.at, "d MMM yyyy"));
      return `${code}: ${[...new Set(on)].join(", ")}`;
    })
    .join(". ");
  const form = formOf(to - from);
  return (
    <ChartBox says={`Codes by date. ${says}. ${clears.length} clears.`} height={70 + 34 * codes.length}>
      <ScatterChart margin={{ top: 8, right: 24, bottom: 4, left: 0 }}>
        <XAxis
          dataKey="at"
          type="number"
          domain={[from, to]}
          tickCount={4}
          minTickGap={24}
          stroke="var(--ink-soft)"
          tickFormatter={(t: number) => format(t, form)}
        />
        <YAxis
          dataKey="row"
          type="number"
          domain={[-0.5, codes.length - 0.5]}
          ticks={codes.map((_, i) => i)}
          interval={0}
          width={64}
          reversed
          stroke="var(--ink-soft)"
          tickFormatter={(i: number) => codes[i] ?? ""}
        />
        {clears.map((at) => (
          <ReferenceLine key={at} x={at} stroke="var(--ink-soft)" strokeDasharray="6 4" />
        ))}
        <Scatter data={points} fill="var(--petrol)" isAnimationActive={false} />
      </ScatterChart>
    </ChartBox>
  );
}
