/**
 * What the tool works out from a sheet, live: figures that say how they were reached. Beside the sheet; where there is no room beside it, its
 * main figures are at the foot of the screen, within reach of the thumb that types.
 */
import { createContext, use, useId, useState, type ReactNode } from "react";
import { useOnceLeft } from "../fields/onceLeft.ts";

/** Whether the sheet can't be read: then none of its figures is shown. */
const Unread = createContext(false);

interface ReckonerProps {
  children: ReactNode;
  title?: string;
  /** What of the sheet can't be read yet, or doesn't add up. @example firstUnread([["Postage", parseMoney("1.2.3")]]) */
  unread?: string | null;
  /** Whether it is printed with its sheet: not with one that is written on, or given away. */
  onPaper?: boolean;
}

export function Reckoner({ children, title = "Reckoner", unread = null, onPaper = true }: ReckonerProps) {
  const [open, setOpen] = useState(false);
  const id = useId();
  return (
    <aside aria-label={title} className="reckoner" data-open={open} data-paper={onPaper ? undefined : "none"}>
      <div className="flex items-center justify-between gap-4">
        <h2 className="text-large lg:mb-2">{title}</h2>
        <button
          type="button"
          className="pressable no-print min-h-11! px-2 text-small lg:hidden"
          aria-expanded={open}
          aria-controls={id}
          onClick={() => setOpen(!open)}
        >
          {open ? "Fewer figures" : "All figures"}
        </button>
      </div>
      <Figures id={id} unread={unread}>
        {children}
      </Figures>
    </aside>
  );
}

/** Figures under the Reckoner's rule, within the sheet itself too: while something can't be read, none is shown, and the reason is. */
export function Figures({ id, children, unread }: { id?: string; children: ReactNode; unread: string | null }) {
  const says = useOnceLeft(unread);
  return (
    <div id={id} className="figures divide-y divide-rule">
      <Unread value={unread !== null}>{children}</Unread>
      {says && (
        <p role="note" className="figure-main py-1.5 text-small font-semibold text-honey">
          No figures until it adds up: {says}
        </p>
      )}
    </div>
  );
}

interface FigureProps {
  label: ReactNode;
  value: ReactNode;
  /** Worked out only once it is opened, where it is a function. */
  how?: ReactNode | (() => ReactNode);
  /** One of the main figures, which stay in sight on a phone. */
  big?: boolean;
  tone?: "warn" | "bad" | "good";
}

/** One figure; where there is a `how`, opening it says how it was reached. */
export function Figure({ label, value, how, big, tone }: FigureProps) {
  const unread = use(Unread);
  const [opened, open] = useState(false);
  const colour = unread ? "" : tone === "bad" ? "text-berry" : tone === "warn" ? "text-honey" : tone === "good" ? "text-sage" : "";
  const looks = `num ${colour} ${big ? "text-heading leading-tight font-bold" : "font-semibold"}`;
  const main = big ? "figure-main" : "";
  if (unread || !how)
    return (
      <div className={`${main} flex items-baseline justify-between gap-3 py-1.5`}>
        <span className="text-pine-soft">{label}</span>
        <span className={looks}>{unread ? "—" : value}</span>
      </div>
    );
  return (
    <details
      className={`${main} group py-1.5`}
      // One that was opened before the page answered to presses is open already.
      ref={(el) => {
        if (el?.open && !opened) open(true);
      }}
      onToggle={(e) => open(e.currentTarget.open)}
    >
      <summary className="flex list-none items-baseline justify-between gap-3 rounded hover:bg-honey-wash [&::-webkit-details-marker]:hidden">
        <span className="text-pine-soft underline decoration-dotted decoration-1 underline-offset-4">{label}</span>
        <span className={looks}>{value}</span>
      </summary>
      <div className="mt-1.5 mb-1 space-y-1 border-l-2 border-amber-glass pl-3 text-small">
        {opened && (typeof how === "function" ? how() : how)}
      </div>
    </details>
  );
}

/** A line of a figure's explanation, or of several figures of one kind. */
export function HowLine({ label, value }: { label: ReactNode; value: ReactNode }) {
  const unread = use(Unread);
  return (
    <div className="flex items-baseline justify-between gap-3">
      <span className="min-w-0">{label}</span>
      <span className="num weight text-part">{unread ? "—" : value}</span>
    </div>
  );
}
