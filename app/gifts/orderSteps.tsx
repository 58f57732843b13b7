/** What is to be begun for an order, each with where it is done and the last day to begin it. */
import { Link } from "react-router";
import { When } from "../ui/figures/amounts.tsx";
import type { SaidStep } from "./stepSentences.server.ts";

export function OrderSteps({ steps }: { steps: readonly SaidStep[] }) {
  return (
    <ul aria-label="To begin" className="space-y-0.5 text-small">
      {steps.map((s) => (
        <li key={`${s.to} ${s.day}`} className="flex flex-wrap items-baseline gap-x-3">
          <Link to={s.to} className="min-w-0 text-amber underline underline-offset-4">
            {s.what}
          </Link>
          <span className={s.late ? "font-semibold text-berry" : "text-pine-soft"}>
            {s.by} <When day={s.day} />
            {s.how}
            {s.from && <When day={s.from} />}
          </span>
        </li>
      ))}
    </ul>
  );
}
