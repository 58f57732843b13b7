/**
 * Before a batch: what is ready on the table, clean and dry, so that nothing is looked for once the wax is hot. Common practice, no source;
 * good manufacturing practice asks for the same under premises, equipment and hygiene (ISO 22716, 3 to 5, from memory).
 */
import type { CautionId } from "../../material/cautions.ts";
import { SOLID_KINDS, type KindId } from "../../material/kinds.ts";
import { showScale, type Scale } from "../../recipe/scale.ts";
import { isBar, type RecipeType } from "../../recipe/types.ts";
import { isScent } from "../../scent/dilution.ts";
import { wordList } from "../../words.ts";

export interface ReadyIn {
  type: RecipeType;
  ingredients: readonly { name: string; kind: KindId; cautions: readonly CautionId[] }[];
  /** What is packed in, so many of each. */
  packaging: readonly { name: string; kind: KindId; pieces: number }[];
  scale: Scale;
}

/** Something to have at hand, and why or how. */
export interface ReadyItem {
  what: string;
  how: string;
}

const FINE: ReadonlySet<KindId> = new Set(["powder", "colour"]);
/** What the batch itself goes into. */
const POTS: ReadonlySet<KindId> = new Set(["container", "closure", "mould"]);

/**
 * @example getReady({ type: "salve", ingredients: [], packaging: [{ name: "Tin, 60 mL", kind: "container", pieces: 12 }], scale: { unit: "g", step: 100 } })[1].what // "12 × Tin, 60 mL"
 */
export function getReady({ type, ingredients, packaging, scale }: ReadyIn): ReadyItem[] {
  const of = (kinds: ReadonlySet<KindId>) => packaging.filter((p) => kinds.has(p.kind) && p.pieces > 0);
  const named = (all: ReadyIn["packaging"]): string => wordList(all.map((p) => `${p.pieces} × ${p.name}`));
  const pots = of(POTS);
  const labels = of(new Set<KindId>(["label"]));
  const whipped = type === "bodyButter";
  const melts = ingredients.some((i) => SOLID_KINDS.includes(i.kind));
  const waxed = ingredients.some((i) => i.kind === "wax");
  const powders = ingredients.filter((i) => FINE.has(i.kind));
  const drying = ingredients.filter((i) => i.cautions.includes("selfHeats"));
  const items: (ReadyItem | false)[] = [
    { what: `Scale that reads to ${showScale(scale)}, thermometer`, how: "Level, and away from steam." },
    melts && { what: "A pot and a jug for this work only, dry", how: "Wax never fully leaves them, and a drop of water spoils the batch." },
    melts && { what: "Water bath on low heat", how: "Never over direct flame; no lid that drips, and nobody leaves it." },
    pots.length > 0 && {
      what: named(pots),
      how: "Counted, wiped out with rubbing alcohol and left to dry, far from flame.",
    },
    isBar(type) && { what: "Room in the fridge", how: "Level, for 30 to 40 minutes." },
    whipped && {
      what: "Mixer with paddle and whisk, scraper",
      how: "Dry, and cold if they can be: a third to a half of it clings to them.",
    },
    whipped && { what: "Room in the freezer or fridge, a timer", how: "Half an hour to an hour, until it is set but still dents." },
    waxed && { what: "A spoon in the freezer", how: "For the drop that says whether it is firm enough, while it can still be put right." },
    powders.length > 0 && {
      what: `Small bowl for ${wordList(powders.map((p) => p.name))}`,
      how: "A paste with a little of the oil first leaves no specks. A mask against the dust.",
    },
    ingredients.some(isScent) && { what: "Gloves, an open window, a pipette", how: "Undiluted scent goes on no skin." },
    drying.length > 0 && {
      what: "A bucket of water for cloths and paper",
      how: `What is soaked with ${wordList(drying.map((d) => d.name))} heats by itself and can catch fire: into the water with it, or spread out outside.`,
    },
    { what: "Cloth on the table, paper towels", how: "For the jug’s wet underside before it pours, and for wiping out while all is warm." },
    labels.length > 0 && {
      what: named(labels),
      how: "Product, net weight, lot, best before. An unlabelled jar is worthless a month later.",
    },
  ];
  return items.filter((i): i is ReadyItem => i !== false);
}
