import { useState } from "react";
import styled from "styled-components";
import { assumedOf, assumedOfAny } from "@core/pack/assumed";
import { withPlug, type Join } from "@core/pack/make/build";
import { endsOf, namesBy } from "@core/pack/make/parts";
import { laidOut, namesFault, rowsOf, usualNames, withCavity } from "@core/pack/make/plug";
import { PLACE_WORDS } from "@core/pack/find";
import { PLACES, READY_SHAPES, type Cavity, type CavityRole, type Connector, type Place } from "@core/pack/pack";
import { connectorIdOf, leadsOf, type Way } from "@core/pack/way";
import { useEdit, useMake } from "~/store/use-make";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Row, Sheet, Soft, Stack } from "~/ui/bits";
import { ConnectorView, type Side } from "~/ui/connector/ConnectorView";
import { Trouble } from "~/ui/Trouble";
import { FaceDraw } from "./FaceDraw";
import { LiveField, needed } from "./LiveField";
import { NextPart } from "./NextPart";
import { wide } from "~/ui/theme";
import { Beside, Columns } from "./layout";

const SHAPE_WORDS: Record<Connector["shape"], string> = {
  block: "Block",
  "round-ended": "Round ends",
  round: "Round",
  trapezoid: "Trapezoid",
  own: "Drawn",
};

const ROLES: readonly { value: CavityRole; label: string }[] = [
  { value: "unknown", label: "Not known" },
  { value: "test", label: "Test line" },
  { value: "ground", label: "Ground" },
  { value: "power", label: "Battery or ignition" },
  { value: "airbag", label: "Airbag" },
  { value: "signal", label: "Another signal" },
  { value: "empty", label: "Empty" },
];

/** The plug: its face with the names as they stand on it, what each cavity carries, and which two are joined. */
export function PlugPart() {
  const { pack } = useMake();
  const { edit, problem } = useEdit(pack);
  const at = pack.ways.filter((w) => connectorIdOf(w));
  const plugs = pack.connectors.filter((c) => at.some((w) => connectorIdOf(w) === c.id));
  return (
    <>
      <h1>What does the plug look like?</h1>
      {plugs.map((plug) => (
        <OnePlug key={plug.id} plug={plug} onTold={(now, join) => edit((p) => withPlug(p, now, join))} />
      ))}
      <Trouble problem={problem} />
      {assumedOfAny(pack, "plug", at) ? (
        <Soft>Write the names as they stand on the plug, and say what is joined.</Soft>
      ) : (
        <NextPart after="plug" />
      )}
    </>
  );
}

/** Tells of a plug, and where somebody has said so, which two of its cavities a way joins. */
type Tell = (plug: Connector, join?: Join) => void;

const isReader = (way: Way): boolean => way.ask.kind === "reader";

