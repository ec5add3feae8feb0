import { useMake } from "~/store/use-make";
import { makePath, type MakePart } from "~/store/paths";
import { LinkButton } from "~/ui/Button";
import { StepAction } from "~/ui/bits";
import { PART_NAMES, partsOf } from "./parts";

/** On to the next part: everything is stored already. */
export function NextPart({ after }: { after: MakePart }) {
  const { pack } = useMake();
  const parts = partsOf(pack);
  const next = parts[parts.indexOf(after) + 1];
  if (!next) return null;
  return (
    <StepAction>
      <LinkButton $look="primary" to={makePath(pack.id, next)}>
        Next: {PART_NAMES[next]}
      </LinkButton>
    </StepAction>
  );
}
