import { redirect } from "react-router";
import { dialectCheck } from "@core/flash/dialect-check";
import {
  told,
  withAsk,
  withClears,
  withDialect,
  withEntries,
  withNewClear,
  withPlug,
  withSystem,
  withVehicle,
  withWayKind,
  withWayTexts,
} from "@core/pack/make/build";
import { WAY_KINDS } from "@core/pack/make/ways";
import {
  clearRule,
  connectorRule,
  entryRule,
  packRule,
  provingRule,
  systemRule,
  vehicleToldRule,
} from "@core/pack/pack";
import { askRule, tellsRule, wayTextsRule } from "@core/pack/way";
import { cavityRule, id, text } from "@core/pack/words";
import { flag, list, object, oneOf, optional, pair } from "@core/schema/rule";
import { removePack, writePack } from "~/store/packs";
import { makeIntent } from "~/store/use-make";

export const vehicleIntents = {
  vehicle: makeIntent(object({ variant: id, told: vehicleToldRule }), ({ variant, told }, { change }) =>
    change((p) => withVehicle(p, variant, told)),
  ),
  system: makeIntent(object({ system: systemRule }), ({ system }, { change }) => change((p) => withSystem(p, system))),
};
export type VehicleIntents = typeof vehicleIntents;

export const wayIntents = {
  kind: makeIntent(object({ way: id, kind: oneOf(...WAY_KINDS.map((k) => k.id)) }), ({ way, kind }, { change }) =>
    change((p) =>
      withWayKind(
        p,
        way,
        WAY_KINDS.find((k) => k.id === kind)!,
      ),
    ),
  ),
  ask: makeIntent(object({ way: id, ask: askRule, tells: tellsRule }), ({ way, ask, tells }, { change }) =>
    change((p) => withAsk(p, way, ask, tells)),
  ),
  texts: makeIntent(object({ way: id, texts: wayTextsRule }), ({ way, texts }, { change }) =>
    change((p) => withWayTexts(p, way, texts)),
  ),
};
export type WayIntents = typeof wayIntents;

export const plugIntents = {
  plug: makeIntent(
    object({ plug: connectorRule, ends: pair(cavityRule, cavityRule), joined: flag }),
    ({ plug, ends, joined }, { change }) => change((p) => withPlug(p, plug, ends, joined)),
  ),
};
export type PlugIntents = typeof plugIntents;

export const talkIntents = {
  talk: makeIntent(object({ dialect: dialectCheck }), ({ dialect }, { change }) =>
    change((p) => withDialect(p, dialect)),
  ),
};
export type TalkIntents = typeof talkIntents;

export const codesIntents = {
  codes: makeIntent(
    object({ system: id, entries: list(entryRule, { max: 1000 }) }),
    ({ system, entries }, { change }) => change((p) => withEntries(p, system, entries)),
  ),
};
export type CodesIntents = typeof codesIntents;

export const clearsIntents = {
  add: makeIntent(object({ kind: oneOf("fuse", "battery", "button"), system: id }), ({ kind, system }, { change }) =>
    change((p) => withNewClear(p, kind, system)),
  ),
  clears: makeIntent(object({ clears: list(clearRule, { max: 20 }) }), ({ clears }, { change }) =>
    change((p) => withClears(p, clears)),
  ),
  proving: makeIntent(object({ proving: provingRule }), ({ proving }, { change }) =>
    change((p) => told({ ...p, proving }, "proving")),
  ),
};
export type ClearsIntents = typeof clearsIntents;

export const handOverIntents = {
  note: makeIntent(object({ source: text, note: optional(text) }), ({ source, note }, { change }) =>
    change((p) => ({ ...p, source, own: { assumed: p.own?.assumed ?? [], ...(note && { note }) } })),
  ),
};
export type HandOverIntents = typeof handOverIntents;

/** What can be done to a make from any of its pages. */
export const makeIntents = {
  /** As it was before the last change. */
  back: makeIntent(object({ pack: packRule }), ({ pack }) => writePack(pack)),
  remove: makeIntent(object({}), async (_, { id }) => {
    await removePack(id);
    return redirect("/makes");
  }),
};
export type MakeIntents = typeof makeIntents;
