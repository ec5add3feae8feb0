import type { Vehicle } from "@core/record/types";
import { Mono } from "./bits";

/** Something that was changed on a vehicle, with the codes that it explains. */
export function ChangeText({ change: { text, codes } }: { change: Vehicle["changes"][number] }) {
  return (
    <span style={{ overflowWrap: "anywhere" }}>
      {text}
      {codes.length > 0 && (
        <>
          {" "}
          · expects <Mono>{codes.join(", ")}</Mono>
        </>
      )}
    </span>
  );
}
