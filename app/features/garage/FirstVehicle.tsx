import { useFetcher } from "react-router";
import { Button, LinkButton } from "~/ui/Button";
import { Empty, Row } from "~/ui/bits";
import { Trouble } from "~/ui/Trouble";

/** What stands in a garage that is empty. */
export function FirstVehicle() {
  const { state, data, submit } = useFetcher<{ problem: string } | null>();
  return (
    <Empty title="Put in the first vehicle">
      <p>Klinko watches its lamp with you, says what the codes mean on it, and keeps the notebook.</p>
      <Row>
        <LinkButton $look="primary" to="/vehicles/new">
          Add a vehicle
        </LinkButton>
        <Button
          isDisabled={state !== "idle"}
          onPress={() => void submit({ intent: "demo" }, { method: "post", action: "/?index" })}
        >
          Look around with a demo fleet
        </Button>
      </Row>
      <Trouble problem={data?.problem} />
    </Empty>
  );
}
