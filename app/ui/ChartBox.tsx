import type { ReactElement } from "react";
import { ResponsiveContainer } from "recharts";

/** The place of a chart, as wide as there is room; in words for who does not see it. */
export const ChartBox = ({ says, height, children }: { says: string; height: number; children: ReactElement }) => (
  <div role="img" aria-label={says}>
    <ResponsiveContainer width="100%" height={height} initialDimension={{ width: 600, height }}>
      {children}
    </ResponsiveContainer>
  </div>
);
