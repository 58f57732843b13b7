/** What a page begins with in the browser: as the framework would by itself, with requests that wait for a server that is away. */
import { startTransition, StrictMode } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { beginPatience } from "./forms/beside/patient.ts";

beginPatience();

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <HydratedRouter />
    </StrictMode>,
  );
});
