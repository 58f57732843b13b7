/** A record an act is about, by its kind and its name. */
import { Link } from "react-router";
import { SUBJECTS, type Subject } from "#core/act/kinds";

/** With the way to it as long as it is there. */
export function Record({ of: { kind, id, called } }: { of: Subject & { called: string | null } }) {
  const { say, at } = SUBJECTS[kind];
  const to = kind === "settings" ? "/settings" : kind === "lot" ? `/lots/${encodeURIComponent(called ?? "")}` : `${at}${id}`;
  const name = kind === "settings" ? "of the workshop" : called;
  return (
    <>
      <span className="text-part text-pine-soft">{say}</span>{" "}
      {name === null ? (
        <span>no longer here</span>
      ) : (
        <Link to={to} className="underline underline-offset-4">
          {name}
        </Link>
      )}
    </>
  );
}
