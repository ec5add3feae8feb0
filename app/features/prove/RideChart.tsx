import { Area, ComposedChart, Line, ReferenceLine, XAxis, YAxis } from "recharts";
import { KMH } from "@core/logs/log";
import { speedText, type Told } from "@core/proving/told";
import type { Drawn } from "@core/proving/drawn";
import { ChartBox } from "~/ui/ChartBox";

/** Speed over a ride with the limit, what counts filled. Loaded only where a log was read. */
export default function RideChart({
  of,
  limit,
  unit,
  says,
}: {
  of: Drawn;
  limit: number | null;
  unit: Told["speed"];
  says: string;
}) {
  const told = (v: number | null) => (v === null ? null : v / KMH[unit]);
  const points = of.minute.map((m, i) => ({ m, v: told(of.kmh[i]), c: told(of.counted[i]) }));
  return (
    <ChartBox says={`Speed over the ride. It ${says}`} height={180}>
      <ComposedChart data={points} margin={{ top: 8, right: 12, bottom: 0, left: 0 }}>
        <XAxis
          dataKey="m"
          type="number"
          domain={["dataMin", "dataMax"]}
          unit=" min"
          stroke="var(--ink-soft)"
          tickFormatter={(m: number) => String(Math.round(m))}
        />
        <YAxis width={56} stroke="var(--ink-soft)" tickFormatter={(v: number) => String(Math.round(v))} />
        <Area
          dataKey="c"
          stroke="none"
          fill="var(--petrol)"
          fillOpacity={0.35}
          isAnimationActive={false}
          connectNulls={false}
        />
        <Line
          dataKey="v"
          stroke="var(--petrol)"
          strokeWidth={2}
          dot={false}
          isAnimationActive={false}
          connectNulls={false}
        />
        {limit !== null && (
          <ReferenceLine
            y={limit / KMH[unit]}
            stroke="var(--ink)"
            strokeDasharray="6 4"
            label={{ value: speedText(limit, { speed: unit }), position: "insideTopRight", fill: "var(--ink)" }}
          />
        )}
      </ComposedChart>
    </ChartBox>
  );
}
