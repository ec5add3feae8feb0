import { StrictMode, startTransition } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { clientNonce, NonceContext } from "./nonce";

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <NonceContext value={clientNonce()}>
        <HydratedRouter />
      </NonceContext>
    </StrictMode>,
  );
});
