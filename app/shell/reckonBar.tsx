/** The reckon bar: one key from anywhere, a question in, an answer or the place to go out. */
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, useFetcher, useNavigate } from "react-router";
import { EXAMPLES, type Reading } from "../reckon/reading.ts";
import { useKey } from "../ui/frame/useKey.ts";
import { Modal } from "../ui/sheet/modal.tsx";

const PAUSE_MS = 180;

/** One reading of the question; the first is the likeliest, the others are listed under it. */
function One({ reading: r, first, leave }: { reading: Reading; first: boolean; leave: () => void }) {
  return (
    <div className={first ? "" : "mt-3 border-t border-rule pt-2"}>
      <p className={`leading-snug font-bold ${first ? "text-large" : "text-lead"} ${r.problem ? "text-berry" : ""}`}>{r.say}</p>
      {r.steps.map((s, i) => (
        <p key={i} className="mt-1 border-l-2 border-amber-glass pl-3 text-pine-soft">
          {s}
        </p>
      ))}
      <p className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
        {r.places.map((p) => (
          <Link key={p.to} to={p.to} onClick={leave} className="pressable">
            {p.name}
          </Link>
        ))}
      </p>
    </div>
  );
}

export function ReckonBar() {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const ask = useFetcher<Reading[]>();
  useKey("=", () => setOpen(true));
  const { load } = ask;
  useEffect(() => {
    if (text.trim() === "") return;
    const wait = setTimeout(() => void load(`/reckon?q=${encodeURIComponent(text)}`), PAUSE_MS);
    return () => clearTimeout(wait);
  }, [text, load]);
  const readings = text.trim() === "" ? undefined : ask.data;
  const go = useNavigate();
  // Enter goes where the first answer leads.
  const follow = (): void => {
    const to = readings?.find((r) => r.places.length > 0)?.places[0]?.to;
    if (to === undefined || ask.state !== "idle") return;
    setOpen(false);
    void go(to);
  };
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
          className="field text-lead"
          aria-label="Question"
          placeholder="An amount, a cost, a lot number …"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.key === "Enter" && follow()}
          autoFocus
          autoComplete="off"
        />
        <div aria-live="polite" className="mt-4 min-h-24">
          {readings?.map((r, i) => (
            <One key={`${r.say} ${i}`} reading={r} first={i === 0} leave={() => setOpen(false)} />
          ))}
          {(!readings || readings.every((r) => r.problem)) && (
            <>
              {!readings && <p className="text-pine-soft">Type it as you would say it:</p>}
              <ul className="mt-1 grid gap-x-4 sm:grid-cols-2">
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
