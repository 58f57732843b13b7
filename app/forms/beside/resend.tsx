/**
 * Sends again what an earlier page of this tab sent and got no answer to, reloads the data of the page below, and lists what was refused. It wraps
 * every page that sends requests in the background.
 */
import { isObject } from "#core/objects";
import { Fragment, startTransition, useEffect, useState, type ReactNode } from "react";
import { useRevalidator } from "react-router";
import { Button } from "../../ui/fields/form.tsx";
import { postBeside } from "./beside.ts";
import { answered, leftOver, type Sent } from "./outbox.ts";

/** After half a day too much may have happened at the bench: the maker is told instead of the request sent. */
const TOO_OLD_MS = 12 * 3_600_000;
const clock = (): number => Date.now();

/** The value at a field's path. @example valueAt({ takes: [{ weighed: "5 g" }] }, "takes.0.weighed") // "5 g" */
const valueAt = (body: unknown, field: string): unknown =>
  field.split(".").reduce<unknown>((v, key) => (isObject(v) || Array.isArray(v) ? (v as Record<string, unknown>)[key] : undefined), body);

/** @returns what was refused of it, each with what was typed */
async function resend(sent: Sent): Promise<string[]> {
  if (clock() - sent.at > TOO_OLD_MS) {
    answered(sent.key);
    return [
      "Something entered more than half a day ago never reached the server, and is too old to be sent now. See what is missing, and enter it again.",
    ];
  }
  const body = JSON.parse(sent.text) as object;
  const problems = await postBeside({ ...sent, text: JSON.stringify({ ...body, late: true }) });
  return problems.map(({ field, say }) => {
    const typed = valueAt(body, field);
    return `${typeof typed === "string" && typed !== "" ? `“${typed}”` : "Something"} wasn’t saved: ${say}`;
  });
}

export function Resend({ children }: { children: ReactNode }) {
  const { revalidate } = useRevalidator();
  const [sending, setSending] = useState(false);
  const [refused, setRefused] = useState<readonly string[]>([]);
  // Forms below were filled in before: each round mounts them again.
  const [round, setRound] = useState(0);
  useEffect(() => {
    const left = leftOver();
    if (left.length === 0) return;
    setSending(true);
    void (async () => {
      const said: string[] = [];
      for (const sent of left) said.push(...(await resend(sent)));
      await revalidate();
      // With the data that came, which the router draws in a transition: forms mounted before it would show what was there.
      startTransition(() => {
        // A page that closes sends its last request twice.
        setRefused([...new Set(said)]);
        setRound((n) => n + 1);
        setSending(false);
      });
    })();
    // Once, when the page is opened: its own requests wait for their answers themselves.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  return (
    <>
      {refused.length > 0 && (
        <div role="alert" className="mb-4 rounded border-l-4 border-berry bg-sheet px-4 py-2">
          <p className="font-semibold">Typed or done before this page was loaded, while the server was away:</p>
          <ul className="list-disc pl-5">
            {refused.map((say) => (
              <li key={say}>{say}</li>
            ))}
          </ul>
          <Button small className="mt-1.5" onClick={() => setRefused([])}>
            I have read it
          </Button>
        </div>
      )}
      <div inert={sending} className={sending ? "opacity-50" : undefined}>
        <Fragment key={round}>{children}</Fragment>
      </div>
    </>
  );
}
