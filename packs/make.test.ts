import { describe, expect, it } from "vitest";
import { seeded } from "@core/flash/dialect/encode";
import { PACKS } from "./index";
import { bridgeEffect } from "@core/procedure/bridge";
import type { Pack } from "@core/pack/pack";
import { checkPack } from "@core/pack/schema";
import { systemsOf } from "@core/pack/scope";
import { connectorIdOf, dialectIdOf } from "@core/pack/way";
import { assumedIn, assumedOf, assumedOfAny } from "@core/pack/assumed";
import { endsOf, kindOf, systemsBy } from "@core/pack/make/parts";
import { isLettered, lettersOf, USUAL_SYSTEMS, withNewSystem, withoutSystem, withSameWire } from "@core/pack/make/systems"; // prettier-ignore
import {
  newPack,
  PLUG,
  TALK,
  withAsk,
  withDialect,
  withEntries,
  withNewClear,
  withPlug,
  withSystem,
  withVehicle,
  withWayKind,
  withWayTexts,
} from "@core/pack/make/build";
import { differences } from "@core/pack/make/diff";
import { missingIn } from "@core/pack/make/missing";
import { laidOut, namesFault, rowsOf, usualNames, withCavity } from "@core/pack/make/plug";
import { dialectOf, retalked, saysAll, TALK_EXAMPLES, talkOf } from "@core/pack/make/talk";
import { WAY_KINDS } from "@core/pack/make/way-kinds";

const blank = () =>
  newPack({ id: "mine", make: "Harrowgate", model: "Coupe", years: [1986, 1991], engine: "2.0", cylinders: 4 }, "1");
const car = { variant: "model", year: 1988, engine: "2.0", market: "home" };
const sound = (pack: Pack) => {
  const checked = checkPack(pack);
  expect("faults" in checked ? checked.faults : []).toEqual([]);
  expect("pack" in checked && checked.unknown).toEqual([]);
};