function OnePlug({ plug, onTold }: { plug: Connector; onTold: Tell }) {
  const { pack } = useMake();
  const ways = pack.ways.filter((w) => connectorIdOf(w) === plug.id);
  const isAssumed = (w: Way) => assumedOf(pack, w).includes("plug");
  const [side, setSide] = useState<Side>("socket");
  const [drawn, setDrawn] = useState(ways[0].id);
  const way = ways.find((w) => w.id === drawn) ?? ways[0];
  const assumed = isAssumed(way);
  /** What nobody has said of it yet is only a place where something stands in. */
  const standsIn = (id: string) =>
    ways.some((w) => isAssumed(w) && endsOf(w).includes(id)) &&
    !ways.some((w) => !isAssumed(w) && endsOf(w).includes(id));
  const known = ways.filter((w) => !isAssumed(w));
  const [picked, setPicked] = useState(endsOf(way)[0]);
  const cavity = plug.cavities.find((c) => c.id === picked) ?? plug.cavities[0];
  const keep = (field: string) => `make/${pack.id}/${plug.id}/${field}`;
  const [drawing, setDrawing] = useState(false);
  return (
    <Beside>
      <Stack>
        <Face plug={plug} keep={keep} onTold={onTold} />
        {drawing ? (
          <FaceDraw
            key={plug.cavities.map((c) => c.id).join()}
            plug={plug}
            keep={keep("face")}
            onTake={(now) => {
              setDrawing(false);
              onTold(now);
            }}
            onLeave={() => setDrawing(false)}
          />
        ) : (
          <Row>
            <Button onPress={() => setDrawing(true)}>Draw its face, or use a photo</Button>
          </Row>
        )}
        {ways.map((w) => (
          <Joined
            key={w.id}
            plug={plug}
            way={w}
            several={ways.length > 1}
            last={w === ways.at(-1)}
            assumed={isAssumed(w)}
            onTold={onTold}
          />
        ))}
      </Stack>
      <Drawing>
        {ways.length > 1 && (
          <Choice
            label="Way in"
            value={way.id}
            onChange={setDrawn}
            options={ways.map((w) => ({ value: w.id, label: `${namesBy(pack, w.id)}: ${w.title}` }))}
          />
        )}
        <Choice
          label="Seen from"
          value={side}
          onChange={setSide}
          options={[
            { value: "socket", label: "Into the socket" },
            { value: "wire", label: "The wire side" },
          ]}
        />
        <ConnectorView
          connector={plug}
          side={side}
          wire={way.ask.kind === "bridge" && !assumed ? way.ask.bridge : null}
          leads={assumed ? {} : leadsOf(way)}
          onCavity={setPicked}
        />
        <Choice
          label="What a cavity carries: touch it, or pick it here"
          value={cavity.id}
          onChange={setPicked}
          options={plug.cavities.map((c) => ({ value: c.id, label: c.id }))}
        />
        {standsIn(cavity.id) ? (
          <Soft>First say which two are joined.</Soft>
        ) : (
          <OneCavity plug={plug} cavity={cavity} ways={known} keep={keep(`wire-${cavity.id}`)} onTold={onTold} />
        )}
      </Drawing>
    </Beside>
  );
}

const Drawing = styled(Sheet)`
  ${wide} {
    position: sticky;
    top: 12px;
  }
`;

/** Its face: names as they stand on it, shape, notch, where it is. */
function Face({ plug, keep, onTold }: { plug: Connector; keep: (field: string) => string; onTold: Tell }) {
  const rows = rowsOf(plug);
  const names = (text: string) => onTold(laidOut(plug, text));
  return (
    <Sheet>
      <Columns>
        <LiveField
          label="Cavity names, row by row"
          description="As you look into the socket. A dash for a place without a cavity."
          rows={Math.max(3, rows.split("\n").length + 1)}
          keep={keep("names")}
          value={rows}
          fault={namesFault}
          onStore={names}
        />
        <Quick onRows={names} />
      </Columns>
      <Columns>
        <Choice
          label="Shape"
          value={plug.shape}
          options={[...READY_SHAPES, ...(plug.outline ? (["own"] as const) : [])].map((s) => ({
            value: s,
            label: SHAPE_WORDS[s],
          }))}
          onChange={(shape) => {
            if (shape === "own") return;
            const { outline: _, ...rest } = plug;
            onTold({ ...rest, shape });
          }}
        />
        <Choice
          label="Notch or key"
          value={plug.notch}
          options={(["none", "top", "bottom", "left", "right"] as const).map((n) => ({
            value: n,
            label: n === "none" ? "None" : `At the ${n}`,
          }))}
          onChange={(notch) => onTold({ ...plug, notch })}
        />
        <LiveField
          label="Where it is"
          keep={keep("where")}
          value={plug.where}
          rows={2}
          maxLength={400}
          fault={needed("Write where to look for it.")}
          onStore={(where) => onTold({ ...plug, where })}
        />
        <LiveField
          label="Colour of its shell"
          keep={keep("colour")}
          value={plug.colour}
          maxLength={40}
          fault={needed("Write its colour.")}
          onStore={(colour) => onTold({ ...plug, colour })}
        />
      </Columns>
      <Choice<Place>
        label="Roughly"
        value={plug.place}
        options={PLACES.map((p) => ({ value: p, label: PLACE_WORDS[p] }))}
        onChange={(place) => onTold({ ...plug, place })}
      />
    </Sheet>
  );
}

