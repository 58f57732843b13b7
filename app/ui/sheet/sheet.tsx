/** The sheet a record is written on; what is beside it is the Reckoner. */
import type { ReactNode } from "react";

/** A screen's heading with its acts. */
export function Heading({ title, about, children }: { title: ReactNode; about?: ReactNode; children?: ReactNode }) {
  return (
    <div className="mb-5 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
      <div className="min-w-0">
        <h1 className="text-page">{title}</h1>
        {about && <p className="mt-1 max-w-reading text-pine-soft">{about}</p>}
      </div>
      {children && <div className="no-print flex flex-wrap gap-2">{children}</div>}
    </div>
  );
}

/** Sheet and Reckoner side by side; on a phone its main figures stay at the foot of the screen, and the rest is a press away. */
export function SideBySide({ children, reckoner }: { children: ReactNode; reckoner: ReactNode }) {
  return (
    <div className="side-by-side grid items-start gap-6 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="min-w-0 space-y-6">{children}</div>
      {reckoner}
    </div>
  );
}

export function Sheet({ children, className = "", label }: { children: ReactNode; className?: string; label?: string }) {
  return (
    <section
      aria-label={label}
      className={`sheet min-w-0 rounded-md border border-rule bg-sheet px-4 py-4 shadow-sheet sm:px-6 sm:py-5 ${className}`}
    >
      {children}
    </section>
  );
}

interface PartProps {
  title: ReactNode;
  children: ReactNode;
  aside?: ReactNode;
  /** Something to fill in, which paper has no use for. */
  screenOnly?: boolean;
}

export function Part({ title, children, aside, screenOnly = false }: PartProps) {
  return (
    <div className={`mt-7 first:mt-0 ${screenOnly ? "no-print" : ""}`}>
      <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-large">{title}</h2>
        {aside}
      </div>
      {children}
    </div>
  );
}

/** An empty place: what goes here, and the first act. */
export function Empty({ title, children, act }: { title: string; children: ReactNode; act?: ReactNode }) {
  return (
    <div className="rounded-md border border-dashed border-rule-strong px-6 py-10 text-center">
      <svg
        aria-hidden="true"
        viewBox="0 0 40 44"
        className="mx-auto mb-3 h-12 text-rule-strong"
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
      >
        <rect x="11" y="3" width="18" height="6" rx="2" />
        <path d="M12 9c-5 2-7 5-7 9v18a5 5 0 0 0 5 5h20a5 5 0 0 0 5-5V18c0-4-2-7-7-9" />
      </svg>
      <p className="font-display text-large">{title}</p>
      <div className="mx-auto mt-1 max-w-md text-pine-soft">{children}</div>
      {act && <div className="mt-4 flex justify-center gap-2">{act}</div>}
    </div>
  );
}

/** A caution shown where the work needs it. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="flex gap-2.5 rounded border-l-4 border-honey bg-honey-wash px-3 py-2 text-small text-honey">
      <svg
        aria-hidden="true"
        viewBox="0 0 20 20"
        className="mt-0.5 h-5 w-5 flex-none"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.8"
        strokeLinecap="round"
      >
        <path d="M10 2.5 18.5 17h-17zM10 8v4M10 14.5v.2" />
      </svg>
      <span>{children}</span>
    </p>
  );
}
