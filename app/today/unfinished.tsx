/** Sheets that were begun and not saved: each is taken up where it was left, or thrown away. */
import { Link, useFetcher } from "react-router";

interface Draft {
  id: number;
  path: string;
  sheet: string;
  title: string;
  ago: string;
}

export function Unfinished({ drafts }: { drafts: readonly Draft[] }) {
  const drop = useFetcher();
  return (
    <section className="mb-7 break-inside-avoid" aria-label="Left unfinished">
      <h2 className="border-b-[1.5px] border-rule-strong pb-1.5 text-large">Left unfinished</h2>
      <ul className="divide-y divide-rule">
        {drafts.map((d) => (
          <li key={d.id} className="flex items-baseline gap-4 py-1">
            <Link to={d.path} className="flex min-w-0 flex-1 items-baseline justify-between gap-4 py-1 hover:bg-honey-wash">
              <span className="min-w-0">
                {d.title}
                <span className="text-pine-soft">, {d.ago}</span>
              </span>
              <span className="flex-none text-small font-semibold text-amber">Go on with it</span>
            </Link>
            <button
              type="button"
              className="pressable flex-none text-small"
              aria-label={`Throw away: ${d.title}`}
              onClick={() =>
                void drop.submit(
                  { path: d.path, sheet: d.sheet, title: "", values: null },
                  { method: "post", action: "/drafts", encType: "application/json" },
                )
              }
            >
              Throw away
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
