import { play } from "@core/cases/lamp";
import { personOf, tap } from "@core/cases/watchers";
import { decode } from "@core/flash/decode";
import { memoriesOf, type Dialect } from "@core/flash/dialect/dialect";
import { possibleFaults } from "@core/flash/dialect/digits";
import { seeded } from "@core/flash/dialect/encode";

const MARKS = [100, 600, 2000, 10_000];
const RANDOM_MARKS = 1_000_000;

/** Time and memory of long watches: a hurried person taps on and on; and a million presses that mean nothing. */
export function benchScale(dialect: Dialect): number {
  const [first] = memoriesOf(dialect);
  const possible = possibleFaults(dialect);
  const list = [possible[16], possible[32], possible[48]];
  const memory = () => `${Math.round(process.memoryUsage().rss / 1e6)} MB`;
  for (const marks of MARKS) {
    const random = seeded(marks);
    const until = marks * 1350;
    const played = play(dialect, { [first]: list }, { seed: 5, from: -500, until, speed: 1.07, jitter: 0.03 });
    const taps = tap(dialect, played, personOf("hard", random), random);
    const begin = performance.now();
    const got = decode(dialect, { mode: "taps", taps, until });
    const right = got.codes.join(" ") === list.join(" ") ? "right" : "WRONG";
    console.log(
      `${taps.length} marks: ${Math.round(performance.now() - begin)} ms, ${memory()}, ${right}, certainty ${got.confidence.toFixed(3)}`,
    );
  }
  const random = seeded(1);
  const until = RANDOM_MARKS * 700;
  const taps = Array.from({ length: RANDOM_MARKS }, () => until * random());
  const begin = performance.now();
  const got = decode(dialect, { mode: "taps", taps, until });
  console.log(
    `${RANDOM_MARKS} random presses: ${Math.round(performance.now() - begin)} ms, ${memory()}, ${got.misfit ?? `codes ${got.codes.join(" ")}`}`,
  );
  return 0;
}
