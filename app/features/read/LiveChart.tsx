import { Line, LineChart, Tooltip, XAxis, YAxis } from "recharts";
import { ChartBox } from "~/ui/ChartBox";

/** One value over time. Loaded only where live data is shown. */
export default function LiveChart({
  points,
  unit,
  name,
}: {
  points: readonly { t: number; v: number }[];
  unit: string;
  name: string;
}) {
  return (
    <ChartBox says={`${name} over the last ${Math.round(points.at(-1)?.t ?? 0)} seconds`} height={200}>
      <LineChart data={[...points]} margin={{ top: 8, right: 16, bottom: 4, left: 0 }}>
        <XAxis
          dataKey="t"
          type="number"
          domain={["dataMin", "dataMax"]}
          unit=" s"
          stroke="var(--ink-soft)"
          tickFormatter={(t: number) => String(Math.round(t))}
        />
        <YAxis domain={["auto", "auto"]} width={64} stroke="var(--ink-soft)" />
        <Tooltip
          formatter={(v) => [`${Number(v).toFixed(2)} ${unit}`, name]}
          labelFormatter={(t) => `${Math.round(Number(t))} s`}
        />
        <Line dataKey="v" stroke="var(--petrol)" strokeWidth={2.5} dot={false} isAnimationActive={false} />
      </LineChart>
    </ChartBox>
  );
}
