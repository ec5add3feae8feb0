import { useFetcher } from "react-router";
import { useMake } from "~/store/use-make";
import { glovePath, makePath } from "~/store/paths";
import { saveFile } from "~/store/save-file";
import { Button, LinkButton } from "~/ui/Button";
import { Mono, Row, Sheet, Soft } from "~/ui/bits";
import { METHOD_WORDS } from "~/ui/methods";
import { Trouble } from "~/ui/Trouble";

/** What a make that ships holds; to change it a copy is taken. */
export function MakeAbout() {
  const { pack, usedBy } = useMake();
  const fetcher = useFetcher<{ problem: string } | null>();
  return (
    <>
      <h1>{pack.title}</h1>
      <Soft>
        Revision {pack.revision}. {pack.source}
      </Soft>
      <Row>
        <Button
          isDisabled={fetcher.state !== "idle"}
          onPress={() =>
            void fetcher.submit(
              { intent: "copy" },
              { method: "post", action: makePath(pack.id), encType: "application/json" },
            )
          }
        >
          Copy it to change it
        </Button>
        <Button onPress={() => saveFile(`${pack.id}.klinko-pack.json`, JSON.stringify(pack, null, 1))}>
          Save as a file
        </Button>
        <LinkButton to={glovePath(pack.id)}>Page for the glovebox</LinkButton>
      </Row>
      <Trouble problem={fetcher.data?.problem} />
      {usedBy.length > 0 && <Soft>Used by {usedBy.join(", ")}.</Soft>}
      <Sheet>
        <h2>Ways in</h2>
        <ul>
          {pack.ways.map((w) => (
            <li key={w.id}>
              {w.title}. <Soft as="span">{METHOD_WORDS[w.method]}</Soft>
            </li>
          ))}
        </ul>
      </Sheet>
      {pack.tables.map((t) => (
        <Sheet key={t.id}>
          <h2>
            {pack.systems.find((s) => s.id === t.system)?.name}: {t.entries.length} codes
          </h2>
          <ul>
            {t.entries.map((e, i) => (
              <li key={i}>
                <Mono style={{ fontWeight: 700 }}>{e.code}</Mono> {e.title}
              </li>
            ))}
          </ul>
        </Sheet>
      ))}
    </>
  );
}
