import { useEffect, useMemo, useState } from "react";
import styled from "styled-components";
import { lampNamed } from "@core/pack/lamp-name";
import type { Pack } from "@core/pack/pack";
import { entriesFor, systemsOf, type SystemAccess } from "@core/pack/scope";
import type { Vehicle } from "@core/record/types";
import { displayOf, lampOf, outputsOf } from "@core/simulated/answers";
import { powered, READER_BUTTON, UNIT_BUTTON, type Simulated, type SimulatedAction } from "@core/simulated/state";
import { act } from "@core/simulated/vehicle";
import { clock } from "~/store/clock";
import { writeValue } from "~/store/values";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Caution, Plate, Row, Sheet, Soft } from "~/ui/bits";
import { middle, mono } from "~/ui/theme";
import { Joined } from "./Joined";
import { useLamp } from "./use-lamp";
import { useNow } from "./use-now";

const Page = styled.main`
  display: grid;
  gap: 16px;
  padding: 16px clamp(12px, 2vw, 24px) 32px;
  max-width: 1100px;
  margin: 0 auto;
  ${middle} {
    grid-template-columns: 1fr 1fr;
    > header,
    > [data-wide] {
      grid-column: 1 / -1;
    }
  }
`;

const Dash = styled.section`
  display: flex;
  gap: 20px;
  justify-content: center;
  padding: 26px 16px 18px;
  border-radius: 40px 40px 12px 12px;
  background: var(--band);
`;

const Lamp = styled.div`
  display: grid;
  justify-items: center;
  gap: 10px;
  width: min(150px, 38vw);
  ${mono}
  font-size: 0.7rem;
  color: #aebbc2;
  text-align: center;
  i {
    width: 58px;
    height: 36px;
    border-radius: 18px;
    background: #222c33;
    border: 2px solid #3a4a53;
  }
  &[data-lit="yes"] i {
    background: var(--lit);
    border-color: var(--lit);
    box-shadow: 0 0 26px 6px var(--lit-glow);
  }
`;

const Display = styled.output`
  ${mono}
  align-self: center;
  min-width: 6.5ch;
  padding: 10px 16px;
  border: 2px solid #3a4a53;
  border-radius: 8px;
  background: #06090b;
  color: #dfe8ea;
  font-size: 1.7rem;
  font-weight: 700;
  text-align: center;
`;

/** The vehicle as it goes on: kept, wiped over its serial line, driven. */
function useSimulated(vehicle: Vehicle, pack: Pack, first: Simulated) {
  const [v, setV] = useState(first);
  const [busy, setBusy] = useState<Busy>(null);
  const doIt = (action: SimulatedAction) => setV((s) => act(s, action, pack, vehicle, clock.now()));
  useEffect(() => {
    void writeValue(`simulated/${vehicle.id}`, v);
  }, [v, vehicle.id]);
  useEffect(() => {
    // A unit that was wiped over its serial line has forgotten here as well.
    const channel = new BroadcastChannel(`simulated/${vehicle.id}`);
    channel.onmessage = (e: MessageEvent<Simulated["memory"]>) => setV((s) => ({ ...s, memory: e.data }));
    return () => channel.close();
  }, [vehicle.id]);
  useEffect(() => {
    if (!busy) return;
    return clock.after(4000, () => {
      setV((s) => act(s, { do: busy }, pack, vehicle, clock.now()));
      setBusy(null);
    });
  }, [busy, pack, vehicle]);
  return { v, busy, setBusy, doIt };
}

type Busy = "drive" | "warm-up" | null;

/** The same object as long as it says the same: a record that is read anew starts no lamp anew. */
function useSame<T>(value: T): T {
  const [kept, keep] = useState(value);
  if (kept === value || JSON.stringify(kept) === JSON.stringify(value)) return kept;
  keep(value);
  return value;
}

/** What every part of the vehicle is given. */
interface Part {
  v: Simulated;
  pack: Pack;
  vehicle: Vehicle;
  systems: readonly SystemAccess[];
  doIt: (action: SimulatedAction) => void;
}

/**
 * A vehicle to try things on: key, engine, connectors, wire and reader, buttons, lamps, display, fuse, battery and road. It tells
 * nothing but what a real one would tell.
 */
export function SimulatedVehicle({
  vehicle: given,
  pack,
  name,
  state: first,
}: {
  vehicle: Vehicle;
  pack: Pack;
  name: string;
  state: Simulated;
}) {
  const vehicle = useSame(given);
  const { v, busy, setBusy, doIt } = useSimulated(vehicle, pack, first);
  const systems = useMemo(() => systemsOf(pack, vehicle), [pack, vehicle]);
  const part: Part = { v, pack, vehicle, systems, doIt };
  return (
    <Page id="work">
      <header>
        <Row>
          <Plate>{vehicle.plate}</Plate>
          <h1>Simulated {name}</h1>
        </Row>
        <Soft>
          Stands in for the real thing: it does what its key, wire and fuses make it do, and tells nothing else.
        </Soft>
      </header>
      <Instruments {...part} />
      <KeyAndRoad {...part} busy={busy} setBusy={setBusy} />
      <Power {...part} />
      <Repair {...part} />
      <Outputs {...part} />
      <Buttons {...part} />
      {pack.connectors.length > 0 && <Joined v={v} pack={pack} systems={systems} doIt={doIt} />}
    </Page>
  );
}

