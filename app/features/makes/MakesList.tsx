import { Link } from "react-router";
import styled from "styled-components";
import type { Pack } from "@core/pack/pack";
import { missingIn } from "@core/pack/make/missing";
import type { LockedPack } from "~/store/packs";
import { shortTime } from "~/store/format";
import { makePath } from "~/store/paths";
import { LinkButton } from "~/ui/Button";
import { Caution, Row, Sheet, Soft } from "~/ui/bits";
import { METHOD_WORDS } from "~/ui/methods";
import { BringPack } from "./BringPack";

const List = styled.ul`
  display: grid;
  gap: 12px;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 340px), 1fr));
  > li {
    display: grid;
    gap: 4px;
    align-content: start;
    padding: 14px 16px;
    border-radius: 12px;
    background: var(--sheet);
    a {
      display: inline-flex;
      align-items: center;
      min-height: 48px;
      font-weight: 700;
      font-size: 1.1rem;
    }
  }
`;

/** A make that is in the garage's reach, with the vehicles that use it. */
export interface KnownMake {
  pack: Pack;
  usedBy: string[];
}

/** All makes: those made or brought in here first, then those that ship. */
export function MakesList({
  own,
  shipped,
  locked,
}: {
  own: KnownMake[];
  shipped: KnownMake[];
  locked: readonly LockedPack[];
}) {
  return (
    <>
      <h1>Makes</h1>
      <Soft>
        A make holds how its lamps are asked, how they talk and what the codes mean. Yours is built from a page of its
        manual.
      </Soft>
      <Row>
        <LinkButton $look="primary" to="/makes/new">
          Build a make
        </LinkButton>
      </Row>
      {locked.map((l) => (
        <Caution key={l.id}>
          {l.make} is stored here and cannot be used: {l.faults[0]?.path} {l.faults[0]?.message}. It stays as it is.
        </Caution>
      ))}
      {own.length > 0 && (
        <>
          <h2>On this device</h2>
          <List aria-label="Makes on this device">
            {own.map((m) => (
              <OneMake key={m.pack.id} {...m} />
            ))}
          </List>
        </>
      )}
      <Sheet>
        <h2>From a file</h2>
        <BringPack />
      </Sheet>
      <h2>With Klinko</h2>
      <List aria-label="Makes that ship with Klinko">
        {shipped.map((m) => (
          <OneMake key={m.pack.id} {...m} />
        ))}
      </List>
    </>
  );
}

function OneMake({ pack, usedBy }: KnownMake) {
  const codes = pack.tables.reduce((n, t) => n + t.entries.length, 0);
  const years = pack.variants.flatMap((v) => v.years);
  const methods = [...new Set(pack.ways.map((w) => w.method))];
  const missing = pack.own ? missingIn(pack) : [];
  return (
    <li>
      <Link to={makePath(pack.id)}>{pack.make}</Link>
      <p>
        {pack.variants.map((v) => v.model).join(", ")} · {Math.min(...years)} to {Math.max(...years)}
      </p>
      <Soft>
        {codes} codes · {methods.map((m) => METHOD_WORDS[m] ?? m).join("; ")}
      </Soft>
      <Soft>
        {pack.own ? `Changed ${shortTime(pack.revision)}` : `Revision ${pack.revision}`}. {pack.source}
      </Soft>
      {missing.some((m) => m.must) && <strong>Not ready yet: {missing[0].says}</strong>}
      {usedBy.length > 0 && (
        <Soft>
          Used by {usedBy.slice(0, 6).join(", ")}
          {usedBy.length > 6 && ` and ${usedBy.length - 6} more`}
        </Soft>
      )}
    </li>
  );
}
