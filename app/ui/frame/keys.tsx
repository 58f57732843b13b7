/** Keys: what each does, under `?`. */
import { Dialog } from "radix-ui";
import { lazy, Suspense, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { typing, useKey } from "./useKey.ts";
import { Modal } from "../sheet/modal.tsx";

const STATION_KEYS = ["/", "/shelf", "/jars", "/recipes", "/bench", "/cabinet", "/prices", "/markets", "/gifts"];
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
        <Suspense>
          <KeyList />
        </Suspense>
      </Modal>
    </Dialog.Root>
  );
}
