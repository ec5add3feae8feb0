import { ToggleButton } from "react-aria-components/ToggleButton";
import styled from "styled-components";
import { assumedOf, assumedOfAny } from "@core/pack/assumed";
import { withAsk, withWayKind, withWayTexts } from "@core/pack/make/build";
import { kindOf, namesBy, systemsBy } from "@core/pack/make/parts";
import { isLettered, withSameWire } from "@core/pack/make/systems";
import { WAY_KINDS } from "@core/pack/make/way-kinds";
import type { Pack } from "@core/pack/pack";
import type { Ask, Tells, Way } from "@core/pack/way";
import { useEdit, useMake } from "~/store/use-make";
import { Choice } from "~/ui/Choice";
import { Fold } from "~/ui/Fold";
import { Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { Letters } from "./Letters";
import { LiveField, needed } from "./LiveField";
import { NextPart } from "./NextPart";
import { WayTextsEdit } from "./WayTextsEdit";
import { Columns, Tiles } from "./layout";

export const Tile = styled(ToggleButton)`
  display: grid;
  gap: 4px;
  align-content: start;
  min-height: 48px;
  padding: 12px 14px;
  border: 2px solid var(--line);
  border-radius: 10px;
  background: var(--sheet);
  text-align: left;
  cursor: pointer;
  small {
    color: var(--ink-soft);
    font-size: 0.9rem;
  }
  &[data-hovered] {
    border-color: var(--petrol);
  }
  &[data-selected] {
    border-color: var(--petrol);
    background: var(--tint);
    box-shadow: inset 6px 0 0 var(--petrol);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--petrol);
    outline-offset: 2px;
  }
`;

/** How the unit is made to talk, picked by what one does and sees; then in its own words. */
export function WayPart() {
  const { pack } = useMake();
  const { edit, problem } = useEdit(pack);
  return (
    <>
      <h1>How do you ask for the codes?</h1>
      {pack.ways.map((way) => {
        const kind = kindOf(way);
        const told = !assumedOf(pack, way).includes("way");
        return (
          <section key={way.id} style={{ display: "grid", gap: 18 }}>
            {pack.ways.length > 1 && (
              <h2>
                {namesBy(pack, way.id)}
                {told && `: ${way.title}`}
              </h2>
            )}
            <Tiles
              role="group"
              aria-label={`What you do, and what you see${pack.ways.length > 1 ? `, ${namesBy(pack, way.id)}` : ""}`}
            >
              {alike(pack, way).map((other) => (
                <Tile
                  key={other.id}
                  isSelected={false}
                  onChange={() =>
                    edit((p) => systemsBy(p, way.id).reduce((q, s) => withSameWire(q, s.id, other.id), p))
                  }
                >
                  <strong>With the same wire as {namesBy(pack, other.id)}</strong>
                  <small>Both lamps blink at the same time, each its own list</small>
                </Tile>
              ))}
              {WAY_KINDS.map((k) => (
                <Tile
                  key={k.id}
                  isSelected={told && kind?.id === k.id}
                  onChange={() => edit((p) => withWayKind(p, way.id, k))}
                >
                  <strong>{k.does}</strong>
                  <small>{k.sees}</small>
                </Tile>
              ))}
            </Tiles>
            {told && (
              <>
                {isLettered(way.tells) && (
                  <Letters
                    way={way}
                    tells={way.tells}
                    onTold={(tells) => edit((p) => withAsk(p, way.id, way.ask, tells))}
                  />
                )}
                <AskFields way={way} onTold={(ask, tells) => edit((p) => withAsk(p, way.id, ask, tells))} />
                <Fold
                  plain={pack.ways.length === 1}
                  label={`Steps for ${namesBy(pack, way.id)}, and what may be wrong`}
                >
                  <WayTextsEdit way={way} onTold={(texts) => edit((p) => withWayTexts(p, way.id, texts))} />
                </Fold>
              </>
            )}
            {!told && <Soft>Pick one: its steps come with it, and you can change them.</Soft>}
          </section>
        );
      })}
      <Trouble problem={problem} />
      {!assumedOfAny(pack, "way") && <NextPart after="way" />}
    </>
  );
}

/** Ways whose wire may make this one's lamp blink too. */
const alike = (pack: Pack, way: Way): Way[] =>
  assumedOf(pack, way).includes("way")
    ? pack.ways.filter(
        (w) =>
          w.ask.kind === "bridge" && w.tells.kind === "lamp" && !assumedOf(pack, w).includes("way") && w.id !== way.id,
      )
    : [];

const secondsFault = (text: string): string | null =>
  Number(text) >= 0.1 && Number(text) <= 7200 ? null : "Write seconds, such as 5.";

/** One thing that is asked or shown, as the manual gives it. */
interface Figure {
  name: string;
  label: string;
  value: number | string;
  fault: (text: string) => string | null;
  /** The way with it. */
  ask?: (text: string) => object;
  tells?: (text: string) => object;
}

const seconds = (name: string, label: string, value: number): Omit<Figure, "ask" | "tells"> => ({
  name,
  label,
  value,
  fault: secondsFault,
});
const words = (name: string, label: string, value: string, missing: string): Omit<Figure, "ask" | "tells"> => ({
  name,
  label,
  value,
  fault: needed(missing),
});

const BUTTON = "Write the name on the button.";

function askFigures(ask: Ask): Figure[] {
  switch (ask.kind) {
    case "reader":
    case "unit-button":
      return [
        { ...seconds("read", "Hold to read, seconds", ask.readSeconds), ask: (t) => ({ readSeconds: Number(t) }) },
        { ...seconds("wipe", "Hold to wipe, seconds", ask.clearSeconds), ask: (t) => ({ clearSeconds: Number(t) }) },
        ask.kind === "reader"
          ? {
              ...words("feed", "Where the red lead goes", ask.feed, "Write where the reader gets its battery."),
              ask: (feed) => ({ feed }),
            }
          : { ...words("where", "Where it is", ask.where, "Write where to look."), ask: (where) => ({ where }) },
      ];
    case "key-on":
      return [{ ...words("where", "Where it is", ask.where, "Write where to look."), ask: (where) => ({ where }) }];
    case "key-cycle":
      return [
        {
          ...seconds("within", "Within so many seconds", ask.withinSeconds),
          ask: (t) => ({ withinSeconds: Number(t) }),
        },
      ];
    case "buttons":
      return [
        {
          ...words("buttons", "Which buttons, with commas", ask.buttons.join(", "), "Write the names on the buttons."),
          ask: (t) => ({
            buttons: t
              .split(/\s*,\s*/)
              .filter(Boolean)
              .slice(0, 4),
          }),
        },
        { ...seconds("hold", "Hold them, seconds", ask.holdSeconds), ask: (t) => ({ holdSeconds: Number(t) }) },
      ];
    default:
      return [];
  }
}

function tellsFigures(tells: Tells): Figure[] {
  const none = (value: string): Figure => ({
    ...words("none", "It shows this where nothing is stored", value, "Write what it shows, such as --."),
    tells: (text) => ({ none: text }),
  });
  switch (tells.kind) {
    case "text":
      return [
        none(tells.none),
        { ...words("next", "Button for the next number", tells.next, BUTTON), tells: (next) => ({ next }) },
      ];
    case "modules":
      return [
        none(tells.none),
        {
          ...words("submode", "Button for the next code", tells.nextSubmode, BUTTON),
          tells: (nextSubmode) => ({ nextSubmode }),
        },
        {
          ...words("module", "Button for the next module", tells.nextModule, BUTTON),
          tells: (nextModule) => ({ nextModule }),
        },
      ];
    case "readiness":
      return [
        {
          ...seconds("wait", "Wait after key-on, seconds", tells.waitSeconds),
          tells: (t) => ({ waitSeconds: Number(t) }),
        },
        { ...seconds("watch", "Then watch, seconds", tells.watchSeconds), tells: (t) => ({ watchSeconds: Number(t) }) },
      ];
    default:
      return [];
  }
}

/** What the manual gives as figures: how long a button is held, how often the key is turned. */
function AskFields({ way, onTold }: { way: Way; onTold: (ask: Ask, tells: Tells) => void }) {
  const { pack } = useMake();
  const { ask, tells } = way;
  const figures = [...askFigures(ask), ...tellsFigures(tells)];
  if (!figures.length) return null;
  return (
    <Sheet>
      <h2>In figures</h2>
      {ask.kind === "key-cycle" && (
        <Choice
          label="Key on, so many times"
          value={String(ask.times)}
          options={["2", "3", "4", "5", "6"].map((n) => ({ value: n, label: n }))}
          onChange={(n) => onTold({ ...ask, times: Number(n) }, tells)}
        />
      )}
      <Columns>
        {figures.map((f) => (
          <LiveField
            key={f.name}
            label={f.label}
            keep={`make/${pack.id}/${way.id}/${f.name}`}
            value={String(f.value)}
            fault={f.fault}
            maxLength={200}
            {...(typeof f.value === "number" ? { inputMode: "numeric" as const } : {})}
            onStore={(t) => onTold({ ...ask, ...f.ask?.(t) }, { ...tells, ...f.tells?.(t) })}
          />
        ))}
      </Columns>
      {tells.kind === "text" && (
        <Choice
          label="Digits of a code"
          value={String(tells.systems[0].digits)}
          options={["1", "2", "3", "4"].map((n) => ({ value: n, label: n }))}
          onChange={(n) => onTold(ask, { ...tells, systems: tells.systems.map((s) => ({ ...s, digits: Number(n) })) })}
        />
      )}
    </Sheet>
  );
}
