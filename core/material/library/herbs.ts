/** Dried herbs. Densities are of the loosely filled, dried and cut herb, from memory: they differ from picking to picking. */
import type { CautionId } from "../cautions.ts";
import { entry, type LibraryEntry } from "./entry.ts";

type Row = readonly [
  key: string,
  name: string,
  inci: string,
  botanical: string,
  mgPerMl: number,
  cautions?: readonly CautionId[],
  allergen?: string,
];

const DAISY = "Daisy family";
const ROWS: readonly Row[] = [
  ["calendula", "Calendula petals, dried", "Calendula Officinalis Flower", "Calendula officinalis", 60, [], DAISY],
  ["chamomile", "Chamomile flowers, dried", "Chamomilla Recutita Flower", "Matricaria chamomilla", 80, [], DAISY],
  ["lavender-flower", "Lavender flowers, dried", "Lavandula Angustifolia Flower", "Lavandula angustifolia", 110],
  ["rose-petal", "Rose petals, dried", "Rosa Damascena Flower", "Rosa × damascena", 40],
  ["st-johns-wort", "St John's wort tops, dried", "Hypericum Perforatum Flower", "Hypericum perforatum", 100, ["photosensitising"]],
  ["plantain", "Plantain leaf, dried", "Plantago Lanceolata Leaf", "Plantago lanceolata", 110],
  ["comfrey", "Comfrey leaf, dried", "Symphytum Officinale Leaf", "Symphytum officinale", 110, ["restricted"]],
  ["comfrey-root", "Comfrey root, dried", "Symphytum Officinale Root", "Symphytum officinale", 320, ["restricted"]],
  ["yarrow", "Yarrow tops, dried", "Achillea Millefolium Flower", "Achillea millefolium", 110, ["photosensitising"], DAISY],
  ["arnica", "Arnica flowers, dried", "Arnica Montana Flower", "Arnica montana", 70, ["restricted"], DAISY],
  ["meadowsweet", "Meadowsweet flowers, dried", "Filipendula Ulmaria Flower", "Filipendula ulmaria", 110],
  ["elderflower", "Elderflower, dried", "Sambucus Nigra Flower", "Sambucus nigra", 100],
  ["birch-leaf", "Birch leaf, dried", "Betula Alba Leaf", "Betula pendula", 110],
  ["nettle", "Nettle leaf, dried", "Urtica Dioica Leaf", "Urtica dioica", 120],
  ["rosemary-leaf", "Rosemary leaf, dried", "Rosmarinus Officinalis Leaf", "Salvia rosmarinus", 170],
  ["thyme-leaf", "Thyme, dried", "Thymus Vulgaris Leaf", "Thymus vulgaris", 160],
  ["sage-leaf", "Sage leaf, dried", "Salvia Officinalis Leaf", "Salvia officinalis", 90],
  ["peppermint-leaf", "Peppermint leaf, dried", "Mentha Piperita Leaf", "Mentha × piperita", 110],
  ["lemon-balm", "Lemon balm, dried", "Melissa Officinalis Leaf", "Melissa officinalis", 100],
  ["chickweed", "Chickweed, dried", "Stellaria Media Extract", "Stellaria media", 100],
  ["cleavers", "Cleavers, dried", "Galium Aparine Extract", "Galium aparine", 100],
  ["self-heal", "Self-heal, dried", "Prunella Vulgaris Extract", "Prunella vulgaris", 110],
  ["mullein", "Mullein flowers, dried", "Verbascum Thapsus Flower", "Verbascum thapsus", 60],
  ["violet-leaf", "Violet leaf, dried", "Viola Odorata Leaf", "Viola odorata", 100],
  ["marshmallow-root", "Marshmallow root, dried", "Althaea Officinalis Root", "Althaea officinalis", 330],
  ["liquorice-root", "Liquorice root, dried", "Glycyrrhiza Glabra Root", "Glycyrrhiza glabra", 350],
  ["burdock-root", "Burdock root, dried", "Arctium Lappa Root", "Arctium lappa", 350, [], DAISY],
  ["ginger-root", "Ginger root, dried", "Zingiber Officinale Root", "Zingiber officinale", 380, ["irritant"]],
  ["turmeric", "Turmeric, dried", "Curcuma Longa Root", "Curcuma longa", 450],
  ["alkanet", "Alkanet root, dried", "Alkanna Tinctoria Root", "Alkanna tinctoria", 300],
  ["cayenne", "Cayenne, dried", "Capsicum Annuum Fruit", "Capsicum annuum", 300, ["irritant"]],
  ["garlic", "Garlic, dried", "Allium Sativum Bulb", "Allium sativum", 400, ["foodPlant", "irritant"]],
  ["clove", "Cloves, whole", "Eugenia Caryophyllus Bud", "Syzygium aromaticum", 400, ["irritant"]],
  ["vanilla", "Vanilla pods, cut", "Vanilla Planifolia Fruit", "Vanilla planifolia", 350],
  ["green-tea", "Green tea leaf", "Camellia Sinensis Leaf", "Camellia sinensis", 200],
  ["spruce-tips", "Spruce tips, dried", "Picea Abies Bud", "Picea abies", 150],
  ["pine-resin", "Pine resin", "Pinus Sylvestris Resin", "Pinus sylvestris", 600, ["irritant"]],
];

export const HERBS: readonly LibraryEntry[] = ROWS.map(([key, name, inci, botanical, dried, cautions = [], allergen = ""]) =>
  entry(key, name, "herb", inci, { botanical, densities: { dried }, keepsSealed: 24, keepsOpened: 12, kept: "cool", cautions, allergen }),
);
