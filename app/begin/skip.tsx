/** The button that skips a first step; it can be found again among them. */
import type { StepId } from "#core/settings/firstSteps";
import { useFetcher } from "react-router";
import { Button } from "../ui/fields/form.tsx";

export function Skip({ id, token }: { id: StepId; token: string }) {
  const skip = useFetcher();
  return (
    <Button
      disabled={skip.state !== "idle"}
      onClick={() =>
        void skip.submit({ intent: "skip", step: id, token }, { method: "post", action: "/begin", encType: "application/json" })
      }
    >
      Skip for now
    </Button>
  );
}