function Instruments({ v, pack, vehicle, systems }: Part) {
  // One lamp may serve several systems: it shows whatever one of them makes it do.
  const lamps = useMemo(() => {
    const shown = systems.filter((s) => s.way.tells.kind !== "text");
    return [...new Set(shown.map((s) => s.lamp))].map((lamp) => ({
      lamp,
      systems: shown.filter((s) => s.lamp === lamp).map((s) => s.system),
    }));
  }, [systems]);
  const shows = systems.some((s) => s.way.tells.kind === "text" || s.way.tells.kind === "modules");
  return (
    <Dash aria-label="Instruments" data-wide>
      {lamps.map(({ lamp, systems: of }) => (
        <OneLamp key={lamp} v={v} pack={pack} vehicle={vehicle} systems={of} label={lamp} />
      ))}
      {shows && <Dial v={v} pack={pack} vehicle={vehicle} />}
    </Dash>
  );
}

function Dial({ v, pack, vehicle }: Pick<Part, "v" | "pack" | "vehicle">) {
  const now = useNow(250);
  return (
    <Display aria-label="Display">{displayOf(v, pack, vehicle, now) ?? (v.key === "off" ? "" : "84 213")}</Display>
  );
}

function KeyAndRoad({ v, systems, doIt, busy, setBusy }: Part & { busy: Busy; setBusy: (busy: Busy) => void }) {
  const runs = systems.some((s) => s.way.engine === "running" || s.way.engineWarm);
  const tells = systems.find((s) => s.way.tells.kind === "lamp" && s.way.tells.act)?.way.tells;
  const toAct = tells?.kind === "lamp" ? tells.act : undefined;
  return (
    <Sheet>
      <Choice
        label="Key"
        value={v.key}
        isDisabled={busy !== null}
        onChange={(to) => doIt({ do: "key", to })}
        options={[
          { value: "off", label: "Off" },
          { value: "on", label: "On, engine off" },
          { value: "run", label: "Engine runs" },
        ]}
      />
      <Row>
        <Button isDisabled={busy !== null || Boolean(v.wire)} onPress={() => setBusy("drive")}>
          {busy === "drive" ? "Driving …" : "Drive for twenty minutes"}
        </Button>
        {runs && (
          <Button isDisabled={busy !== null} onPress={() => setBusy("warm-up")}>
            {busy === "warm-up" ? "Warming up …" : v.warm ? "The engine is warm" : "Let it warm up"}
          </Button>
        )}
        {toAct && v.key === "run" && <Button onPress={() => doIt({ do: "act" })}>Wheel, brake, throttle</Button>}
        {v.wire && <Soft>No drive with a wire in the connector.</Soft>}
      </Row>
    </Sheet>
  );
}

function Power({ v, pack, doIt }: Part) {
  // Each fuse that a way to clear names, and the one that people take for it.
  const named = pack.clears.filter((c) => c.kind === "fuse").map((c) => ({ id: c.id, name: c.title }));
  return (
    <Sheet>
      <h2>Power</h2>
      <Row>
        {[...named, { id: "wrong", name: "Pull another fuse" }].map((f) => {
          const out = v.fuseOutAt !== null && v.fuse === f.id;
          return (
            <Button
              key={f.id}
              aria-pressed={out}
              isDisabled={v.fuseOutAt !== null && !out}
              onPress={() => doIt({ do: "fuse", out: !out, way: f.id })}
            >
              {out ? `${f.name}: put it back` : f.name}
            </Button>
          );
        })}
        <Button
          aria-pressed={v.batteryOffAt !== null}
          onPress={() => doIt({ do: "battery", off: v.batteryOffAt === null })}
        >
          {v.batteryOffAt === null ? "Battery negative off" : "Battery negative on"}
        </Button>
        {v.blown && <Button onPress={() => doIt({ do: "new-fuse" })}>Fit a new unit fuse</Button>}
      </Row>
      {v.fuseOutAt !== null && <Since at={v.fuseOutAt} what="The fuse is out" />}
      {v.batteryOffAt !== null && <Since at={v.batteryOffAt} what="The battery is off" />}
      {v.blown && <Caution>There was a spark at the connector, and all is dark.</Caution>}
    </Sheet>
  );
}

