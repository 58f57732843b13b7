/** Names in a list that nobody knows, each with what it may mean. */
import { counted } from "#core/words";
import type { ReactNode } from "react";
import { Choice } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";

type Option = readonly [string, string];

interface Props {
  title: string;
  aside?: ReactNode;
  unknown: readonly { name: string; rows: number }[];
  /** Answers, by name. */
  matches: Readonly<Record<string, string>>;
  /** What a name can mean; the first is that nobody has said. */
  options: (name: string) => readonly Option[];
  say: (matches: Record<string, string>) => void;
}

export function UnknownNames({ title, aside, unknown, matches, options, say }: Props) {
  // A name that has its answer can be given another.
  const asked = [...new Set([...unknown.map((u) => u.name), ...Object.keys(matches)])];
  if (asked.length === 0) return null;
  return (
    <Part title={title} aside={aside}>
      <div className="grid gap-3 sm:grid-cols-3">
        {asked.map((name) => {
          const found = unknown.find((u) => u.name === name);
          return (
            <Choice
              key={name}
              label={name}
              hint={found ? `in ${counted(found.rows, "row")}` : undefined}
              value={matches[name] ?? ""}
              onChange={(e) => say({ ...matches, [name]: e.target.value })}
              options={options(name)}
            />
          );
        })}
      </div>
    </Part>
  );
}

/** The same of names that should be products. @param out what becomes of theirs as long as nobody has said @param also answers beside a product */
export const unknownProducts = (products: readonly Option[], out: string, also: readonly Option[] = []) => ({
  title: "Names that are no product of yours",
  options: (): readonly Option[] => [["", out], ...also, ...products],
});
