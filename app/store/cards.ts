import { CARD_VERSION, cardFrom, fold, gistOf, unfold, type Card, type Folded } from "@core/job/card";
import { withReading } from "@core/record/job";
import type { Job, Reading } from "@core/record/types";
import { rulesReady } from "@core/schema/rule";
import { boxes, cards } from "./boxes";
import { openAt, opened } from "./opening";

/** A card that was being changed when its page died names what may not stand in it yet. */
interface StoredCard extends Folded {
  doubt?: { job: string; reading?: string }[];
}

/** Cards are ours and can be made anew: one that does not look like one is no card. */
export const isCard = (value: unknown, vehicle: string): value is StoredCard => {
  const card = value as Partial<StoredCard> | null;
  return (
    card?.version === CARD_VERSION &&
    card.vehicle === vehicle &&
    Array.isArray(card.open) &&
    typeof card.closed === "string"
  );
};

export const keepCard = (card: Card, doubt?: StoredCard["doubt"]): Promise<void> =>
  cards.set(card.vehicle, { ...fold(card), ...(doubt && { doubt }) });

/** The card of a vehicle: as it is kept, made whole where a page died over it, or anew where there is none. */
export async function cardOf(vehicle: string): Promise<Card> {
  const stored = await cards.get(vehicle);
  if (!isCard(stored, vehicle)) return (await rebuild([vehicle])).get(vehicle)!;
  const kept = unfold(stored);
  if (!stored.doubt?.length) return kept;
  const jobIds = new Set([...kept.jobs.map((j) => j.id), ...stored.doubt.map((d) => d.job)]);
  const keys = [
    ...kept.jobs.flatMap((j) => j.readings.map((r) => `${j.id}/${r.id}`)),
    ...stored.doubt.flatMap((d) => (d.reading ? [`${d.job}/${d.reading}`] : [])),
  ];
  const readings = await opened<Reading>("reading", [...new Set(keys)]);
  const jobs: Job[] = [];
  for (const job of await opened<Job>("job", [...jobIds])) {
    const told = stored.doubt.flatMap((d) => readings.filter((r) => d.job === job.id && d.reading === r.id));
    const whole = told.reduce(withLineOf, job);
    if (whole !== job) await boxes.job.set(job.id, whole);
    jobs.push(whole);
  }
  const card = cardFrom(vehicle, jobs, readings);
  await keepCard(card);
  return card;
}

/** A reading that was recorded just before the page died stands in the notebook too. */
function withLineOf(job: Job, reading: Reading): Job {
  const { recordedAt, withdrawnAt } = reading;
  if (!recordedAt || withdrawnAt || job.notebook.some((n) => n.at >= recordedAt && n.step === "read")) return job;
  return withReading(job, `Recorded, ${gistOf(reading).says}.`, recordedAt);
}

/** Makes cards anew, from all jobs and readings: once, where they are missing. */
export async function rebuild(vehicles: readonly string[]): Promise<Map<string, Card>> {
  await rulesReady();
  const wanted = new Map(vehicles.map((v) => [v, { jobs: [] as Job[], readings: [] as Reading[] }]));
  await boxes.job.each((raw, key) => {
    const job = openAt("job", key, raw);
    if (job?.kind === "job") wanted.get(job.vehicle)?.jobs.push(job);
  });
  await boxes.reading.each((raw, key) => {
    const reading = openAt("reading", key, raw);
    if (reading?.kind === "reading") wanted.get(reading.vehicle)?.readings.push(reading);
  });
  const made = new Map<string, Card>();
  for (const [vehicle, { jobs, readings }] of wanted) {
    const card = cardFrom(vehicle, jobs, readings);
    made.set(vehicle, card);
    await keepCard(card);
  }
  return made;
}
