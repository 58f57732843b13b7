/** A small sheet laid over the screen. Escape or a press beside it puts it away. */
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  title: string;
  children: ReactNode;
  about?: ReactNode;
  /** For what is read beside something else. */
  wide?: boolean;
}

export function Modal({ title, children, about, wide = false }: Props) {
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-40 bg-pine/40" />
      <Dialog.Content
        aria-describedby={undefined}
        className={`fixed top-[8vh] left-1/2 z-50 max-h-[84vh] ${wide ? "w-[min(46rem,calc(100vw-2rem))]" : "w-[min(34rem,calc(100vw-2rem))]"} -translate-x-1/2 overflow-y-auto rounded-md border border-rule bg-sheet px-6 py-5 shadow-xl`}
      >
        <div className="mb-3 flex items-baseline justify-between gap-4">
          <Dialog.Title className="text-title">{title}</Dialog.Title>
          <Dialog.Close className="act act-small">Close</Dialog.Close>
        </div>
        {about && <p className="mb-3 text-pine-soft">{about}</p>}
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  );
}
