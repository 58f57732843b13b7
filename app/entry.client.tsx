/** Client entry: hydrates the page as the framework does by default, with requests that are retried while the server is away. */
import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { retryRouterRequests } from "./forms/beside/fetchWithRetry.ts";

retryRouterRequests();

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <HydratedRouter />
    </StrictMode>,
  );
});