function Repair({ v, pack, vehicle, systems, doIt }: Part) {
  const [mended, setMended] = useState("");
  const circuits = systems
    .filter((s) => s.memory === s.system)
    .flatMap((s) => {
      const entries = entriesFor(pack, vehicle, s.system);
      const here = v.faults.filter((f) => f.system === s.system).map((f) => f.code);
      // Those that are at fault stand among as many that are not: nobody is told.
      const others = entries.filter((e) => e.kind === "fault" && !here.includes(e.code)).slice(0, 3 + here.length);
      return entries
        .filter((e) => here.includes(e.code) || others.includes(e))
        .map((e) => ({ system: s.system, code: e.code, name: e.circuit }));
    });
  return (
    <Sheet>
      <h2>Repair</h2>
      <label style={{ display: "grid", gap: 6, minWidth: 0 }}>
        Mend a circuit: plug, wire or part
        <select
          style={{ minHeight: 48, minWidth: 0, maxWidth: "100%", padding: "0 10px" }}
          value=""
          onChange={(e) => {
            const [system, code] = e.target.value.split(" ");
            doIt({ do: "mend", system, code });
            setMended(circuits.find((c) => c.system === system && c.code === code)?.name ?? "");
          }}
        >
          <option value="">Pick one</option>
          {circuits.map((c) => (
            <option key={`${c.system} ${c.code}`} value={`${c.system} ${c.code}`}>
              {c.name}
            </option>
          ))}
        </select>
      </label>
      <Soft aria-live="polite">
        {mended ? `${mended}: mended. It doesn't say whether that was it.` : "What was not at fault can be mended too."}
      </Soft>
    </Sheet>
  );
}

function Outputs({ v, pack, vehicle }: Part) {
  const now = useNow(250);
  const outputs = outputsOf(v, pack, vehicle, now);
  return outputs.length === 0 ? null : (
    <Sheet>
      <h2>Heard and seen at key-on</h2>
      <ul>
        {outputs.map((o) => (
          <li key={o.id}>
            {o.name}: {v.key !== "off" && powered(v) ? (o.works ? o.expect : "done") : "nothing"}
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

function Buttons({ v, systems, doIt }: Part) {
  /** Buttons that stay down although the hand is elsewhere: two are held while the key is turned. */
  const [latched, setLatched] = useState<string[]>([]);
  const latch = (button: string) => {
    const on = latched.includes(button);
    setLatched(on ? latched.filter((b) => b !== button) : [...latched, button]);
    doIt({ do: on ? "up" : "down", button });
  };
  const buttons = [
    ...new Set(
      systems.flatMap(({ way }) => [
        ...(way.ask.kind === "buttons" ? way.ask.buttons : []),
        ...(way.tells.kind === "modules" ? [way.tells.nextSubmode, way.tells.nextModule] : []),
      ]),
    ),
  ];
  const held = systems.some((s) => s.way.ask.kind === "buttons");
  const asks = (kind: "unit-button" | "reader") => systems.some((s) => s.way.ask.kind === kind);
  const press = asks("unit-button") ? UNIT_BUTTON : asks("reader") ? READER_BUTTON : null;
  if (!buttons.length && !press) return null;
  return (
    <Sheet>
      <h2>Buttons</h2>
      <Row>
        {buttons.map((b) =>
          held && (!v.dash || latched.includes(b)) ? (
            <Button key={b} aria-pressed={latched.includes(b)} onPress={() => latch(b)}>
              {latched.includes(b) ? `Let ${b} go` : `Hold ${b}`}
            </Button>
          ) : (
            <Held key={b} name={b} doIt={doIt} />
          ),
        )}
        {press && <Held name={press} doIt={doIt} />}
      </Row>
      <Soft aria-live="polite">
        {Object.entries(v.down).map(([b, at]) => (
          <HeldFor key={b} name={b} at={at} />
        ))}
      </Soft>
    </Sheet>
  );
}

/** A button that is held as long as the hand is on it. */
function Held({ name, doIt }: { name: string; doIt: (action: SimulatedAction) => void }) {
  return (
    <Button onPressStart={() => doIt({ do: "down", button: name })} onPressEnd={() => doIt({ do: "up", button: name })}>
      {name}
    </Button>
  );
}

function OneLamp({
  v,
  pack,
  vehicle,
  systems,
  label,
}: {
  v: Simulated;
  pack: Pack;
  vehicle: Vehicle;
  systems: string[];
  label: string;
}) {
  const lamp = useMemo(() => {
    const all = systems.map((s) => lampOf(v, pack, vehicle, s));
    return (
      all.find((l) => l.kind === "show" || l.kind === "run") ??
      all.find((l) => l.kind === "blinks") ??
      all.find((l) => l.kind === "lit") ??
      all[0]
    );
  }, [v, pack, vehicle, systems]);
  const lit = useLamp(lamp);
  return (
    <Lamp data-lit={lit ? "yes" : "no"} data-system={systems[0]} role="img" aria-label={lampNamed(label)}>
      <i />
      {label}
    </Lamp>
  );
}

function HeldFor({ name, at }: { name: string; at: number }) {
  const now = useNow(250);
  return <> {`${name} is held for ${Math.max(0, Math.floor((now - at) / 1000))} s.`}</>;
}

function Since({ at, what }: { at: number; what: string }) {
  const now = useNow(500);
  return (
    <p role="timer">
      {what} for {Math.max(0, Math.floor((now - at) / 1000))} s.
    </p>
  );
}
