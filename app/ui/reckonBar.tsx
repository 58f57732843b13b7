/** The reckon bar: one key from anywhere, a question in, an answer or the place to go out. */
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, useFetcher } from "react-router";
import type { Reckoned } from "../reckon/reckon.ts";
import { useKey } from "./keys.tsx";
import { Modal } from "./modal.tsx";

const EXAMPLES = ["2 1/2 cups sunflower oil in g", "30 drops lavender in 400 g", "cost 60 x hand balm"];
const PAUSE_MS = 180;

export function ReckonBar() {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const ask = useFetcher<Reckoned>();
  useKey("=", () => setOpen(true));
  const { load } = ask;
  useEffect(() => {
    if (text.trim() === "") return;
    const wait = setTimeout(() => void load(`/reckon?q=${encodeURIComponent(text)}`), PAUSE_MS);
    return () => clearTimeout(wait);
  }, [text, load]);
  const answer = text.trim() === "" ? null : ask.data;
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="act act-small" aria-label="Reckon (key =)">
        <span aria-hidden="true" className="weight font-bold text-amber">
          =
        </span>
        Reckon
      </Dialog.Trigger>
      <Modal title="Reckon">
        <input
          className="field text-[1.15rem]"
          aria-label="Question"
          placeholder="An amount, a cost, a lot number …"
          value={text}
          onChange={(e) => setText(e.target.value)}
          autoFocus
          autoComplete="off"
        />
        <div aria-live="polite" className="mt-4 min-h-24">
          {answer ? (
            <>
              <p className={`text-[1.3rem] leading-snug font-bold ${answer.problem ? "text-berry" : ""}`}>{answer.say}</p>
              {answer.steps.map((s) => (
                <p key={s} className="mt-1 border-l-2 border-amber-glass pl-3 text-pine-soft">
                  {s}
                </p>
              ))}
              {answer.places.map((p) => (
                <p key={p.to} className="mt-2">
                  <Link to={p.to} onClick={() => setOpen(false)} className="text-amber underline underline-offset-4">
                    {p.name}
                  </Link>
                </p>
              ))}
            </>
          ) : (
            <>
              <p className="text-pine-soft">Type it as you would say it:</p>
              <ul className="mt-1 space-y-1">
                {EXAMPLES.map((e) => (
                  <li key={e}>
                    <button type="button" className="weight pressable" onClick={() => setText(e)}>
                      {e}
                    </button>
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      </Modal>
    </Dialog.Root>
  );
}
