/** Taking an act back with one press. */
import { useFetcher } from "react-router";
import type { Reply } from "../forms/sheet.server.ts";
import { Problem } from "../ui/fields/form.tsx";

/**
 * The button that takes an act back, with the reason when it can't.
 * @param label says of which act, in a list of them, where it is drawn paler than the words
 */
export function TakeBack({ actId, label, main }: { actId: number; label?: string; main?: boolean }) {
  const back = useFetcher<Reply | null>();
  const problem = back.data?.problems[0];
  return (
    <>
      <button
        type="button"
        className={label ? "pressable text-small" : main ? "act" : "act act-small"}
        aria-label={label}
        disabled={back.state !== "idle"}
        onClick={() => void back.submit({ actId }, { method: "post", action: "/take-back", encType: "application/json" })}
      >
        Take it back
      </button>
      <Problem say={problem?.say} see={problem?.see} />
    </>
  );
}
