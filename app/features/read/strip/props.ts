import type { Decoded } from "@core/flash/decode";
import type { MarkEdit } from "@core/record/edit";
import type { Mark } from "@core/record/types";
import type { Second } from "./layout";

export interface StripProps {
  marks: readonly Mark[];
  decoded: Decoded | null;
  /** Onset to onset of two flashes of a digit, ms, for adding one. */
  period: number;
  /** How long a short and a long flash last, ms, where there are both. */
  lengths: { short: number; long: number } | null;
  /** Keeps the newest marks in view. */
  follow: boolean;
  onEdit: (edit: MarkEdit) => void;
  /** Where a film stands, ms; touching the band goes there. */
  playhead?: number | null;
  onSeek?: (ms: number) => void;
  second?: Second | null;
}
