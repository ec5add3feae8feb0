import type { ClearWay, Relearn } from "@core/pack/pack";
import { USUAL_RELEARN } from "@core/pack/make/clears";
import { Button } from "~/ui/Button";
import { Row } from "~/ui/bits";
import { between, figure } from "./figures";
import { LiveField, needed } from "./LiveField";
import { Columns } from "./layout";

/** What has to be learned anew after a clear, each with its time. */
export function RelearnFields({
  clear: c,
  keep,
  onTold,
}: {
  clear: ClearWay;
  keep: string;
  onTold: (c: ClearWay) => void;
}) {
  const all = c.relearn ?? [];
  const tell = (relearn: Relearn[]) => {
    const { relearn: _, ...rest } = c;
    onTold(relearn.length ? { ...rest, relearn } : rest);
  };
  const change = (r: Relearn, part: Partial<Relearn>) => tell(all.map((x) => (x === r ? { ...r, ...part } : x)));
  const free = Array.from({ length: 8 }, (_, i) => `learn-${i + 1}`).find((id) => !all.some((r) => r.id === id));
  return (
    <>
      {all.map((r) => (
        <div key={r.id} role="group" aria-label={`Learned anew: ${r.title}`} style={{ display: "grid", gap: 10 }}>
          <Columns>
            <LiveField
              label="Learned anew afterwards"
              keep={`${keep}/${r.id}/title`}
              value={r.title}
              maxLength={120}
              fault={needed("Write what it learns, such as idle.")}
              onStore={(title) => change(r, { title })}
            />
            <LiveField
              label="It takes, minutes at least"
              inputMode="decimal"
              keep={`${keep}/${r.id}/minutes`}
              value={String(r.seconds / 60)}
              maxLength={6}
              fault={between(0.1, 120)}
              onStore={(t) => change(r, { seconds: Math.round(figure(t) * 60) })}
            />
            <LiveField
              label="How"
              rows={2}
              keep={`${keep}/${r.id}/how`}
              value={r.how}
              maxLength={1000}
              fault={needed("Write how it is done.")}
              onStore={(how) => change(r, { how })}
            />
          </Columns>
          <Row>
            <Button
              $look="quiet"
              aria-label={`Take out what is learned anew: ${r.title}`}
              onPress={() => tell(all.filter((x) => x !== r))}
            >
              It learns nothing of this
            </Button>
          </Row>
        </div>
      ))}
      {free && all.length < 8 && (
        <Row>
          <Button $look="quiet" onPress={() => tell([...all, { ...USUAL_RELEARN, id: free }])}>
            Something has to be learned anew
          </Button>
        </Row>
      )}
    </>
  );
}
