/**
 * What a page before this one couldn't send any more is sent by this one, which is read anew with it; what is refused is said. Around each page that
 * keeps something beside it.
 */
import { isRecord } from "#core/record";
import { Fragment, useEffect, useState, type ReactNode } from "react";
import { useRevalidator } from "react-router";
import { postBeside } from "../../forms/beside.ts";
import { leftOver, type Sent } from "../../forms/outbox.ts";
import { Button } from "../fields/form.tsx";

/** What stands at a field of what was sent. @example at({ takes: [{ weighed: "5 g" }] }, "takes.0.weighed") // "5 g" */
const at = (body: unknown, field: string): unknown =>
  field.split(".").reduce<unknown>((v, key) => (isRecord(v) || Array.isArray(v) ? (v as Record<string, unknown>)[key] : undefined), body);

/** Sends one. @returns what couldn't be kept of it, with what was typed */
async function send(sent: Sent): Promise<string[]> {
  return (await postBeside(sent)).map(({ field, say }) => {
    const typed = at(JSON.parse(sent.text), field);
    return `${typeof typed === "string" && typed !== "" ? `“${typed}”` : "Something"} wasn’t kept: ${say}`;
  });
}

export function Outbox({ children }: { children: ReactNode }) {
  const { revalidate } = useRevalidator();
  const [sending, setSending] = useState(false);
  const [refused, setRefused] = useState<readonly string[]>([]);
  // Sheets that were filled in before it was sent are drawn anew.
  const [round, setRound] = useState(0);
  useEffect(() => {
    const left = leftOver();
    if (left.length === 0) return;
    setSending(true);
    void (async () => {
      const said: string[] = [];
      for (const sent of left) said.push(...(await send(sent)));
      await revalidate();
      // What was on its way as the page went was sent once more as it did.
      setRefused([...new Set(said)]);
      setRound((n) => n + 1);
      setSending(false);
    })();
    // Once, as the page is opened: whatever this one sends waits for its answer itself.
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
