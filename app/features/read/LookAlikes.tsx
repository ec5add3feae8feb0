import { lookAlikes } from "@core/display/segments";
import type { Entry } from "@core/pack/pack";
import { Button } from "~/ui/Button";
import { Mono, Row, Soft } from "~/ui/bits";

/** Codes of the table that an unclear number may have been, each a touch away. */
export function LookAlikes({
  typed,
  digits,
  entries,
  onPick,
}: {
  typed: string;
  digits: number;
  entries: readonly Entry[];
  onPick: (code: string) => void;
}) {
  const all = lookAlikes(
    typed,
    entries.map((e) => e.code),
    digits,
  );
  // Where some fit what was clear, those with a misread segment besides are too far off.
  const found = all.filter((l) => l.apart <= all[0].apart + 1).slice(0, 6);
  if (!found.length) return <Soft>No code of this table looks like it. Read the display once more.</Soft>;
  return (
    <div role="group" aria-label={`What ${typed} may be`}>
      <Soft>It may be:</Soft>
      <Row $gap={8}>
        {found.map(({ code }) => (
          <Button key={code} onPress={() => onPick(code)}>
            <Mono>{code}</Mono> {entries.find((e) => e.code === code)?.title}
          </Button>
        ))}
      </Row>
    </div>
  );
}
