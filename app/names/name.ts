/** A name that can be chosen, with what helps to choose it. */
import type { KindId } from "#core/material/kinds";

export interface Name {
  name: string;
  /** Other words it is found by. */
  also?: string;
  /** Before others that fit as well. */
  first?: boolean;
  /** What is beside it (what is on hand, when it was last) and under it (lots and cost, how often). */
  aside?: string;
  about?: string;
  kind?: KindId;
  /** The library's entry it is. */
  key?: string;
}

export interface Names {
  names: readonly Name[];
  /** What the library has and the shelf hasn't. */
  library: readonly Name[];
}

/** What a field chooses from: the workshop's materials of some kinds, who and where the books know, or a list of the page's own. */
export type Finds =
  | { of: "material"; kinds?: readonly KindId[] }
  | { of: "supplier" | "customer" | "market" | "product" | "oilLot" }
  | { of: "these"; names: readonly Name[] };
