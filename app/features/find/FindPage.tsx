import { useEffect, useMemo, useRef } from "react";
import { href, Link, useSearchParams } from "react-router";
import styled from "styled-components";
import { findWays, PLACE_WORDS, shapesIn, shapeWords, type Asked, type FoundWay } from "@core/pack/find";
import { PLACES, type Pack, type Place } from "@core/pack/pack";
import { scopeText } from "@core/pack/scope";
import { Button, LinkButton } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Field } from "~/ui/Field";
import { Caution, Row, Sheet, Soft, Stack } from "~/ui/bits";
import { ConnectorView } from "~/ui/connector/ConnectorView";
import { METHOD_WORDS } from "~/ui/methods";
import { middle, figures } from "~/ui/theme";
import { ShapeGlyph } from "./ShapeGlyph";

const Columns = styled.div`
  display: grid;
  gap: 18px;
  align-items: start;
  ${middle} {
    grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  }
`;

const Found = styled.ol`
  display: grid;
  gap: 12px;
`;

/** On a narrow screen what is found stands below the questions. */
const Jump = styled.a`
  justify-self: start;
  display: inline-flex;
  align-items: center;
  min-height: 48px;
  font-weight: 700;
  ${middle} {
    display: none;
  }
`;

const Share = styled.p`
  ${figures}
  font-weight: 700;
  white-space: nowrap;
`;

const Tiles = styled.div`
  display: grid;
  gap: 8px;
  grid-template-columns: repeat(auto-fit, minmax(min(46%, 120px), 1fr));
`;

const Tile = styled(Button)`
  flex-direction: column;
  padding: 10px 8px;
  white-space: normal;
  color: var(--ink);
  border-color: var(--line);
  font-weight: 400;
  &[aria-pressed="true"] {
    border-color: var(--petrol);
    background: var(--tint);
    font-weight: 650;
  }
`;

/** What can be seen on the plugs of some makes. */
interface Sights {
  shapes: ReturnType<typeof shapesIn>;
  colours: string[];
  symbols: string[];
}

function sightsIn(packs: readonly Pack[]): Sights {
  const connectors = packs.flatMap((p) => p.connectors);
  return {
    shapes: shapesIn(packs),
    colours: [...new Set(connectors.map((c) => c.colour))].sort(),
    symbols: [...new Set(connectors.flatMap((c) => c.symbols ?? []))].sort(),
  };
}

/** What is less likely than this only makes the list long. */
const WORTH_SHOWING = 0.02;

const one = <T extends string>(value: string | null, of: readonly T[]): T | undefined => of.find((o) => o === value);
const whole = (value: string | null, from: number, to: number): number | undefined => {
  const n = Number(value);
  return value && Number.isInteger(n) && n >= from && n <= to ? n : undefined;
};

/** What is asked stands in the address, so that a finding can be gone back to; what makes no sense there is left aside. */
function askedOf(params: URLSearchParams, packs: readonly Pack[], sights: Sights): Asked {
  const pack = packs.find((p) => p.id === params.get("make"));
  const variant = pack?.variants.find((v) => v.id === params.get("model"));
  const year = whole(params.get("year"), 1950, 2035);
  const engine = variant?.engines.find((e) => e.id === params.get("engine"))?.id;
  const market = variant?.markets.find((m) => m === params.get("market"));
  const shape = one(
    params.get("shape"),
    sights.shapes.map((s) => s.id),
  );
  const colour = one(params.get("colour"), sights.colours);
  const cavities = whole(params.get("cavities"), 1, 60);
  const place = one(params.get("place"), PLACES);
  const symbol = one(params.get("symbol"), sights.symbols);
  const lamp = one(params.get("lamp"), ["yes", "no"] as const);
  return {
    ...(pack && { make: pack.id }),
    ...(variant && { variant: variant.id }),
    ...(year && { year }),
    ...(engine && { engine }),
    ...(market && { market }),
    seen: {
      ...(shape && { shape }),
      ...(colour && { colour }),
      ...(cavities && { cavities }),
      ...(place && { place }),
      ...(symbol && { symbol }),
      ...(lamp && { lamp }),
    },
  };
}

