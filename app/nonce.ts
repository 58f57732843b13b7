/** The number a page's own scripts carry, so that the browser runs them and none that were slipped in; the server alone knows it. */
import { createContext } from "react";

declare module "react-router" {
  interface AppLoadContext {
    /** Of the page at hand; none in development. */
    nonce?: string | undefined;
  }
}

export const NonceContext = createContext<string | undefined>(undefined);
