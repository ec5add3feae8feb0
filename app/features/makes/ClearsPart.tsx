import type { ClearWay, CostId, Proving, System } from "@core/pack/pack";
import { told } from "@core/pack/assumed";
import { withClears, withNewClear } from "@core/pack/make/build";
import { COST_WORDS, type ClearKind } from "@core/pack/make/clears";
import { useEdit, useMake } from "~/store/use-make";
import { Button } from "~/ui/Button";
import { Choices } from "~/ui/Choice";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { LiveField, needed } from "./LiveField";
import { CountFields } from "./CountFields";
import { MonitorFields } from "./MonitorFields";
import { RelearnFields } from "./RelearnFields";
import { RideFields } from "./RideFields";
import { NextPart } from "./NextPart";
import { Columns } from "./layout";

const COSTS: Record<CostId, string> = {
  "radio-code": "Radio code",
  immobiliser: "Immobiliser keys",
  clock: "Clock and presets",
  "learned-idle": "Learned idle",
  readiness: "Readiness monitors",
  time: "It takes long",
};
const COST_IDS = Object.keys(COSTS) as CostId[];

const SECONDS: Record<ClearWay["does"], string> = {
  hold: "Hold it, seconds",
  off: "Keep it off, seconds",
  "step-through": "It takes, seconds",
  drive: "It takes at least, seconds",
  count: "The engine runs each time, seconds at least",
};

/** How codes are wiped, what that costs, and how it is driven before a re-read counts. */
export function ClearsPart() {
  const { pack } = useMake();
  const { edit, problem } = useEdit(pack);
  const [system] = pack.systems;
  const { ride } = pack.proving;
  const press = pack.ways.some((w) => "readSeconds" in w.ask);
  const store = (clears: ClearWay[]) => edit((p) => withClears(p, clears));
  const prove = (part: Partial<Proving>) => edit((p) => told({ ...p, proving: { ...p.proving, ...part } }, "proving"));
  const add = (kind: ClearKind) => edit((p) => withNewClear(p, kind, system.id));
  return (
    <>
      <h1>How are codes wiped?</h1>
      {pack.clears.map((c) => (
        <OneClear
          key={c.id}
          clear={c}
          systems={pack.systems}
          keep={`make/${pack.id}/${c.id}`}
          onTold={(next) => store(pack.clears.map((o) => (o.id === c.id ? next : o)))}
          onRemove={() => store(pack.clears.filter((o) => o.id !== c.id))}
        />
      ))}
      {pack.clears.length === 0 && (
        <Soft>None is told yet. Without one the job reads and explains, and does not clear.</Soft>
      )}
      <Row>
        <Button onPress={() => add("fuse")}>By a fuse</Button>
        <Button onPress={() => add("battery")}>By the battery</Button>
        <Button onPress={() => add("adapter")}>By an adapter</Button>
        <Button onPress={() => add("rides")}>By rides</Button>
        <Button onPress={() => add("starts")}>By starts</Button>
        {press && <Button onPress={() => add("button")}>By the button</Button>}
      </Row>
      <Sheet>
        <h2>Before a re-read counts</h2>
        <LiveField
          label="How it is driven"
          rows={2}
          keep={`make/${pack.id}/drive`}
          value={pack.proving.drive}
          maxLength={1000}
          fault={needed("Write how it is driven, such as 15 minutes with a warm engine.")}
          onStore={(drive) => prove({ drive })}
        />
        <Columns>
          {!ride && (
            <LiveField
              label="Minutes of driving"
              inputMode="numeric"
              keep={`make/${pack.id}/minutes`}
              value={String(pack.proving.driveMinutes ?? 15)}
              maxLength={3}
              fault={(t) => (Number(t) >= 1 && Number(t) <= 600 ? null : "Between 1 and 600 minutes.")}
              onStore={(t) => prove({ driveMinutes: Math.round(Number(t)) })}
            />
          )}
          <LiveField
            label="Minutes of idle"
            inputMode="numeric"
            keep={`make/${pack.id}/idle`}
            value={String(pack.proving.idleMinutes)}
            maxLength={3}
            fault={(t) => (/^\d+$/.test(t) && Number(t) <= 120 ? null : "Up to 120 minutes.")}
            onStore={(t) => prove({ idleMinutes: Number(t) })}
          />
        </Columns>
        {ride ? (
          <RideFields
            ride={ride}
            of="Rides that it takes"
            keep={`make/${pack.id}/proving`}
            onTold={(r) => prove({ ride: r, driveMinutes: Math.max(1, Math.round(r.seconds / 60)) })}
          />
        ) : (
          <Row>
            <Button
              $look="quiet"
              onPress={() => prove({ ride: { seconds: (pack.proving.driveMinutes ?? 15) * 60, rides: 1 } })}
            >
              A ride has to hold more than that
            </Button>
          </Row>
        )}
      </Sheet>
      <MonitorFields />
      <Trouble problem={problem} />
      <NextPart after="clears" />
    </>
  );
}

