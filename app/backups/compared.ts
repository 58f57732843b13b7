/** What of an archive and of the books is set beside each other, in words. */
import { rowsByKind, type Manifest } from "#core/archive/manifest";
import type { BooksNow } from "#db/archive/booksNow";

const COMPARED = [
  ["material", "Materials"],
  ["recipe", "Recipes"],
  ["lot", "Lots"],
  ["batch", "Batches"],
  ["market_day", "Market days"],
  ["gift_order", "Orders"],
  ["attachment", "Scans and photos"],
  ["act", "Acts in the book"],
] as const;

export interface ComparedRow {
  what: string;
  then: number;
  /** Null where there are no books yet. */
  now: number | null;
}

export interface Compared {
  workshop: string;
  /** ISO moment at which the books were so. */
  asOf: string;
  zelbin: string;
  rows: ComparedRow[];
  newestThen: Manifest["newest"];
  newestNow: BooksNow["newest"];
}

export function compared(manifest: Manifest, now: BooksNow | null): Compared {
  const then = rowsByKind(manifest);
  return {
    workshop: manifest.workshop,
    asOf: manifest.asOf,
    zelbin: manifest.zelbin,
    rows: COMPARED.map(([kind, what]) => ({ what, then: then.get(kind) ?? 0, now: now && (now.rows.get(kind) ?? 0) })),
    newestThen: manifest.newest.slice(0, 3),
    newestNow: now?.newest.slice(0, 3) ?? [],
  };
}
