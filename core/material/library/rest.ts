/** Scent, antioxidants, powders and colours. Figures from memory; a supplier's certificate for the lot goes before any of them. */
import type { CautionId } from "../cautions.ts";
import type { Kept, Vegan } from "../facts.ts";
import { entry, type LibraryEntry } from "./entry.ts";

type ScentRow = readonly [
  key: string,
  name: string,
  inci: string,
  botanical: string,
  mgPerMl: number,
  sealed: number,
  opened: number,
  cautions?: readonly CautionId[],
];
const HARSH: readonly CautionId[] = ["irritant"];
const SUN_AGES: readonly CautionId[] = ["photosensitising", "ages"];
const AGES: readonly CautionId[] = ["ages"];
/** Menthol, cineole and camphor. */
const BREATH: readonly CautionId[] = ["smallChildren"];

const SCENTS: readonly ScentRow[] = [
  ["lavender", "Lavender essential oil", "Lavandula Angustifolia Oil", "Lavandula angustifolia", 885, 36, 24],
  ["tea-tree", "Tea tree essential oil", "Melaleuca Alternifolia Leaf Oil", "Melaleuca alternifolia", 895, 24, 12, ["ages", "sensitiser"]],
  ["peppermint", "Peppermint essential oil", "Mentha Piperita Oil", "Mentha × piperita", 905, 36, 24, BREATH],
  ["spearmint", "Spearmint essential oil", "Mentha Viridis Leaf Oil", "Mentha spicata", 925, 36, 24],
  [
    "rosemary",
    "Rosemary essential oil",
    "Rosmarinus Officinalis Leaf Oil",
    "Salvia rosmarinus",
    905,
    24,
    12,
    ["smallChildren", "pregnancy"],
  ],
  ["eucalyptus", "Eucalyptus essential oil", "Eucalyptus Globulus Leaf Oil", "Eucalyptus globulus", 915, 36, 24, BREATH],
  ["lemon", "Lemon essential oil, expressed", "Citrus Limon Peel Oil", "Citrus × limon", 852, 18, 9, SUN_AGES],
  ["orange", "Sweet orange essential oil", "Citrus Aurantium Dulcis Peel Oil", "Citrus × sinensis", 845, 18, 9, AGES],
  [
    "bitter-orange",
    "Bitter orange essential oil, expressed",
    "Citrus Aurantium Amara Peel Oil",
    "Citrus × aurantium",
    850,
    18,
    9,
    SUN_AGES,
  ],
  ["grapefruit", "Grapefruit essential oil, expressed", "Citrus Paradisi Peel Oil", "Citrus × paradisi", 855, 18, 9, SUN_AGES],
  ["bergamot", "Bergamot essential oil, expressed", "Citrus Aurantium Bergamia Fruit Oil", "Citrus × bergamia", 878, 18, 9, SUN_AGES],
  [
    "bergamot-fcf",
    "Bergamot essential oil, furocoumarin-free",
    "Citrus Aurantium Bergamia Fruit Oil",
    "Citrus × bergamia",
    878,
    18,
    9,
    AGES,
  ],
  ["lime", "Lime essential oil, expressed", "Citrus Aurantifolia Peel Oil", "Citrus × aurantiifolia", 875, 18, 9, SUN_AGES],
  ["lime-distilled", "Lime essential oil, distilled", "Citrus Aurantifolia Oil", "Citrus × aurantiifolia", 862, 24, 12, AGES],
  ["lemongrass", "Lemongrass essential oil", "Cymbopogon Flexuosus Oil", "Cymbopogon flexuosus", 895, 24, 12, HARSH],
  ["ylang", "Ylang-ylang essential oil", "Cananga Odorata Flower Oil", "Cananga odorata", 945, 36, 24, HARSH],
  ["geranium", "Geranium essential oil", "Pelargonium Graveolens Flower Oil", "Pelargonium graveolens", 890, 36, 24],
  ["patchouli", "Patchouli essential oil", "Pogostemon Cablin Oil", "Pogostemon cablin", 960, 72, 60],
  ["cedarwood", "Cedarwood essential oil", "Cedrus Atlantica Wood Oil", "Cedrus atlantica", 935, 60, 48],
  ["frankincense", "Frankincense essential oil", "Boswellia Carterii Oil", "Boswellia sacra", 870, 36, 24],
  ["vetiver", "Vetiver essential oil", "Vetiveria Zizanoides Root Oil", "Chrysopogon zizanioides", 1000, 72, 60],
  ["clove-bud", "Clove bud essential oil", "Eugenia Caryophyllus Bud Oil", "Syzygium aromaticum", 1050, 48, 36, HARSH],
  [
    "cinnamon-bark",
    "Cinnamon bark essential oil",
    "Cinnamomum Zeylanicum Bark Oil",
    "Cinnamomum verum",
    1020,
    36,
    24,
    ["irritant", "notLips", "pregnancy"],
  ],
  ["cinnamon-leaf", "Cinnamon leaf essential oil", "Cinnamomum Zeylanicum Leaf Oil", "Cinnamomum verum", 1040, 36, 24, HARSH],
  ["juniper", "Juniper berry essential oil", "Juniperus Communis Fruit Oil", "Juniperus communis", 870, 24, 12, ["ages", "pregnancy"]],
  ["pine", "Scots pine essential oil", "Pinus Sylvestris Leaf Oil", "Pinus sylvestris", 870, 24, 12, AGES],
  ["cypress", "Cypress essential oil", "Cupressus Sempervirens Leaf Oil", "Cupressus sempervirens", 875, 24, 12, AGES],
  ["clary-sage", "Clary sage essential oil", "Salvia Sclarea Oil", "Salvia sclarea", 895, 36, 24, ["pregnancy"]],
  ["chamomile-roman", "Roman chamomile essential oil", "Anthemis Nobilis Flower Oil", "Chamaemelum nobile", 910, 36, 24, ["sensitiser"]],
  ["cedarwood-virginian", "Cedarwood essential oil, Virginian", "Juniperus Virginiana Oil", "Juniperus virginiana", 955, 60, 48],
  ["petitgrain", "Petitgrain essential oil", "Citrus Aurantium Amara Leaf Oil", "Citrus × aurantium", 885, 24, 12],
  ["mandarin", "Mandarin essential oil, expressed", "Citrus Nobilis Peel Oil", "Citrus reticulata", 850, 18, 9, AGES],
  ["neroli", "Neroli essential oil", "Citrus Aurantium Amara Flower Oil", "Citrus × aurantium", 875, 24, 12],
  ["fir", "Fir needle essential oil", "Abies Alba Leaf Oil", "Abies alba", 875, 24, 12, AGES],
  ["black-pepper", "Black pepper essential oil", "Piper Nigrum Fruit Oil", "Piper nigrum", 880, 24, 12, AGES],
  ["thyme", "Thyme linalool essential oil", "Thymus Vulgaris Oil", "Thymus vulgaris", 905, 36, 24],
];

