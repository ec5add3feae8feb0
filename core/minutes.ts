/** Minutes as somebody types them, with a point or a comma: up to a day, else null. */
export function readMinutes(typed: string): number | null {
  const value = Number(typed.trim().replace(",", "."));
  return typed.trim() !== "" && value >= 0 && value <= 1440 ? value : null;
}
