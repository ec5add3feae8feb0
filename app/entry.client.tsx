import { StrictMode, startTransition } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { clientNonce, NonceContext } from "./nonce";
import { registerOffline } from "./offline/register";

// A page that came from what is kept does not know the theme.
const theme = /(?:^|;\s*)klinko-theme=(light|dark)/.exec(document.cookie)?.[1];
if (theme) document.documentElement.dataset.theme = theme;

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

registerOffline();
