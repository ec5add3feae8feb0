import { Link } from "react-router";
import { missingIn } from "@core/pack/make/missing";
import { saveFile } from "~/store/save-file";
import { useEdit, useMake } from "~/store/use-make";
import { glovePath, makePath } from "~/store/paths";
import { Button, LinkButton } from "~/ui/Button";
import { Row, Sheet, Soft } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";
import { LiveField, needed } from "./LiveField";
import { RehearseButton } from "./RehearseButton";
import { PART_NAMES } from "./parts";

/** What is still missing, a run through it with made-up faults, and the file and the page for the next owner. */
export function HandOver() {
  const { pack, usedBy } = useMake();
  const { edit, problem } = useEdit(pack);
  const missing = missingIn(pack);
  const must = missing.some((m) => m.must);
  const [variant] = pack.variants;
  const systems = pack.systems.filter((s) => variant.systems.some((x) => x.system === s.id));
  return (
    <>
      <h1>{must ? "Not ready yet" : missing.length ? "Ready, with some of it assumed" : "All of it is told"}</h1>
      {missing.length > 0 && (
        <Sheet>
          <ul style={{ display: "grid", gap: 8 }}>
            {missing.map((m) => {
              const part = m.part === "proving" ? "clears" : m.part;
              return (
                <li key={m.says}>
                  {m.says} <Link to={makePath(pack.id, part)}>{PART_NAMES[part]}</Link>
                </li>
              );
            })}
          </ul>
        </Sheet>
      )}
      <Sheet>
        <h2>Try it before a wire goes in</h2>
        <p>A simulated vehicle of this make hides some of its codes. Read them as you would in the yard.</p>
        <Row>
          {systems.map((s) => (
            <RehearseButton
              key={s.id}
              isDisabled={must}
              system={s.id}
              label={systems.length > 1 ? `Rehearse: ${s.name}` : "Rehearse"}
            />
          ))}
          <LinkButton to={`/vehicles/new?make=${encodeURIComponent(pack.id)}&model=${encodeURIComponent(variant.id)}`}>
            Add the real vehicle
          </LinkButton>
        </Row>
        {must && <Soft>First tell what is missing above.</Soft>}
        {usedBy.length > 0 && <Soft>Used by {usedBy.join(", ")}.</Soft>}
      </Sheet>
      <Sheet>
        <h2>For the next owner</h2>
        <LiveField
          label="Where it comes from"
          description="The manual, its page, a club's list"
          rows={2}
          keep={`make/${pack.id}/source`}
          value={pack.source}
          maxLength={1000}
          fault={needed("Say where it comes from: the next one has to know what to check it against.")}
          onStore={(source) => edit((p) => ({ ...p, source }))}
        />
        <LiveField
          label="Your note"
          rows={3}
          keep={`make/${pack.id}/note`}
          value={pack.own?.note ?? ""}
          maxLength={1000}
          onStore={(note) => edit((p) => ({ ...p, own: { assumed: p.own?.assumed ?? [], ...(note && { note }) } }))}
        />
        <Soft>As typed by its owner: whoever uses it checks it against the manual. Klinko adds nothing to it.</Soft>
        <Row>
          <Button
            $look="primary"
            onPress={() => saveFile(`${pack.id}.klinko-pack.json`, JSON.stringify(pack, null, 1))}
          >
            Save as a file
          </Button>
          <LinkButton to={glovePath(pack.id)}>Page for the glovebox</LinkButton>
        </Row>
        <Trouble problem={problem} />
      </Sheet>
    </>
  );
}
