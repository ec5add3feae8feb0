import { drivesOf, driveOfStory } from "@core/diagnosis/conditions";
import { goneSince } from "@core/diagnosis/gone";
import { useJob } from "~/store/use-job";
import { vehiclePath } from "~/store/paths";
import { LinkButton } from "~/ui/Button";
import { Sheet, Soft } from "~/ui/bits";

/** What the drives since the clear say of whether it is gone, from how often it came on before. */
export function QuietDrives() {
  const { job, vehicle } = useJob();
  const at = job.clears.at(-1)?.at;
  if (!at) return null;
  const drives = drivesOf(vehicle, [{ cameOn: driveOfStory(job.story, job.openedAt) }]);
  const gone = goneSince(drives, at);
  const under = gone?.condition ? `${gone.condition.toLowerCase()} ` : "";
  const times = (n: number) => `${n} ${under}${n === 1 ? "drive" : "drives"}`;
  return (
    <Sheet aria-label="Does the lamp stay out">
      <h2>Does the lamp stay out?</h2>
      {!gone ? (
        <p>Note each drive, quiet or not: how often it came on before says how much quiet drives prove.</p>
      ) : gone.p === 0 ? (
        <p>The lamp came on again since the clear: it is not gone.</p>
      ) : gone.since.of === 0 ? (
        <p>
          None of them was {under.trim()}, and that is when it came on before ({gone.before.on} of {gone.before.of}):
          they prove little.
        </p>
      ) : (
        <p>
          <strong>{times(gone.since.of)} without the lamp</strong>, and it used to come on in {gone.before.on} of{" "}
          {gone.before.of}: {Math.min(99, Math.round(100 * gone.p))} % that it is gone.
        </p>
      )}
      {gone !== null && gone.p > 0 && (
        <Soft>Counted from drives that were noted. If it were not gone, it would go on coming as often as before.</Soft>
      )}
      <div>
        <LinkButton to={`${vehiclePath(vehicle.id)}#drives`}>Note a drive</LinkButton>
      </div>
    </Sheet>
  );
}