/** From "what do I have?" to the way in: by make and year, or by what is seen. */
export function FindPage({ packs }: { packs: readonly Pack[] }) {
  const sights = useMemo(() => sightsIn(packs), [packs]);
  const [params, setParams] = useSearchParams();
  const asked = useMemo(() => askedOf(params, packs, sights), [params, packs, sights]);
  const finding = useMemo(() => findWays(packs, asked), [packs, asked]);
  // The address follows a moment later: a second answer that comes before it must not take the first one back.
  const latest = useRef(params);
  useEffect(() => {
    latest.current = params;
  }, [params]);
  const set: SetAsked = (changes) => {
    const next = new URLSearchParams(latest.current);
    for (const [k, v] of Object.entries(changes))
      if (v) next.set(k, v);
      else next.delete(k);
    latest.current = next;
    setParams(next, { replace: true, preventScrollReset: true });
  };
  const startOver = () => {
    latest.current = new URLSearchParams();
    setParams({}, { replace: true });
  };
  const nothing = params.size === 0;
  const plugs = byPlug(finding.ways).filter((g) => total(g) > WORTH_SHOWING);
  const [best] = finding.ways;
  return (
    <>
      <h1 aria-live="polite">
        {nothing
          ? "What do you have in front of you?"
          : finding.outsideWhy
            ? "Outside these tables."
            : best && total(plugs[0]) > 0.8
              ? `${best.variant.model}: ${METHOD_WORDS[best.way.method].toLowerCase()}.`
              : `${plugs.length} ${plugs.length === 1 ? "way fits" : "ways fit"} so far.`}
      </h1>
      {!nothing && plugs.length > 0 && (
        <Jump href="#found">To the {plugs.length === 1 ? "way" : `${plugs.length} ways`} found</Jump>
      )}
      <Columns>
        <Stack>
          <ByVehicle packs={packs} asked={asked} year={params.get("year") ?? ""} set={set} />
          <BySight sights={sights} seen={asked.seen} cavities={params.get("cavities") ?? ""} set={set} />
          <Row>
            <Button isDisabled={nothing} onPress={startOver}>
              Start over
            </Button>
          </Row>
        </Stack>
        <Stack id="found">
          {finding.outsideWhy && <Caution>{finding.outsideWhy}</Caution>}
          {nothing && (
            <Soft>
              Say the make and the year, or only what the plug looks like. The more you say, the shorter the list gets.
            </Soft>
          )}
          {!nothing && finding.tellApart.length > 0 && !finding.outsideWhy && (
            <Sheet>
              <h2>What would tell them apart</h2>
              <ul style={{ display: "grid", gap: 8 }}>
                {finding.tellApart.map((q) => (
                  <li key={q.what}>
                    <strong>{q.question}</strong>{" "}
                    {q.answers
                      .map((a) => `${a.answer}: ${a.ways.slice(0, 3).join(", ")}${a.ways.length > 3 ? " …" : ""}`)
                      .join("; ")}
                  </li>
                ))}
              </ul>
            </Sheet>
          )}
          {!nothing && (
            <Found aria-label="Ways in, likeliest first">
              {plugs.slice(0, 6).map((group, i) => (
                <li key={`${group[0].variant.id} ${group[0].way.id}`}>
                  <OnePlug group={group} first={i === 0} asked={asked} />
                </li>
              ))}
            </Found>
          )}
        </Stack>
      </Columns>
    </>
  );
}

/** Changes what is asked: by the name that stands in the address. */
type SetAsked = (changes: Record<string, string | null>) => void;

function ByVehicle({ packs, asked, year, set }: { packs: readonly Pack[]; asked: Asked; year: string; set: SetAsked }) {
  const pack = packs.find((p) => p.id === asked.make);
  const variant = pack?.variants.find((v) => v.id === asked.variant);
  return (
    <Sheet>
      <h2>By the vehicle</h2>
      <Choice
        label="Make"
        value={asked.make ?? null}
        onChange={(make) => set({ make, model: null, engine: null, market: null })}
        options={packs.map((p) => ({ value: p.id, label: p.make }))}
      />
      <Soft>
        <Link to={href("/makes/new")}>My make is not here</Link>: build it from its manual&apos;s page.
      </Soft>
      {pack && (
        <Choice
          label="Model"
          value={asked.variant ?? null}
          onChange={(model) => set({ model, engine: null, market: null })}
          options={pack.variants.map((v) => ({ value: v.id, label: v.model }))}
        />
      )}
      <Field
        label="Model year"
        inputMode="numeric"
        maxLength={4}
        defaultValue={year}
        onChange={(year) => (year.length === 4 || !year) && set({ year })}
      />
      {variant && (
        <Choice
          label="Engine"
          value={asked.engine ?? null}
          onChange={(engine) => set({ engine })}
          options={variant.engines.map((e) => ({ value: e.id, label: e.name }))}
        />
      )}
      {variant && variant.markets.length > 1 && (
        <Choice
          label="Market"
          value={asked.market ?? null}
          onChange={(market) => set({ market })}
          options={variant.markets.map((m) => ({ value: m, label: m }))}
        />
      )}
    </Sheet>
  );
}

