/** Which of the two workshops is open, on every screen by colour and word, and the way to the other. */
import { SERVED } from "#core/workshop";
import { lazy, Suspense, useState } from "react";
import { useWorkshop } from "../ui/workshop.ts";

// Few go from one to the other; nobody else loads it.
const WhichMenu = lazy(() => import("./whichMenu.tsx"));

/** @param hasOwn whether there is a workshop of one's own */
export function WhichWorkshop({ hasOwn }: { hasOwn: boolean }) {
  const { kind, name } = useWorkshop();
  const [pressed, press] = useState(false);
  const tag = (
    <>
      <span className="font-semibold">{SERVED[kind].say}</span>
      <span className="hidden truncate sm:inline">{name}</span>
      <svg aria-hidden="true" viewBox="0 0 10 6" className="h-1.5 w-2.5 flex-none" fill="none" stroke="currentColor" strokeWidth="1.8">
        <path d="m1 1 4 4 4-4" />
      </svg>
      <span className="sr-only">Workshops</span>
    </>
  );
  const closed = (
    <button type="button" className="workshop-tag" data-kind={kind} aria-haspopup="menu" onClick={() => press(true)}>
      {tag}
    </button>
  );
  return pressed ? (
    <Suspense fallback={closed}>
      <WhichMenu hasOwn={hasOwn}>{tag}</WhichMenu>
    </Suspense>
  ) : (
    closed
  );
}
