/** The number that the content security policy lets a page's own scripts run by: given with the request, told to the page's document. */
import { createContext as createPageContext } from "react";
import { createContext } from "react-router";

/** Given by the web server with every request; none in development. */
export const nonceContext = createContext<string | undefined>(undefined);

/** The same, where the document is written. */
export const NonceContext = createPageContext<string | undefined>(undefined);
