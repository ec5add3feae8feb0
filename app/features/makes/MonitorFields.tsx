import type { Monitor, Proving } from "@core/pack/pack";
import { told } from "@core/pack/assumed";
import { useEdit, useMake } from "~/store/use-make";
import { Button } from "~/ui/Button";
import { Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { wholeBetween } from "./figures";
import { LiveField, needed } from "./LiveField";
import { Columns } from "./layout";

const MOST = 16;
const NEW: Omit<Monitor, "id"> = { name: "Monitor", needs: "A drive as usual.", drives: [1, 3] };

/** Readiness of later vehicles: the monitors with what each needs, and from which year on codes may be permanent. */
export function MonitorFields() {
  const { pack } = useMake();
  const { edit, problem } = useEdit(pack);
  const all = pack.proving.monitors ?? [];
  const prove = (to: (p: Proving) => Proving) => edit((p) => told({ ...p, proving: to(p.proving) }, "proving"));
  const tell = (monitors: Monitor[]) =>
    prove(({ monitors: _, ...rest }) => (monitors.length ? { ...rest, monitors } : rest));
  const change = (m: Monitor, part: Partial<Monitor>) => tell(all.map((x) => (x.id === m.id ? { ...m, ...part } : x)));
  const free = Array.from({ length: MOST }, (_, i) => `monitor-${i + 1}`).find((id) => !all.some((m) => m.id === id));
  const keep = `make/${pack.id}/monitors`;
  return (
    <Sheet>
      <h2>Ready for inspection</h2>
      <Soft>
        Only later vehicles have monitors. From how many drives each needs the job tells when it is likely ready.
      </Soft>
      {all.map((m) => (
        <div key={m.id} role="group" aria-label={`Monitor: ${m.name}`} style={{ display: "grid", gap: 10 }}>
          <Columns>
            <LiveField
              label="Monitor"
              keep={`${keep}/${m.id}/name`}
              value={m.name}
              maxLength={120}
              fault={needed("Write its name, such as Catalyst.")}
              onStore={(name) => change(m, { name })}
            />
            <LiveField
              label="What it needs"
              keep={`${keep}/${m.id}/needs`}
              value={m.needs}
              maxLength={1000}
              fault={needed("Write how it is driven for it.")}
              onStore={(needs) => change(m, { needs })}
            />
            <LiveField
              label="Drives, at least"
              inputMode="numeric"
              keep={`${keep}/${m.id}/least`}
              value={String(m.drives[0])}
              maxLength={2}
              fault={wholeBetween(1, 60)}
              onStore={(t) => change(m, { drives: [Number(t), Math.max(Number(t), m.drives[1])] })}
            />
            <LiveField
              label="Drives, where it takes long"
              inputMode="numeric"
              keep={`${keep}/${m.id}/most`}
              value={String(m.drives[1])}
              maxLength={2}
              fault={wholeBetween(m.drives[0], 60)}
              onStore={(t) => change(m, { drives: [m.drives[0], Number(t)] })}
            />
          </Columns>
          <Row>
            <Button
              $look="quiet"
              aria-label={`Take out: ${m.name}`}
              onPress={() => tell(all.filter((x) => x.id !== m.id))}
            >
              Take it out
            </Button>
          </Row>
        </div>
      ))}
      {free && (
        <Row>
          <Button onPress={() => tell([...all, { id: free, ...NEW }])}>Add a monitor</Button>
        </Row>
      )}
      <LiveField
        label="Codes can be permanent from model year"
        description="Empty where none are"
        inputMode="numeric"
        keep={`make/${pack.id}/permanent`}
        value={String(pack.proving.permanentFrom ?? "")}
        maxLength={4}
        fault={(t) => (t.trim() === "" ? null : wholeBetween(1950, 2035)(t))}
        onStore={(t) =>
          prove(({ permanentFrom: _, ...rest }) => (t.trim() ? { ...rest, permanentFrom: Number(t) } : rest))
        }
      />
      <Trouble problem={problem} />
    </Sheet>
  );
}
