import { isRouteErrorResponse, useRevalidator, useRouteError } from "react-router";
import { StoreProblem } from "~/store/box";
import { Button, LinkButton } from "./Button";
import { Row, Sheet, Soft } from "./bits";
import { Main, TopBar } from "./Frame";

/** What stands where a page failed. The data is on the device and was not touched by the failure. */
function Problem({ error }: { error: unknown }) {
  const revalidator = useRevalidator();
  const missing = isRouteErrorResponse(error) && error.status === 404;
  // Nothing is called safe where the browser does not let us look.
  const store = error instanceof StoreProblem;
  const detail = isRouteErrorResponse(error)
    ? String(error.data || error.statusText)
    : error instanceof Error
      ? error.message
      : String(error);
  return (
    <Sheet role="alert">
      <h1>
        {missing
          ? "That is not here."
          : store
            ? error.kind === "no-store"
              ? "This browser keeps nothing for Klinko."
              : "It was not saved."
            : "This page could not be shown."}
      </h1>
      <p>{detail}</p>
      <Soft>
        {missing
          ? "The address may be old, or the record is on another device. Go back to the garage and pick it from the list."
          : store
            ? "What was saved before stays where it is. Try again once the browser has let go."
            : "What you recorded is still on this device. Try again; if it stays, go to the garage and open the job from there."}
      </Soft>
      <Row>
        {!missing && (
          <Button $look="primary" onPress={() => void revalidator.revalidate()}>
            Try again
          </Button>
        )}
        <LinkButton to="/" reloadDocument={!missing}>
          To the garage
        </LinkButton>
      </Row>
    </Sheet>
  );
}

/** For the steps of a job: the path and the notebook stay. */
export function StepProblem() {
  return <Problem error={useRouteError()} />;
}

/** For whole pages. */
export function PageProblem() {
  return (
    <>
      <TopBar />
      <Main id="work">
        <Problem error={useRouteError()} />
      </Main>
    </>
  );
}
