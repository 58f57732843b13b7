/** Carrier oils and infused oils. Where a density comes from a published table, the figure is the middle of its range. */
import type { CautionId } from "../cautions.ts";
import { entry, type LibraryEntry, type SourceId } from "./entry.ts";

type Row = readonly [
  key: string,
  name: string,
  inci: string,
  botanical: string,
  mgPerMl: number,
  source: SourceId,
  sealed: number,
  opened: number,
  rest?: Partial<LibraryEntry>,
];

const NUT: { allergen: string; cautions: CautionId[] } = { allergen: "Tree nut", cautions: ["nut"] };
const DELICATE: Partial<LibraryEntry> = { cautions: ["delicate"], kept: "fridge" };

const ROWS: readonly Row[] = [
  ["olive", "Olive oil", "Olea Europaea Fruit Oil", "Olea europaea", 913, "codex33", 18, 12],
  ["sunflower", "Sunflower oil", "Helianthus Annuus Seed Oil", "Helianthus annuus", 920, "codex210", 12, 6],
  ["sunflower-oleic", "Sunflower oil, high oleic", "Helianthus Annuus Seed Oil", "Helianthus annuus", 912, "codex210", 20, 14],
  ["safflower", "Safflower oil", "Carthamus Tinctorius Seed Oil", "Carthamus tinctorius", 925, "codex210", 12, 6],
  ["safflower-oleic", "Safflower oil, high oleic", "Carthamus Tinctorius Seed Oil", "Carthamus tinctorius", 916, "codex210", 20, 12],
  ["grapeseed", "Grapeseed oil", "Vitis Vinifera Seed Oil", "Vitis vinifera", 923, "codex210", 9, 6, { cautions: ["delicate"] }],
  ["sesame", "Sesame oil", "Sesamum Indicum Seed Oil", "Sesamum indicum", 920, "codex210", 12, 9, { allergen: "Sesame" }],
  ["soybean", "Soybean oil", "Glycine Soja Oil", "Glycine max", 922, "codex210", 12, 6, { allergen: "Soya" }],
  ["rapeseed", "Rapeseed oil", "Brassica Campestris Seed Oil", "Brassica napus", 917, "codex210", 12, 9],
  ["rice-bran", "Rice bran oil", "Oryza Sativa Bran Oil", "Oryza sativa", 920, "codex210", 18, 12],
  ["peanut", "Peanut oil", "Arachis Hypogaea Oil", "Arachis hypogaea", 916, "codex210", 12, 9, { allergen: "Peanut", cautions: ["nut"] }],
  ["corn", "Corn oil", "Zea Mays Oil", "Zea mays", 921, "codex210", 12, 9],
  ["cottonseed", "Cottonseed oil", "Gossypium Herbaceum Seed Oil", "Gossypium herbaceum", 922, "codex210", 12, 9],
  ["almond", "Almond oil, sweet", "Prunus Amygdalus Dulcis Oil", "Prunus dulcis", 916, "memory", 14, 9, NUT],
  ["apricot", "Apricot kernel oil", "Prunus Armeniaca Kernel Oil", "Prunus armeniaca", 916, "memory", 14, 9],
  ["peach", "Peach kernel oil", "Prunus Persica Kernel Oil", "Prunus persica", 916, "memory", 14, 9],
  ["plum", "Plum kernel oil", "Prunus Domestica Seed Oil", "Prunus domestica", 916, "memory", 12, 8],
  ["avocado", "Avocado oil", "Persea Gratissima Oil", "Persea americana", 914, "memory", 18, 12],
  ["jojoba", "Jojoba oil", "Simmondsia Chinensis Seed Oil", "Simmondsia chinensis", 866, "memory", 48, 36],
  ["castor", "Castor oil", "Ricinus Communis Seed Oil", "Ricinus communis", 961, "memory", 30, 18, { dropsPerMl: 15 }],
  ["hazelnut", "Hazelnut oil", "Corylus Avellana Seed Oil", "Corylus avellana", 915, "memory", 12, 8, NUT],
  ["macadamia", "Macadamia oil", "Macadamia Ternifolia Seed Oil", "Macadamia integrifolia", 914, "memory", 18, 12, NUT],
  ["argan", "Argan oil", "Argania Spinosa Kernel Oil", "Argania spinosa", 914, "memory", 18, 12],
  ["moringa", "Moringa oil", "Moringa Oleifera Seed Oil", "Moringa oleifera", 913, "memory", 30, 20],
  ["meadowfoam", "Meadowfoam seed oil", "Limnanthes Alba Seed Oil", "Limnanthes alba", 910, "memory", 36, 24],
  ["camellia", "Camellia oil", "Camellia Oleifera Seed Oil", "Camellia oleifera", 914, "memory", 18, 12],
  ["baobab", "Baobab oil", "Adansonia Digitata Seed Oil", "Adansonia digitata", 920, "memory", 24, 18],
  ["marula", "Marula oil", "Sclerocarya Birrea Seed Oil", "Sclerocarya birrea", 912, "memory", 24, 18],
  [
    "fractionated-coconut",
    "Fractionated coconut oil",
    "Caprylic/Capric Triglyceride",
    "Cocos nucifera",
    945,
    "memory",
    36,
    24,
    { refined: "refined" },
  ],
  ["hemp", "Hemp seed oil", "Cannabis Sativa Seed Oil", "Cannabis sativa", 925, "memory", 9, 4, DELICATE],
  ["rosehip", "Rosehip seed oil", "Rosa Canina Seed Oil", "Rosa canina", 925, "memory", 9, 6, DELICATE],
  ["evening-primrose", "Evening primrose oil", "Oenothera Biennis Oil", "Oenothera biennis", 925, "memory", 9, 4, DELICATE],
  ["borage", "Borage seed oil", "Borago Officinalis Seed Oil", "Borago officinalis", 925, "memory", 9, 4, DELICATE],
  ["flax", "Flaxseed oil", "Linum Usitatissimum Seed Oil", "Linum usitatissimum", 930, "memory", 6, 2, DELICATE],
  ["blackcurrant", "Blackcurrant seed oil", "Ribes Nigrum Seed Oil", "Ribes nigrum", 925, "memory", 9, 4, DELICATE],
  ["raspberry", "Raspberry seed oil", "Rubus Idaeus Seed Oil", "Rubus idaeus", 925, "memory", 12, 6, DELICATE],
  ["sea-buckthorn", "Sea buckthorn berry oil", "Hippophae Rhamnoides Fruit Oil", "Hippophae rhamnoides", 925, "memory", 15, 9],
  ["oat", "Oat kernel oil", "Avena Sativa Kernel Oil", "Avena sativa", 930, "memory", 15, 9, { allergen: "Oats (gluten)" }],
  ["walnut", "Walnut oil", "Juglans Regia Seed Oil", "Juglans regia", 925, "memory", 9, 4, { ...NUT, cautions: ["nut", "delicate"] }],
  ["pumpkin", "Pumpkin seed oil", "Cucurbita Pepo Seed Oil", "Cucurbita pepo", 920, "memory", 12, 8],
  ["neem", "Neem oil", "Melia Azadirachta Seed Oil", "Azadirachta indica", 920, "memory", 18, 12],
  ["tamanu", "Tamanu oil", "Calophyllum Inophyllum Seed Oil", "Calophyllum inophyllum", 940, "memory", 18, 12, { ...NUT }],
  ["squalane", "Squalane, plant", "Squalane", "", 810, "memory", 36, 24, { refined: "refined" }],
];

export const OILS: readonly LibraryEntry[] = ROWS.map(
  ([key, name, inci, botanical, liquid, densitySource, keepsSealed, keepsOpened, rest]) =>
    entry(key, name, "oil", inci, { botanical, densities: { liquid }, densitySource, keepsSealed, keepsOpened, kept: "cool", ...rest }),
);
