import { createContext, useContext } from "react";

/** The page's CSP nonce; on the client it is read from the meta element, since scripts may not see the attribute. */
export const NonceContext = createContext<string | undefined>(undefined);
export const useNonce = () => useContext(NonceContext);

export function clientNonce(): string | undefined {
  return document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.content;
}
