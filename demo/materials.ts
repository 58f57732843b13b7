/**
 * The demo workshop's materials. Densities are typical figures from memory; allergens are named as common practice has it.
 */
import type { Densities, MassFacts } from "#core/measure/mass";
import type { KindId } from "#core/material/kinds";

export interface DemoMaterial {
  name: string;
  kind: KindId;
  inci?: string;
  densities?: Densities;
  dropsPerMl?: number;
  /** Grams or pieces. */
  reorderAt?: number;
  allergen?: string;
  /** Entry of the starter library its other facts come from. */
  from?: string;
  innerMm?: number;
  fillMm?: number;
  brimMl?: number;
  madeOf?: string;
  /** Reminded by use instead of by a point set by hand. */
  learns?: boolean;
}

const oil = (name: string, inci: string, mgPerMl: number, reorderAt?: number, allergen?: string): DemoMaterial => ({
  name,
  kind: "oil",
  inci,
  densities: { liquid: mgPerMl },
  reorderAt,
  allergen,
});
const infused = (name: string, inci: string): DemoMaterial => ({ name, kind: "infusedOil", inci, densities: { liquid: 920 } });
const scent = (name: string, inci: string, mgPerMl: number, reorderAt = 10): DemoMaterial => ({
  name,
  kind: "essentialOil",
  inci,
  densities: { liquid: mgPerMl },
  dropsPerMl: 20,
  reorderAt,
});
const piece = (name: string, kind: KindId, reorderAt?: number): DemoMaterial => ({ name, kind, reorderAt });