describe("a make of one's own", () => {
  it("is sound from the first moment, and says what nobody has said", () => {
    const pack = blank();
    sound(pack);
    expect(
      missingIn(pack)
        .filter((m) => m.must)
        .map((m) => m.part),
    ).toEqual(["codes", "way", "plug"]);
    expect(systemsOf(pack, car)).toHaveLength(1);
    expect(pack.source).toMatch(/check it against the manual/);
  });

  it.each(WAY_KINDS.map((k) => [k.id, k] as const))(
    "is sound with the way in %s and any lamp, whatever came before",
    (_, kind) => {
      for (const before of WAY_KINDS) {
        const pack = withWayKind(withWayKind(blank(), "way", before), "way", kind);
        sound(pack);
        const [access] = systemsOf(pack, car);
        expect(kindOf(access.way)?.id).toBe(kind.id);
        expect(access.connector !== null).toBe(kind.plug !== null);
        expect(access.dialect?.advance ?? null).toBe(
          kind.talk ? (kind.id.endsWith("button") || kind.id === "reader" ? "button" : "self") : null,
        );
        expect(assumedIn(pack)).not.toContain("way");
        for (const clear of ["fuse", "battery", "button"] as const)
          sound(withNewClear(withNewClear(pack, clear, "engine"), clear, "engine"));
      }
      if (kind.talk === null) return;
      for (const example of TALK_EXAMPLES)
        sound(withDialect(withWayKind(blank(), "way", kind), dialectOf(example.talk, TALK, example.title)));
    },
  );

  it("keeps how the lamp talks, once told, where the way in still blinks by itself", () => {
    const told = withDialect(blank(), dialectOf({ ...TALK_EXAMPLES[2].talk, times: 2 }, TALK, "Long and short"));
    const cycle = withWayKind(
      told,
      "way",
      WAY_KINDS.find((k) => k.id === "key-cycle")!,
    );
    expect(talkOf(cycle.dialects[0])).toMatchObject({ style: "long-short", times: 2 });
    expect(assumedIn(cycle)).not.toContain("talk");
    const press = withWayKind(
      told,
      "way",
      WAY_KINDS.find((k) => k.id === "unit-button")!,
    );
    expect(press.dialects[0].advance).toBe("button");
    expect(assumedOf(press, press.ways[0])).toContain("talk");
  });

  it("reads several systems, each in its own way or with a letter of its own, whatever is added, changed and taken out", () => {
    const random = seeded(20);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
    for (let run = 0; run < 60; run++) {
      let pack = blank();
      for (let n = 0; n < 8; n++) {
        const before = pack;
        const does = pick(["add", "add", "kind", "wire", "talk", "out"] as const);
        const way = pick(pack.ways);
        const other = pick(pack.ways);
        if (does === "add" && pack.systems.length < 5) pack = withNewSystem(pack, pick(USUAL_SYSTEMS));
        if (does === "kind") pack = withWayKind(pack, way.id, pick(WAY_KINDS));
        if (does === "wire" && way !== other && [way, other].every((w) => w.tells.kind === "lamp"))
          pack = systemsBy(pack, way.id).reduce((p, s) => withSameWire(p, s.id, other.id), pack);
        if (does === "talk" && dialectIdOf(way)) pack = withDialect(pack, pack.dialects.find((d) => d.id === dialectIdOf(way))!); // prettier-ignore
        if (does === "out") pack = withoutSystem(pack, pick(pack.systems).id);
        sound(pack);
        // Each system is read in one way and has a table; no way and no lamp is left of what is read no more.
        const read = systemsOf(pack, car);
        expect(read.map((a) => a.system).sort()).toEqual(pack.systems.map((s) => s.id).sort());
        expect(pack.tables.map((t) => t.system).sort()).toEqual(pack.systems.map((s) => s.id).sort());
        expect(pack.ways.filter((w) => !systemsBy(pack, w.id).length)).toEqual([]);
        for (const { way: w, system } of read)
          if (isLettered(w.tells)) expect(lettersOf(w.tells).map((l) => l.system)).toContain(system);
        const letters = pack.ways.flatMap((w) =>
          isLettered(w.tells) ? [lettersOf(w.tells).map((l) => l.letter)] : [],
        );
        for (const all of letters) expect(new Set(all).size).toBe(all.length);
        // Whichever of its lamps is watched, the steps name it.
        for (const w of pack.ways) {
          const cause = w.nothingHappens.find((c) => c.id === "other-lamp" && w.steps.some((x) => x.id === "wire"));
          for (const s of cause ? systemsBy(pack, w.id) : []) expect(cause!.look).toContain(s.lamp);
        }
        // What was told of one way says nothing of another; what nobody has said of a new one is said.
        for (const w of pack.ways) {
          const old = before.ways.find((o) => o.id === w.id);
          if (!old && does === "add") expect(assumedOf(pack, w)).toEqual(["way", "plug", "talk"]);
          if (old && does !== "talk" && w.id !== way.id) expect(assumedOf(pack, w)).toEqual(assumedOf(before, old));
        }
      }
    }
  });

  it("tells its steps anew where plug, wire or lamp change, and leaves alone what somebody wrote", () => {
    const first = blank();
    const own = withWayTexts(first, "way", {
      ...first.ways[0],
      steps: first.ways[0].steps.map((s) => (s.id === "key-on" ? { ...s, text: "Mind the alarm." } : s)),
    });
    let plug = laidOut(own.connectors[0], "A B C\nD - F");
    plug = withCavity(
      withCavity(withCavity(plug, "C", { role: "ground" }), "D", { role: "test", system: "engine" }),
      "F",
      { role: "airbag" },
    );
    const now = withSystem(withPlug(own, plug, { way: "way", ends: ["D", "C"] }), {
      ...own.systems[0],
      lamp: "BRAKES",
    });
    sound(now);
    const text = JSON.stringify(now.ways[0]);
    expect(text).toMatch(/join D and C/);
    expect(text).toMatch(/Never touch F/);
    expect(text).toMatch(/Watch this one: BRAKES/);
    expect(text).toMatch(/Mind the alarm/);
    expect(text).not.toMatch(/A and B|Engine lamp/);
    expect(endsOf(now.ways[0])).toEqual(["D", "C"]);
    expect(differences(own, now).map((d) => d.part)).toEqual(["vehicle", "way", "plug"]);
  });

  it("never offers a cavity that nobody has said for a bridge", () => {
    const plug = laidOut(blank().connectors[0], "A B C");
    expect(bridgeEffect(plug, blank().ways[0], "B", "C").kind).toBe("danger");
    const checked = checkPack({
      ...blank(),
      connectors: [plug],
      ways: [{ ...blank().ways[0], ask: { kind: "bridge", connector: PLUG, bridge: ["A", "C"] } }],
    });
    expect("faults" in checked && checked.faults[0].message).toMatch(/nobody has said/);
    // What only stood in until somebody said which two are joined is known no more.
    const laid = withPlug(blank(), plug);
    expect(assumedIn(laid)).toContain("plug");
    const joined = withPlug(laid, plug, { way: "way", ends: ["C", "B"] });
    expect(joined.connectors[0].cavities.map((c) => c.role)).toEqual(["unknown", "ground", "test"]);
    expect(assumedIn(joined)).not.toContain("plug");
    // A plug that has the two no more is assumed again.
    const gone = withPlug(joined, laidOut(joined.connectors[0], "1 2 3"));
    sound(gone);
    expect([endsOf(gone.ways[0]), assumedOfAny(gone, "plug")]).toEqual([["1", "2"], true]);
  });

  it("times a hold or a beat as it is asked", () => {
    const pack = withWayKind(
      blank(),
      "way",
      WAY_KINDS.find((k) => k.id === "key-cycle")!,
    );
    const [way] = pack.ways;
    const now = withAsk(pack, way.id, { kind: "key-cycle", times: 4, withinSeconds: 9 }, way.tells);
    expect(now.ways[0].steps[1]).toMatchObject({
      title: "On, off, on, off, on, off, on",
      beat: { times: 4, withinSeconds: 9 },
    });
    sound(now);
  });

  it("takes rows of names in any order, and says what is wrong with others", () => {
    const random = seeded(5);
    for (let i = 0; i < 200; i++) {
      const rows = usualNames(
        1 + Math.floor(random() * 4),
        2 + Math.floor(random() * 7),
        random() < 0.5 ? "letters" : "numbers",
      );
      expect(namesFault(rows)).toBeNull();
      const plug = laidOut(blank().connectors[0], rows);
      expect(rowsOf(plug)).toBe(rows);
      expect(plug.cavities.every((c) => c.at[0] < plug.size[0] && c.at[1] < plug.size[1])).toBe(true);
    }
    expect(rowsOf(laidOut(blank().connectors[0], "1 - 3\n- 5"))).toBe("1 - 3\n- 5");
    expect(namesFault("A B\nC A")).toMatch(/A stands there twice/);
    expect(namesFault("A toolong")).toMatch(/no cavity's name/);
    expect(namesFault(" - -\n")).toMatch(/at least one row/);
    expect(namesFault(usualNames(10, 7, "numbers"))).toMatch(/at most 60/);
  });
});

describe("a copy of a make that ships", () => {
  const copies = PACKS.map((p): [string, Pack] => [p.id, { ...p, id: "copy", own: { assumed: [] } }]);

  it.each(copies)("of %s is changed where it is told, and nowhere else", (_, copy) => {
    for (const plug of copy.connectors) {
      const now = withPlug(copy, { ...plug, colour: "violet" });
      expect(now.ways).toEqual(copy.ways);
      expect(differences(copy, now).map((d) => d.part)).toEqual(["plug"]);
      // One way joined otherwise: no other way of the same plug is.
      const bridged = copy.ways.filter((w) => w.ask.kind === "bridge" && connectorIdOf(w) === plug.id);
      const free = plug.cavities.filter((c) => c.role === "signal" || c.role === "empty").map((c) => c.id);
      if (!bridged.length || !free.length) continue;
      const joined = withPlug(copy, plug, { way: bridged[0].id, ends: [free[0], endsOf(bridged[0])[1]] });
      sound(joined);
      expect(joined.ways.slice(1).map((w) => w.ask)).toEqual(copy.ways.slice(1).map((w) => w.ask));
    }
    for (const way of copy.ways)
      for (const kind of WAY_KINDS) {
        const now = withWayKind(copy, way.id, kind);
        const others = copy.ways.filter((w) => w.id !== way.id);
        expect(now.ways.filter((w) => others.some((o) => o.id === w.id))).toEqual(others);
        for (const w of others) {
          const dialect = dialectIdOf(w);
          if (dialect)
            expect(now.dialects.find((d) => d.id === dialect)).toEqual(copy.dialects.find((d) => d.id === dialect));
        }
      }
    for (const t of copy.tables) {
      const now = withEntries(copy, t.id, t.entries.slice(1));
      expect(now.tables.filter((x) => x.id !== t.id)).toEqual(copy.tables.filter((x) => x.id !== t.id));
      expect(differences(copy, now)).toHaveLength(1);
    }
    for (const d of copy.dialects.filter(saysAll)) {
      const talk = talkOf(d);
      expect(retalked(d, { ...talk, times: 3 })).toMatchObject({ order: d.order, max: d.max });
    }
  });
});

describe("how a lamp talks, told and told back", () => {
  it("is the same again for every example and for every shipped dialect that it can say", () => {
    for (const { talk, title } of TALK_EXAMPLES) {
      const dialect = dialectOf(talk, "x", title);
      expect(dialectOf(talkOf(dialect), "x", title)).toEqual(dialect);
      expect(saysAll(dialect)).toBe(true);
    }
    const shipped = PACKS.flatMap((p) => p.dialects);
    const said = shipped.filter(saysAll);
    expect(said.length).toBeGreaterThan(shipped.length / 2);
    for (const d of said) {
      const again = talkOf(dialectOf(talkOf(d), d.id, d.title));
      expect({ ...again, ms: null }).toEqual({ ...talkOf(d), ms: null });
    }
  });
});

describe("what is different in a newer pack", () => {
  it("is told code by code and field by field", () => {
    const entry = (code: string, title: string) => ({
      code,
      kind: "fault" as const,
      circuit: title,
      title,
      lookFirst: [],
    });
    const before = withEntries(blank(), "codes", [entry("12", "Air"), entry("24", "Speed"), entry("31", "Gone")]);
    const now = withEntries(
      withVehicle(before, "model", { ...before.variants[0], make: "Harrowgate & Son" }),
      "codes",
      [entry("24", "Speed"), { ...entry("12", "Air"), lookFirst: ["Its plug"] }, entry("42", "New")],
    );
    expect(now.tables[0].entries.map((e) => e.code)).toEqual(["12", "24", "42"]);
    expect(differences(before, now).map((d) => d.says)).toEqual([
      "make: Harrowgate is Harrowgate & Son now",
      'code 12: "look first" changed',
      "code 42 is new: New",
      "code 31 is gone: Gone",
    ]);
    expect(differences(now, now)).toEqual([]);
    expect(connectorIdOf(now.ways[0])).toBe(PLUG);
  });
});
