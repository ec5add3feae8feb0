import { boxes, placed, values } from "./boxes";
import { DONE } from "./move";

/** Has nothing been stored on this device yet? Then nothing has to be loaded that reads or checks records. */
export async function isUntouched(): Promise<boolean> {
  await placed();
  const [vehicles, loose] = await Promise.all([boxes.vehicle.keys(), values.keys()]);
  return !vehicles.length && loose.every((key) => key === DONE);
}
