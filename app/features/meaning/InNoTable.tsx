import { useEffect, useState } from "react";
import { Link } from "react-router";
import { FITS_SEEN, misreadAsked, type Misread } from "@core/job/misread";
import type { Meaning } from "@core/pack/lookup";
import type { Entry } from "@core/pack/pack";
import { useJob } from "~/store/use-job";
import { flashWorker } from "~/workers/flash";
import { Mono, Soft } from "~/ui/bits";
import { Why } from "~/ui/Why";

/** A code without an entry: what it can be, how well that fits what was seen, and where else it stands. */
export function InNoTable({ code, nearMisses }: Pick<Meaning, "code" | "nearMisses">) {
  const misread = useMisread(code);
  return (
    <>
      <h2>In no table of this vehicle</h2>
      <p>
        A miscount, a status code that is not written down, or the table of another year. Read once more before you
        chase it.
      </p>
      {misread === "none" && nearMisses.length > 0 && (
        <div>
          <h3>One flash away, and in the table</h3>
          <Entries of={nearMisses} />
        </div>
      )}
      {misread === "asking" && <Soft role="status">Holding the codes next to it against what was seen.</Soft>}
      {typeof misread !== "string" && <Weighed misreads={misread} />}
      <p>
        <Link to={`/codes?q=${code}`}>Look for {code} in all makes</Link>
      </p>
    </>
  );
}

/** Slips that fit what was seen, and those that would have to be made each time. */
function Weighed({ misreads }: { misreads: readonly Misread[] }) {
  const fitting = misreads.filter((m) => m.share >= FITS_SEEN);
  const others = misreads.filter((m) => m.share < FITS_SEEN);
  return (
    <>
      {fitting.length > 0 && (
        <div>
          <h3>What could have been misread</h3>
          <ul>
            {fitting.map((m) => (
              <li key={m.instead.map((e) => e.code).join(" ")}>
                <Entries of={m.instead} />
                <Soft>
                  {m.kind === "pairs" ? "The digits paired the other way. " : ""}
                  {fits(m.share)}
                </Soft>
              </li>
            ))}
          </ul>
        </div>
      )}
      {others.length > 0 && (
        <Why
          label="Next to it, and only with the same slip every time"
          lines={others.map((m) => m.instead.map((e) => `${e.code} ${e.title}, ${e.circuit}`).join("; "))}
          open={fitting.length === 0}
        />
      )}
    </>
  );
}

const fits = (share: number): string =>
  share >= 0.5
    ? "Fits what was seen better than the code that was read."
    : share >= 0.1
      ? "Fits what was seen nearly as well."
      : "Only with a slip in what was seen.";

function Entries({ of }: { of: readonly Entry[] }) {
  return (
    <ul>
      {of.map((e) => (
        <li key={e.code}>
          <Mono>{e.code}</Mono> {e.title}, {e.circuit}
        </li>
      ))}
    </ul>
  );
}

/** The likeliest slips; `none`: there is nothing to hold them against, or that failed. */
function useMisread(code: string): readonly Misread[] | "asking" | "none" {
  const data = useJob();
  const asked = misreadAsked(data, data.access.system, code);
  // Made anew with each picture of the page: told apart by the readings it rests on.
  const key = asked && JSON.stringify([asked.dialect.id, asked.watches.map((w) => w.lists), asked.slips]);
  const [answer, set] = useState<{ key: string; misreads: readonly Misread[] | null } | null>(null);
  useEffect(() => {
    if (!asked || !key) return;
    let gone = false;
    flashWorker("judge")
      .misreads(asked)
      .then(
        (misreads) => !gone && set({ key, misreads }),
        () => !gone && set({ key, misreads: null }),
      );
    return () => {
      gone = true;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  if (!key) return "none";
  if (answer?.key !== key) return "asking";
  return answer.misreads?.length ? answer.misreads : "none";
}