function OneClear({
  clear: c,
  systems,
  keep,
  onTold,
  onRemove,
}: {
  clear: ClearWay;
  systems: readonly System[];
  keep: string;
  onTold: (clear: ClearWay) => void;
  onRemove: () => void;
}) {
  const trap = (text: string) => {
    const { trap: _, ...rest } = c;
    onTold(text ? { ...rest, trap: text } : rest);
  };
  const short = c.does === "off" ? "Off too briefly wipes nothing; longer does no harm." : "";
  return (
    <Sheet>
      <Columns>
        <LiveField
          label="Way to clear"
          keep={`${keep}/title`}
          value={c.title}
          maxLength={120}
          fault={needed("Write what is done.")}
          onStore={(title) => onTold({ ...c, title })}
        />
        {!c.ride && (
          <LiveField
            label={SECONDS[c.does]}
            description={short}
            inputMode="numeric"
            keep={`${keep}/seconds`}
            value={String(c.seconds)}
            maxLength={4}
            fault={(t) => (Number(t) >= 1 && Number(t) <= 7200 ? null : "Between 1 and 7200 seconds.")}
            onStore={(t) => onTold({ ...c, seconds: Number(t) })}
          />
        )}
        <LiveField
          label={c.kind === "fuse" ? "Which fuse, and where" : "What is done"}
          rows={2}
          keep={`${keep}/what`}
          value={c.what}
          maxLength={1000}
          fault={needed("Write what is pulled or held, and where.")}
          onStore={(what) => onTold({ ...c, what })}
        />
        <LiveField
          label="The usual mistake"
          rows={2}
          keep={`${keep}/trap`}
          value={c.trap ?? ""}
          maxLength={1000}
          onStore={trap}
        />
      </Columns>
      <CountFields clear={c} keep={keep} onTold={onTold} />
      {systems.length > 1 && (
        <Choices
          label="Whose codes it wipes"
          options={systems.map((s) => s.name)}
          value={systems.filter((s) => (c.wipes ?? [c.system]).includes(s.id)).map((s) => s.name)}
          onChange={(on) => {
            const ids = systems.filter((s) => on.includes(s.name)).map((s) => s.id);
            const { wipes: _, ...one } = c;
            const system = ids.includes(c.system) ? c.system : ids[0];
            if (system) onTold(ids.length > 1 ? { ...one, system, wipes: ids } : { ...one, system });
          }}
        />
      )}
      <Choices
        label="What it costs"
        options={COST_IDS.map((id) => COSTS[id])}
        value={c.costs.map((x) => COSTS[x.id])}
        onChange={(on) =>
          onTold({
            ...c,
            costs: COST_IDS.filter((id) => on.includes(COSTS[id])).map(
              (id) => c.costs.find((x) => x.id === id) ?? { id, text: COST_WORDS[id] },
            ),
          })
        }
      />
      <RelearnFields clear={c} keep={keep} onTold={onTold} />
      {c.caution && <Caution>{c.caution}</Caution>}
      <Row>
        <Button $look="quiet" aria-label={`Take out: ${c.title}`} onPress={onRemove}>
          Take it out
        </Button>
      </Row>
    </Sheet>
  );
}
