/** What a batch is short of, all at once, and what could be done about each: buy it, steep it, something instead of it, or make fewer. */
import { Link } from "react-router";
import { wordList } from "#core/words";
import { Fragment } from "react";
import { Button } from "../../ui/fields/form.tsx";
import { showBase } from "../../ui/figures/amounts.tsx";
import type { Short } from "./planned.ts";

export interface ShortProps {
  short: readonly Short[];
  holders: readonly { batchId: number; recipe: string }[];
  name: ReadonlyMap<number, string>;
  /** Oils that are steeped here. */
  madeHere: ReadonlySet<number>;
  /** As many of each size as there is enough for; nothing where that is no way out. */
  instead: readonly number[] | null | undefined;
  fewer: (units: readonly number[]) => void;
}

interface Props extends ShortProps {
  recipeId: number;
  sizes: readonly { label: string }[];
}

export function ShortOnShelf({ short, holders, name, madeHere, instead, fewer, recipeId, sizes }: Props) {
  if (short.length === 0) return null;
  return (
    <div className="py-2 text-berry">
      <p className="font-semibold">Short on the shelf</p>
      <ul>
        {short.map((s, i) => (
          <li key={i} className="flex flex-wrap items-baseline gap-x-3">
            <span className="min-w-0 flex-1 basis-40">
              {showBase(s.by, s.as === "pack" ? "count" : "weight")} {name.get(s.of)}
            </span>
            <span className={s.as === "base" ? "hidden" : "flex gap-3 text-small"}>
              {s.as === "line" && (
                <Link to={`/recipes/${recipeId}?page=instead`} className="pressable" aria-label={`Instead of ${name.get(s.of)}`}>
                  Instead
                </Link>
              )}
              {s.as !== "pack" && madeHere.has(s.of) && (
                <Link to={`/jars/fill?makes=${s.of}`} className="pressable" aria-label={`Fill a jar of ${name.get(s.of)}`}>
                  Fill a jar
                </Link>
              )}
              <Link to={`/shelf/${s.of}/buying`} className="pressable" aria-label={`Buy ${name.get(s.of)}`}>
                Buy
              </Link>
            </span>
          </li>
        ))}
      </ul>
      {holders.length > 0 && (
        <p className="text-pine-soft">
          Not counted: what is reserved for{" "}
          {[...new Map(holders.map((p) => [p.batchId, p.recipe]))].map(([id, recipe], i) => (
            <Fragment key={id}>
              {i > 0 && ", "}
              <Link to={`/bench/${id}`} className="underline underline-offset-4">
                {recipe}
              </Link>
            </Fragment>
          ))}{" "}
          on the bench.
        </p>
      )}
      {instead === undefined ? (
        <p className="text-pine-soft">Melt in less of it.</p>
      ) : instead ? (
        <Button small className="mt-2" onClick={() => fewer(instead)}>
          Make {wordList(instead.flatMap((u, i) => (u > 0 ? [`${u} × ${sizes[i]!.label}`] : [])))} instead
        </Button>
      ) : (
        <p className="text-pine-soft">There isn’t enough for a single one.</p>
      )}
    </div>
  );
}
