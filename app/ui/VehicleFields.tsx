import { useState } from "react";
import { Link } from "react-router";
import type { Pack } from "@core/pack/pack";
import type { VehicleAbout, VehicleErrors } from "~/store/vehicle-form";
import { Choice } from "./Choice";
import { Field } from "./Field";
import { Caution, Sheet, Soft } from "./bits";

/** What says what a vehicle is: make, model, year, engine, market. Stands in a form; see {@link vehicleIn}. */
export function VehicleFields({
  packs,
  from,
  errors,
}: {
  packs: readonly Pack[];
  from: { [K in keyof VehicleAbout]?: VehicleAbout[K] | string };
  errors: VehicleErrors | undefined;
}) {
  const [packId, setPack] = useState(from.pack ?? packs[0].id);
  // A make that is not here is told, and none is picked for it.
  const pack = packs.find((p) => p.id === packId);
  const [variantId, setVariant] = useState(from.variant ?? "");
  const variant = pack?.variants.find((v) => v.id === variantId) ?? pack?.variants[0];
  const [engine, setEngine] = useState(from.engine ?? "");
  const [market, setMarket] = useState(from.market ?? "");
  const engineId = variant?.engines.find((e) => e.id === engine)?.id ?? variant?.engines[0].id ?? "";
  const marketId = variant?.markets.includes(market) ? market : (variant?.markets[0] ?? "");
  return (
    <Sheet>
      <Field label="Plate or name" name="plate" defaultValue={from.plate ?? ""} error={errors?.plate} autoFocus />
      {!pack && (
        <Caution>
          Its make, {packId}, is not on this device. Bring it in under <Link to="/makes">Makes</Link>, or pick another
          one here.
        </Caution>
      )}
      <Choice
        label="Make"
        value={pack?.id ?? null}
        onChange={setPack}
        options={packs.map((p) => ({ value: p.id, label: p.make }))}
      />
      <Soft>
        <Link to="/makes/new">My make is not here</Link>: build it from its manual&apos;s page.
      </Soft>
      {pack && variant && (
        <Choice
          label="Model"
          value={variant.id}
          onChange={setVariant}
          options={pack.variants.map((v) => ({ value: v.id, label: v.model }))}
        />
      )}
      <Field
        label="Model year"
        name="year"
        defaultValue={String(from.year ?? "")}
        inputMode="numeric"
        error={errors?.year}
        {...(variant && { description: `This pack covers ${variant.years[0]} to ${variant.years[1]}.` })}
      />
      {variant && (
        <Choice
          label="Engine"
          value={engineId}
          onChange={setEngine}
          options={variant.engines.map((e) => ({ value: e.id, label: e.name }))}
        />
      )}
      {variant && variant.markets.length > 1 && (
        <Choice
          label="Market"
          value={marketId}
          onChange={setMarket}
          options={variant.markets.map((m) => ({ value: m, label: m }))}
        />
      )}
      <input type="hidden" name="pack" value={pack?.id ?? ""} />
      <input type="hidden" name="variant" value={variant?.id ?? ""} />
      <input type="hidden" name="engine" value={engineId} />
      <input type="hidden" name="market" value={marketId} />
      {errors?.model && <Caution>{errors.model}</Caution>}
      <Soft>
        Not sure, or not in the list? <Link to="/find">Find it by what you see.</Link> A code from another make&apos;s
        table would mislead.
      </Soft>
    </Sheet>
  );
}
