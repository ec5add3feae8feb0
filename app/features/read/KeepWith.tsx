import { useEffect, useState } from "react";
import { lower } from "@core/job/say";
import { useFetcher } from "react-router";
import styled from "styled-components";
import { takersOf, type OpenJob, type Taker } from "@core/record/adopt";
import type { Vehicle } from "@core/record/types";
import { packById } from "~/store/packs";
import { vehicleName } from "~/store/vehicle-name";
import { Button, LinkButton } from "~/ui/Button";
import { Caution, Plate, Row, Sheet, Soft } from "~/ui/bits";
import type { ReadingSession } from "./session";

export interface Garage {
  vehicles: readonly Vehicle[];
  /** The open ones. */
  jobs: readonly OpenJob[];
}

const List = styled.ul`
  display: grid;
  gap: 10px;
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 14px;
  }
  span:nth-child(2) {
    flex: 1 1 120px;
  }
`;

/** So many vehicles are offered at once; the others when asked for. */
const SHOWN = 4;

/** Offers to take a reading that was made without a vehicle into a job, of those vehicles whose lamp blinks this way. */
export function KeepWith({ session, dialect, vehicles, jobs }: { session: ReadingSession; dialect: string } & Garage) {
  const fetcher = useFetcher<{ failed: true }>();
  const [all, setAll] = useState(false);
  const [unstored, setUnstored] = useState(false);
  const { data } = fetcher;
  useEffect(() => {
    if (data?.failed) session.takeBack();
  }, [data, session]);
  const takers = takersOf(dialect, vehicles, jobs, packById);
  const take = async ({ vehicle, access }: Taker) => {
    setUnstored(false);
    try {
      await session.handOver();
    } catch {
      return setUnstored(true);
    }
    await fetcher.submit(
      { vehicle: vehicle.id, system: access.system },
      { method: "post", encType: "application/json" },
    );
  };
  return (
    <Sheet aria-label="Keep it with a vehicle">
      <h2>Keep it with a vehicle</h2>
      {takers.length ? (
        <Soft>It goes into the open job, or a new one, and is recorded there. Until then it stays on this device.</Soft>
      ) : (
        <>
          <Soft>No vehicle in the garage blinks this way. Add it and come back: the reading stays on this device.</Soft>
          <Row>
            <LinkButton to="/vehicles/new">Add a vehicle</LinkButton>
          </Row>
        </>
      )}
      <List aria-label="Vehicles that blink this way">
        {(all ? takers : takers.slice(0, SHOWN)).map((t) => {
          const what = `${lower(t.access.name)}${t.job ? ", the open job" : ""}`;
          return (
            <li key={`${t.vehicle.id} ${t.access.system}`}>
              <Plate>{t.vehicle.plate}</Plate>
              <span>
                {vehicleName(t.vehicle)}: {what}
              </span>
              <Button
                aria-label={`Keep it here: ${t.vehicle.plate}, ${what}`}
                isDisabled={fetcher.state !== "idle"}
                onPress={() => void take(t)}
              >
                Keep it here
              </Button>
            </li>
          );
        })}
      </List>
      {takers.length > SHOWN && !all && (
        <Row>
          <Button $look="quiet" onPress={() => setAll(true)}>
            {takers.length - SHOWN} more
          </Button>
        </Row>
      )}
      {(unstored || data?.failed) && (
        <div role="alert">
          <Caution>
            It could not be stored: this browser has no room for it, or lost hold of its store. It is still here: free
            some room, then try again.
          </Caution>
        </div>
      )}
    </Sheet>
  );
}
