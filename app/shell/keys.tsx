/** Keys: what each does, under `?`. */
import { Dialog } from "radix-ui";
import { lazy, Suspense, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { STATIONS } from "../ui/frame/stations.ts";
import { typing, useKey } from "../ui/frame/useKey.ts";
import { Modal } from "../ui/sheet/modal.tsx";

/** Fetched when somebody asks for it. */
const KeyList = lazy(() => import("./keyList.tsx"));

export function Keys() {
  const [open, setOpen] = useState(false);
  const go = useNavigate();
  useKey("?", () => setOpen(true));
  useKey("n", () => document.querySelector<HTMLElement>("#work .act-main")?.click());
  useKey("/", () => document.querySelector<HTMLElement>("#work input[type=search]")?.focus());
  useEffect(() => {
    const listen = (e: KeyboardEvent): void => {
      // 1 is the first station, 0 the tenth.
      const station = /^\d$/.test(e.key) && STATIONS[(Number(e.key) + 9) % 10];
      if (station && !e.ctrlKey && !e.metaKey && !e.altKey && !typing(e.target)) void go(station[0]);
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
        <Suspense>
          <KeyList />
        </Suspense>
      </Modal>
    </Dialog.Root>
  );
}
