/** Keys: what each does, under `?`. */
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { typing, useKey } from "./useKey.ts";
import { Modal } from "../sheet/modal.tsx";

const STATION_KEYS = ["/", "/shelf", "/jars", "/recipes", "/bench", "/cabinet", "/prices", "/markets", "/gifts"];
const LIST: readonly (readonly [string, string])[] = [
  ["=", "Open the reckon bar"],
  ["1 … 9", "Go to a station, from Today to Gifts"],
  ["0", "Go to Lots"],
  ["n", "The first act of this screen: receive, write, set out …"],
  ["/", "Find on this screen"],
  ["Enter", "In a table of lines: next row, a new one after the last"],
  ["↓", "In a field for names: what there is to choose from"],
  ["Alt ↓", "In a field for a day: the calendar"],
  ["Ctrl V", "In a table of lines: paste rows from a spreadsheet"],
  ["?", "These keys"],
];

export function Keys() {
  const [open, setOpen] = useState(false);
  const go = useNavigate();
  useKey("?", () => setOpen(true));
  useKey("n", () => document.querySelector<HTMLElement>("#work .act-main")?.click());
  useKey("/", () => document.querySelector<HTMLElement>("#work input[type=search]")?.focus());
  useEffect(() => {
    const listen = (e: KeyboardEvent): void => {
      const to = e.key === "0" ? "/lots" : STATION_KEYS[Number(e.key) - 1];
      if (to && !e.ctrlKey && !e.metaKey && !e.altKey && !typing(e.target)) void go(to);
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [go]);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="act act-small max-sm:hidden" aria-label="Keys of this screen">
        ?
      </Dialog.Trigger>
      <Modal title="Keys">
        <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
          {LIST.map(([key, does]) => (
            <div key={key} className="contents">
              <dt className="weight font-semibold">{key}</dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
      </Modal>
    </Dialog.Root>
  );
}
