import { StrictMode, startTransition } from "react";
import { hydrateRoot } from "react-dom/client";
import { rulesReady } from "@core/schema/rule";
import { HydratedRouter } from "react-router/dom";
import { clientNonce, NonceContext } from "./nonce";
import { registerOffline } from "./offline/register";
import { looksIn } from "./store/look";

// All modules of this page are loaded: errors have their stacks again (see root.tsx).
Error.stackTraceLimit = 10;

// A page that came from what is kept does not know how it is to look.
Object.assign(document.documentElement.dataset, looksIn(document.cookie));

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

// Every page but an empty garage holds what it opens against its rules.
if (location.pathname !== "/" || navigator.serviceWorker?.controller) rulesReady().catch(() => undefined);

registerOffline();