/** What one cavity carries. */
function OneCavity({
  plug,
  cavity,
  ways,
  keep,
  onTold,
}: {
  plug: Connector;
  cavity: Cavity;
  /** Ways that use the plug. */
  ways: readonly Way[];
  keep: string;
  onTold: Tell;
}) {
  const { pack } = useMake();
  const system = cavity.system ?? pack.systems[0].id;
  return (
    <>
      <Choice<CavityRole>
        label={`${cavity.id} carries`}
        value={cavity.role}
        options={ROLES.filter((r) => ways.every((w) => allowed(r.value, cavity.id, w)))}
        onChange={(role) => onTold(withCavity(plug, cavity.id, { role, system }))}
      />
      <LiveField
        key={cavity.id}
        label={`Colour of the wire in ${cavity.id}`}
        description="Where you know it"
        keep={keep}
        value={cavity.wire ?? ""}
        maxLength={40}
        onStore={(wire) => onTold(withCavity(plug, cavity.id, { wire }))}
      />
    </>
  );
}

/** What a cavity can carry where a way joins something to it, or listens there. */
function allowed(role: CavityRole, cavity: string, way: Way): boolean {
  if (way.ask.kind !== "bridge" && way.ask.kind !== "reader") return true;
  const [line, ground] = endsOf(way);
  if (cavity === ground) return role === "ground";
  return cavity !== line || role === "test" || (isReader(way) && role === "signal");
}

/** Names for plugs that are numbered or lettered in the usual way. */
function Quick({ onRows }: { onRows: (rows: string) => void }) {
  const [[rows, columns], setSize] = useState<[number, number]>([2, 5]);
  const count = (label: string, n: number, set: (n: number) => void) => (
    <Row $gap={6} role="group" aria-label={label}>
      <Button aria-label={`Fewer ${label}`} isDisabled={n <= 1} onPress={() => set(n - 1)}>
        –
      </Button>
      <span style={{ minWidth: "5.5em", textAlign: "center" }}>
        {n} {label}
      </span>
      <Button aria-label={`More ${label}`} isDisabled={n >= 10} onPress={() => set(n + 1)}>
        +
      </Button>
    </Row>
  );
  return (
    <div style={{ display: "grid", gap: 8 }}>
      <strong>Or fill them in</strong>
      {count("rows", rows, (n) => setSize([n, columns]))}
      {count("columns", columns, (n) => setSize([rows, n]))}
      <Row $gap={8}>
        <Button
          isDisabled={rows * columns > 60 || rows * columns < 2}
          onPress={() => onRows(usualNames(rows, columns, "letters"))}
        >
          Letters
        </Button>
        <Button
          isDisabled={rows * columns > 60 || rows * columns < 2}
          onPress={() => onRows(usualNames(rows, columns, "numbers"))}
        >
          Numbers
        </Button>
      </Row>
    </div>
  );
}

/** Which two are joined, or where the reader's leads go. Nothing that is hot or of the airbag is offered. */
function Joined({
  plug,
  way,
  several,
  last,
  assumed,
  onTold,
}: {
  plug: Connector;
  way: Way;
  /** Other ways use the same plug. */
  several: boolean;
  last: boolean;
  /** Nobody has said yet which two. */
  assumed: boolean;
  onTold: Tell;
}) {
  const { pack } = useMake();
  const [half, setHalf] = useState<[string | null, string | null]>([null, null]);
  if (way.ask.kind !== "bridge" && !isReader(way)) return null;
  const there = (id: string | null) => (plug.cavities.some((c) => c.id === id) ? id : null);
  const [a, b] = assumed ? [there(half[0]), there(half[1])] : endsOf(way);
  const options = plug.cavities
    .filter((c) => !["power", "airbag"].includes(c.role))
    .map((c) => ({ value: c.id, label: c.id }));
  const tell = (line: string | null, ground: string | null) => {
    setHalf([line, ground]);
    if (line && ground) onTold(plug, { way: way.id, ends: [line, ground] });
  };
  return (
    <Sheet>
      <h2>
        {several
          ? `${namesBy(pack, way.id)}: ${way.title}`
          : isReader(way)
            ? "Where the reader goes"
            : "Which two are joined"}
      </h2>
      <Choice
        label={isReader(way) ? "Signal lead" : "Test line"}
        value={a}
        options={options.filter((o) => o.value !== b)}
        onChange={(id) => tell(id, b)}
      />
      <Choice
        label={isReader(way) ? "Black lead, ground" : "Ground"}
        value={b}
        options={options.filter((o) => o.value !== a)}
        onChange={(id) => tell(a, id)}
      />
      {last && plug.cavities.some((c) => c.role === "unknown") && (
        <Soft>A cavity that you know nothing of stays &quot;not known&quot;: the job never offers it for a wire.</Soft>
      )}
    </Sheet>
  );
}
