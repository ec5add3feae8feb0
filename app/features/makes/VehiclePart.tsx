import { withVehicle } from "@core/pack/make/build";
import type { VehicleTold } from "@core/pack/pack";
import { useEdit, useMake } from "~/store/use-make";
import { Button } from "~/ui/Button";
import { Choice } from "~/ui/Choice";
import { Row, Sheet } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { LiveField, needed } from "./LiveField";
import { NextPart } from "./NextPart";
import { Columns } from "./layout";
import { Systems } from "./Systems";

const CYLINDERS = ["1", "2", "3", "4", "5", "6", "8", "10", "12"].map((n) => ({ value: n, label: n }));

const yearFault = (text: string): string | null =>
  /^\d{4}$/.test(text) && Number(text) >= 1950 && Number(text) <= 2035
    ? null
    : "Write a model year with four digits, such as 1991.";

/** Which vehicle it is, and the units that are read. */
export function VehiclePart() {
  const { pack } = useMake();
  const { edit, problem } = useEdit(pack);
  const keep = (field: string) => `make/${pack.id}/${field}`;
  return (
    <>
      <h1>Which vehicle is it?</h1>
      {pack.variants.map((v) => {
        const now: VehicleTold = { make: pack.make, model: v.model, years: v.years, engines: v.engines };
        const told = (part: Partial<VehicleTold>) => edit((p) => withVehicle(p, v.id, { ...now, ...part }));
        const [from, to] = v.years;
        return (
          <Sheet key={v.id}>
            <Columns>
              <LiveField
                label="Make"
                keep={keep("make")}
                value={pack.make}
                maxLength={60}
                fault={needed("Write what the make is called.")}
                onStore={(make) => told({ make })}
              />
              <LiveField
                label="Model"
                keep={keep(`${v.id}/model`)}
                value={v.model}
                maxLength={60}
                fault={needed("Write what the model is called.")}
                onStore={(model) => told({ model })}
              />
              <LiveField
                label="First model year"
                keep={keep(`${v.id}/from`)}
                inputMode="numeric"
                maxLength={4}
                value={String(from)}
                fault={(t) =>
                  yearFault(t) ?? (Number(t) > to ? `The last year is ${to}: mend the one or the other.` : null)
                }
                onStore={(year) => told({ years: [Number(year), to] })}
              />
              <LiveField
                label="Last model year"
                keep={keep(`${v.id}/to`)}
                inputMode="numeric"
                maxLength={4}
                value={String(to)}
                fault={(t) =>
                  yearFault(t) ?? (Number(t) < from ? `The first year is ${from}: mend the one or the other.` : null)
                }
                onStore={(year) => told({ years: [from, Number(year)] })}
              />
            </Columns>
            <h2>Engines</h2>
            {v.engines.map((e, i) => (
              <Columns key={i}>
                <LiveField
                  label={v.engines.length > 1 ? `Engine ${i + 1}` : "Engine"}
                  description="As the table names it"
                  keep={keep(`${v.id}/engine-${i}`)}
                  value={e.name}
                  maxLength={40}
                  fault={(t) =>
                    !t
                      ? "Write what the engine is called."
                      : v.engines.some((o, k) => k !== i && o.id === t)
                        ? "There is one of that name already."
                        : null
                  }
                  onStore={(name) =>
                    told({ engines: v.engines.map((o, k) => (k === i ? { ...o, id: name, name } : o)) })
                  }
                />
                <Choice
                  label="Cylinders"
                  value={String(e.cylinders)}
                  options={CYLINDERS}
                  onChange={(n) =>
                    told({ engines: v.engines.map((o, k) => (k === i ? { ...o, cylinders: Number(n) } : o)) })
                  }
                />
                {v.engines.length > 1 && (
                  <Row>
                    <Button
                      $look="quiet"
                      aria-label={`Take ${e.name} out`}
                      onPress={() => told({ engines: v.engines.filter((_, k) => k !== i) })}
                    >
                      Take it out
                    </Button>
                  </Row>
                )}
              </Columns>
            ))}
            <Row>
              <Button
                onPress={() => {
                  const name = `Engine ${v.engines.length + 1}`;
                  told({ engines: [...v.engines, { id: name, name, cylinders: 4 }] });
                }}
              >
                Another engine
              </Button>
            </Row>
          </Sheet>
        );
      })}
      <Systems onEdit={edit} />
      <Trouble problem={problem} />
      <NextPart after="vehicle" />
    </>
  );
}