function BySight({
  sights,
  seen,
  cavities,
  set,
}: {
  sights: Sights;
  seen: Asked["seen"];
  cavities: string;
  set: SetAsked;
}) {
  return (
    <Sheet>
      <h2>By what you see</h2>
      <Tiles role="group" aria-label="Shape of the plug">
        {sights.shapes.map((s) => (
          <Tile
            key={s.id}
            aria-pressed={seen.shape === s.id}
            onPress={() => set({ shape: seen.shape === s.id ? null : s.id })}
          >
            <ShapeGlyph shape={s} />
            {shapeWords(s.id)}
          </Tile>
        ))}
      </Tiles>
      <Field
        label="Cavities, counted"
        inputMode="numeric"
        maxLength={2}
        defaultValue={cavities}
        onChange={(cavities) => set({ cavities })}
      />
      <Choice
        label="Colour of its shell"
        value={seen.colour ?? null}
        onChange={(colour) => set({ colour })}
        options={sights.colours.map((c) => ({ value: c, label: c }))}
      />
      <Choice<Place>
        label="Where it sits"
        value={seen.place ?? null}
        onChange={(place) => set({ place })}
        options={PLACES.map((p) => ({ value: p, label: PLACE_WORDS[p] }))}
      />
      <Choice
        label="What stands on it"
        value={seen.symbol ?? null}
        onChange={(symbol) => set({ symbol })}
        options={sights.symbols.map((s) => ({ value: s, label: s }))}
      />
      <Choice<"yes" | "no">
        label="A lamp of the unit lights in the dash, key on"
        value={seen.lamp ?? null}
        onChange={(lamp) => set({ lamp })}
        options={[
          { value: "yes", label: "Yes" },
          { value: "no", label: "No" },
        ]}
      />
    </Sheet>
  );
}

/** Ways through one plug of one model stand together: which of its systems is read is asked later. */
function byPlug(ways: readonly FoundWay[]): FoundWay[][] {
  const groups = new Map<string, FoundWay[]>();
  for (const w of ways) {
    const key = `${w.pack.id} ${w.variant.id} ${w.connector?.id ?? w.way.id}`;
    groups.set(key, [...(groups.get(key) ?? []), w]);
  }
  return [...groups.values()].sort((a, b) => total(b) - total(a));
}

const total = (group: readonly FoundWay[]) => group.reduce((s, w) => s + w.probability, 0);

function OnePlug({ group, first, asked }: { group: FoundWay[]; first: boolean; asked: Asked }) {
  const [w] = group;
  const to = new URLSearchParams({ make: w.pack.id, model: w.variant.id });
  if (asked.year) to.set("year", String(asked.year));
  if (asked.engine) to.set("engine", asked.engine);
  return (
    <Sheet>
      <Row style={{ justifyContent: "space-between", alignItems: "start" }}>
        <div>
          <h2>{w.variant.model}</h2>
          {group.map((x) => (
            <p key={x.way.id}>{x.way.title}</p>
          ))}
          <Soft>
            {[...new Set(group.flatMap((x) => x.systems))].join(", ")} · {w.variant.years.join(" to ")} · method{" "}
            {[...new Set(group.map((x) => x.way.method))].join(", ")}
          </Soft>
        </div>
        <Share>{Math.round(total(group) * 100)} %</Share>
      </Row>
      {first && w.connector && (
        <div style={{ maxWidth: 340 }}>
          <ConnectorView connector={w.connector} side="socket" />
        </div>
      )}
      {w.reasons.length > 0 && (
        <p>
          <strong>For it:</strong> {w.reasons.join("; ")}.
        </p>
      )}
      {w.against.length > 0 && (
        <p>
          <strong>Against it:</strong> {w.against.join("; ")}.
        </p>
      )}
      {w.traps.map((t) => (
        <Caution key={t.text}>
          {t.scope && <>{scopeText(t.scope)}: </>}
          {t.text}
        </Caution>
      ))}
      {w.connector?.lookAlike && <Caution>{w.connector.lookAlike}</Caution>}
      <Row>
        <LinkButton $look={first ? "primary" : "secondary"} to={`/vehicles/new?${to.toString()}`}>
          This is it: add the vehicle
        </LinkButton>
      </Row>
    </Sheet>
  );
}