type PowderRow = readonly [
  key: string,
  name: string,
  kind: "powder" | "colour",
  inci: string,
  mgPerMl: number,
  allergen?: string,
  cautions?: readonly CautionId[],
];
const NOT_LIPS: readonly CautionId[] = ["notLips"];
const RULED: readonly CautionId[] = ["colourRules"];
const POWDERS: readonly PowderRow[] = [
  ["arrowroot", "Arrowroot starch", "powder", "Maranta Arundinacea Root Powder", 600],
  ["corn-starch", "Corn starch", "powder", "Zea Mays Starch", 560],
  ["tapioca", "Tapioca starch", "powder", "Tapioca Starch", 550],
  ["rice-powder", "Rice powder, fine", "powder", "Oryza Sativa Powder", 560],
  ["oat-flour", "Oat flour, very fine", "powder", "Avena Sativa Kernel Flour", 450, "Oats (gluten)"],
  ["kaolin", "White kaolin clay", "powder", "Kaolin", 500],
  ["bentonite", "Bentonite clay", "powder", "Bentonite", 800, "", NOT_LIPS],
  ["zinc-oxide", "Zinc oxide", "powder", "Zinc Oxide", 600, "", NOT_LIPS],
  ["baking-soda", "Baking soda", "powder", "Sodium Bicarbonate", 950, "", ["notLips", "irritant", "brokenSkin"]],
  ["silica", "Silica, fine", "powder", "Silica", 100, "", NOT_LIPS],
  ["oatmeal-colloidal", "Oatmeal, colloidal", "powder", "Avena Sativa Kernel Meal", 400, "Oats (gluten)"],
  ["magnesium-hydroxide", "Magnesium hydroxide", "powder", "Magnesium Hydroxide", 500, "", NOT_LIPS],
  ["titanium-dioxide", "Titanium dioxide", "colour", "CI 77891", 700, "", RULED],
  ["menthol", "Menthol crystals", "powder", "Menthol", 500, "", ["smallChildren", "irritant", "brokenSkin"]],
  ["stevia", "Stevia powder", "powder", "Stevia Rebaudiana Leaf Powder", 450],
  ["mica", "Mica, pearl", "colour", "CI 77019", 250],
  ["iron-red", "Iron oxide, red", "colour", "CI 77491", 700],
  ["iron-yellow", "Iron oxide, yellow", "colour", "CI 77492", 500],
  ["beet", "Beetroot powder", "colour", "Beta Vulgaris Root Powder", 620, "", RULED],
  ["rose-clay", "Rose clay", "colour", "Kaolin, CI 77491", 500],
  ["spirulina", "Spirulina powder", "colour", "Spirulina Platensis Powder", 500, "", RULED],
];

