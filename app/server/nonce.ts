/** Content-security-policy nonce of a page's own scripts, so that the browser runs no others. */
import { createContext } from "react";

declare module "react-router" {
  interface AppLoadContext {
    /** Of the page at hand; none in development. */
    nonce?: string | undefined;
  }
}

export const NonceContext = createContext<string | undefined>(undefined);