export const MATERIALS = {
  beeswax: {
    from: "beeswax-yellow",
    name: "Beeswax, yellow",
    kind: "wax",
    inci: "Cera Flava",
    densities: { pellets: 480, grated: 330, block: 960, melted: 860 },
    reorderAt: 500,
    allergen: "Bee product",
  },
  candelilla: {
    from: "candelilla",
    name: "Candelilla wax",
    kind: "wax",
    inci: "Euphorbia Cerifera Wax",
    densities: { pellets: 500, block: 980, melted: 870 },
  },
  cocoa: {
    from: "cocoa-raw",
    name: "Cocoa butter, raw",
    kind: "hardButter",
    inci: "Theobroma Cacao Seed Butter",
    densities: { block: 950, chopped: 600, grated: 420, melted: 900 },
    reorderAt: 300,
  },
  mango: {
    from: "mango",
    name: "Mango butter",
    kind: "hardButter",
    inci: "Mangifera Indica Seed Butter",
    densities: { block: 940, chopped: 600, melted: 900 },
    reorderAt: 200,
  },
  kokum: {
    from: "kokum",
    name: "Kokum butter",
    kind: "hardButter",
    inci: "Garcinia Indica Seed Butter",
    densities: { block: 940, chopped: 600, melted: 900 },
  },
  shea: {
    from: "shea-unrefined",
    name: "Shea butter, unrefined",
    kind: "softButter",
    inci: "Butyrospermum Parkii Butter",
    densities: { block: 920, chopped: 650, melted: 900 },
    reorderAt: 1000,
    allergen: "Tree nut in some places",
  },
  coconut: {
    from: "coconut-virgin",
    name: "Coconut oil",
    kind: "softButter",
    inci: "Cocos Nucifera Oil",
    densities: { block: 920, melted: 905 },
    reorderAt: 400,
    allergen: "Coconut",
  },
  sunflower: { from: "sunflower-oleic", ...oil("Sunflower oil, high oleic", "Helianthus Annuus Seed Oil", 915, 1000) },
  apricot: { from: "apricot", ...oil("Apricot kernel oil", "Prunus Armeniaca Kernel Oil", 915, 300) },
  olive: { from: "olive", ...oil("Olive oil", "Olea Europaea Fruit Oil", 913) },
  jojoba: { from: "jojoba", ...oil("Jojoba oil", "Simmondsia Chinensis Seed Oil", 865, 150) },
  seaBuckthorn: { from: "sea-buckthorn", ...oil("Sea buckthorn berry oil", "Hippophae Rhamnoides Fruit Oil", 930, 60) },
  rosehip: { from: "rosehip", ...oil("Rosehip seed oil", "Rosa Canina Seed Oil", 925, 100) },
  blackcurrant: { from: "blackcurrant", ...oil("Blackcurrant seed oil", "Ribes Nigrum Seed Oil", 925, 40) },
  oatOil: { from: "oat", ...oil("Oat kernel oil", "Avena Sativa Kernel Oil", 930, 100, "Oats (gluten)") },
  castor: { from: "castor", ...oil("Castor oil", "Ricinus Communis Seed Oil", 960) },
  meadowsweetOil: infused("Meadowsweet in sunflower oil", "Helianthus Annuus Seed Oil, Filipendula Ulmaria Flower Extract"),
  birchOil: infused("Birch leaf in sunflower oil", "Helianthus Annuus Seed Oil, Betula Alba Leaf Extract"),
  elderOil: infused("Elderflower in apricot kernel oil", "Prunus Armeniaca Kernel Oil, Sambucus Nigra Flower Extract"),
  meadowsweet: { from: "meadowsweet", name: "Meadowsweet flowers, dried", kind: "herb", inci: "Filipendula Ulmaria Flower" },
  elderflower: { from: "elderflower", name: "Elderflower, dried", kind: "herb", inci: "Sambucus Nigra Flower", densities: {} },
  calendula: { name: "Calendula petals, dried", kind: "herb", from: "calendula" },
  plantain: { name: "Plantain leaf, dried", kind: "herb", from: "plantain" },
  rosemary: { name: "Rosemary leaf, dried", kind: "herb", from: "rosemary-leaf" },
  birchLeaf: { from: "birch-leaf", name: "Birch leaf, dried", kind: "herb", inci: "Betula Alba Leaf", densities: {} },
  lavender: { from: "eo-lavender", ...scent("Lavender essential oil", "Lavandula Angustifolia Oil", 885) },
  juniper: { from: "eo-juniper", ...scent("Juniper berry essential oil", "Juniperus Communis Fruit Oil", 870) },
  pine: { from: "eo-pine", ...scent("Scots pine essential oil", "Pinus Sylvestris Leaf Oil", 870) },
  spearmint: { from: "eo-spearmint", ...scent("Spearmint essential oil", "Mentha Spicata Oil", 925, 5) },
  vitaminE: {
    from: "vitamin-e",
    name: "Vitamin E, natural",
    kind: "antioxidant",
    inci: "Tocopherol",
    densities: { liquid: 950 },
    dropsPerMl: 15,
    reorderAt: 30,
  },
  arrowroot: {
    from: "arrowroot",
    name: "Arrowroot starch",
    kind: "powder",
    inci: "Maranta Arundinacea Root Powder",
    densities: { powder: 600 },
  },
  oatFlour: {
    from: "oat-flour",
    name: "Oat flour, very fine",
    kind: "powder",
    inci: "Avena Sativa Kernel Flour",
    densities: { powder: 450 },
    allergen: "Oats (gluten)",
  },
  beet: { from: "beet", name: "Beetroot powder", kind: "colour", inci: "Beta Vulgaris Root Powder", densities: { powder: 620 } },
  tin60: {
    ...piece("Screw tin, 80 mL", "container", 24),
    innerMm: 64,
    fillMm: 24,
    brimMl: 83,
    madeOf: "Aluminium, lacquered inside",
    learns: true,
  },
  tin100: { ...piece("Screw tin, 125 mL", "container", 12), innerMm: 72, fillMm: 29, madeOf: "Aluminium, lacquered inside" },
  lipTube: piece("Lip tube with cap", "container", 50),
  glassPot: { ...piece("Glass pot, 12 mL", "container", 20), brimMl: 13, madeOf: "Glass" },
  jar150: { ...piece("Amber jar, 180 mL", "container", 12), brimMl: 186, madeOf: "Glass, amber" },
  barTin: piece("Flat bar tin", "container", 10),
  potLid: piece("Lid for glass pot", "closure"),
  jarLid: piece("Lid for amber jar", "closure"),
  roundLabel: piece("Round label, 50 mm", "label", 60),
  tubeLabel: piece("Tube label", "label", 60),
  jarLabel: piece("Jar label, wide", "label", 24),
  barBand: piece("Paper band for bars", "label", 20),
  carton: piece("Bar carton", "box"),
  box2: piece("Gift box for two", "box"),
  box4: piece("Gift box for four", "box", 5),
  tissue: piece("Tissue sheet, moss", "wrap"),
  ribbon: piece("Ribbon, 60 cm cut", "wrap", 20),
  tag: piece("Gift tag with string", "wrap"),
  gloves: piece("Gloves, pair", "consumable"),
} as const satisfies Record<string, DemoMaterial>;

export type MaterialKey = keyof typeof MATERIALS;

export const material = (key: MaterialKey): DemoMaterial => MATERIALS[key];

export const factsOf = (m: DemoMaterial, form: MassFacts["form"]): MassFacts => ({
  name: m.name,
  form,
  densities: m.densities ?? {},
  dropsPerMl: m.dropsPerMl,
});