type WateryRow = readonly [
  key: string,
  name: string,
  inci: string,
  mgPerMl: number,
  sealed: number,
  opened: number,
  vegan: Vegan,
  kept: Kept,
];
/** What brings water: here so that it can be written down and warned of. Once opened most keep for weeks, in the fridge; honey and glycerine keep at room warmth. */
const WATERY: readonly WateryRow[] = [
  ["honey", "Honey", "Mel", 1420, 24, 12, "no", "room"],
  ["aloe-gel", "Aloe vera gel", "Aloe Barbadensis Leaf Juice", 1005, 12, 1, "yes", "fridge"],
  ["rose-water", "Rose hydrosol", "Rosa Damascena Flower Water", 998, 12, 2, "yes", "fridge"],
  ["water", "Distilled water", "Aqua", 998, 24, 1, "yes", "fridge"],
  ["glycerine", "Vegetable glycerine", "Glycerin", 1255, 24, 18, "yes", "room"],
];

export const REST: readonly LibraryEntry[] = [
  ...SCENTS.map(([key, name, inci, botanical, liquid, keepsSealed, keepsOpened, cautions = []]) =>
    entry(`eo-${key}`, name, "essentialOil", inci, {
      botanical,
      densities: { liquid },
      dropsPerMl: 20,
      keepsSealed,
      keepsOpened,
      kept: "cool",
      cautions: [...cautions, "flammable"],
    }),
  ),
  entry("vitamin-e", "Vitamin E, natural", "antioxidant", "Tocopherol", {
    densities: { liquid: 950 },
    dropsPerMl: 15,
    keepsSealed: 24,
    keepsOpened: 18,
    kept: "cool",
  }),
  entry("rosemary-extract", "Rosemary extract, oil-soluble", "antioxidant", "Rosmarinus Officinalis Leaf Extract", {
    densities: { liquid: 930 },
    dropsPerMl: 20,
    keepsSealed: 24,
    keepsOpened: 18,
    kept: "cool",
  }),
  entry("lip-flavour", "Lip flavour, oil-soluble", "fragrance", "Aroma", {
    densities: { liquid: 940 },
    dropsPerMl: 25,
    keepsSealed: 24,
    keepsOpened: 12,
    kept: "cool",
  }),
  entry("vanilla-extract", "Vanilla extract, oil-soluble", "fragrance", "Vanilla Planifolia Fruit Extract", {
    densities: { liquid: 950 },
    dropsPerMl: 25,
    keepsSealed: 24,
    keepsOpened: 12,
    kept: "cool",
  }),
  ...POWDERS.map(([key, name, kind, inci, powder, allergen = "", cautions = []]) =>
    entry(key, name, kind, inci, {
      ...{ densities: { powder }, keepsSealed: 36, keepsOpened: 24, kept: "room", allergen },
      cautions: [...cautions, "dust"],
    }),
  ),
  ...WATERY.map(([key, name, inci, liquid, keepsSealed, keepsOpened, vegan, kept]) =>
    entry(key, name, "watery", inci, { densities: { liquid }, keepsSealed, keepsOpened, kept, vegan }),
  ),
];
