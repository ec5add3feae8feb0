import { useState } from "react";
import { useRevalidator } from "react-router";
import type { KeptLamp } from "@core/record/lamp";
import { forgetLamp } from "~/store/lamps";
import { ConfirmButton } from "~/ui/ConfirmButton";
import { Caution, Row, Sheet } from "~/ui/bits";
import { whyNot } from "./session";

/** Ways of blinking that were learned and kept on this device; each can be forgotten. */
export function KeptLamps({ lamps }: { lamps: readonly KeptLamp[] }) {
  const { revalidate } = useRevalidator();
  const [problem, setProblem] = useState<string | null>(null);
  if (!lamps.length) return null;
  const forget = (id: string) =>
    forgetLamp(id)
      .then(revalidate)
      .catch((error: unknown) => setProblem(whyNot(error)));
  return (
    <Sheet aria-label="Lamps that you taught Klinko">
      <h2>Lamps that you taught Klinko</h2>
      {problem && <Caution>{problem}</Caution>}
      <ul>
        {lamps.map(({ id, name }) => (
          <li key={id}>
            <Row $gap={12}>
              <span>{name}</span>
              <ConfirmButton
                label="Forget it"
                question={`Forget how ${name} talks?`}
                sure="Forget it"
                onConfirm={() => void forget(id)}
              />
            </Row>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
