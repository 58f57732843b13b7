/**
 * Every kind of act there is, with what the book of acts calls it and the station it belongs to, and the kinds of record an act can be
 * about. What an act does and how it is taken back is in its definition beside its command; the compiler holds a definition for
 * each kind named here.
 */

export const ACTS_SAID = {
  saveMaterial: { say: "Material saved", station: "shelf" },
  retire: { say: "Material put away or back", station: "shelf" },
  deleteMaterial: { say: "Material deleted", station: "shelf" },
  addMaterials: { say: "Materials from a list", station: "shelf" },
  library: { say: "Taken from the library", station: "shelf" },
  receive: { say: "Receipt", station: "shelf" },
  receiveFile: { say: "Receipts from a file", station: "shelf" },
  opening: { say: "Opening stock", station: "shelf" },
  sayCost: { say: "Cost of a lot said", station: "shelf" },
  arrive: { say: "Packs arrived", station: "shelf" },
  correct: { say: "Receipt corrected", station: "shelf" },
  keepScan: { say: "Scan added", station: "shelf" },
  dropScan: { say: "Scan taken off", station: "shelf" },
  count: { say: "Count corrected", station: "shelf" },
  stocktake: { say: "Stock-take", station: "shelf" },
  moveOut: { say: "Taken off the shelf", station: "shelf" },
  open: { say: "Lot opened", station: "shelf" },
  dryness: { say: "Dryness said", station: "shelf" },
  drips: { say: "Drops of a bottle said", station: "shelf" },
  hold: { say: "Held or released", station: "lots" },
  recall: { say: "Recall begun", station: "lots" },
  tellRecall: { say: "Told of a recall", station: "lots" },
  closeRecall: { say: "Recall closed", station: "lots" },
  scentMost: { say: "Supplier’s limit of a lot said", station: "lots" },
  offer: { say: "Offer noted", station: "shelf" },
  dropOffer: { say: "Offer forgotten", station: "shelf" },
  pick: { say: "Picking noted", station: "shelf" },
  weighHarvest: { say: "Harvest weighed", station: "shelf" },
  harvest: { say: "Harvest dried", station: "shelf" },
  fillJar: { say: "Jar filled", station: "jars" },
  topUp: { say: "Jar topped up", station: "jars" },
  tend: { say: "Jar tended", station: "jars" },
  heat: { say: "Heat on or off", station: "jars" },
  keepPhoto: { say: "Photo added", station: "jars" },
  strain: { say: "Jar strained", station: "jars" },
  spoil: { say: "Jar written off", station: "jars" },
  blend: { say: "Oils blended", station: "jars" },
  saveRecipe: { say: "Recipe saved", station: "recipes" },
  addRecipes: { say: "Recipes from a list", station: "recipes" },
  learnBatch: { say: "Recipe changed after a batch", station: "recipes" },
  noteFirmness: { say: "Firmness noted", station: "recipes" },
  retireRecipe: { say: "Recipe put away or out", station: "recipes" },
  deleteRecipe: { say: "Recipe deleted", station: "recipes" },
  retireProduct: { say: "Size put away or out", station: "prices" },
  deleteProduct: { say: "Size deleted", station: "prices" },
  setOut: { say: "Batch set out", station: "bench" },
  pour: { say: "Batch poured", station: "bench" },
  checkBatch: { say: "Batch checked", station: "bench" },
  spoilBatch: { say: "Batch written off", station: "bench" },
  keepBatchPhoto: { say: "Photo of a batch added", station: "bench" },
  clearBatch: { say: "Batch cleared off", station: "bench" },
  openingFinished: { say: "Finished goods from before the books", station: "cabinet" },
  comeBack: { say: "Came back", station: "cabinet" },
  meltDown: { say: "Melted down", station: "cabinet" },
  takeOut: { say: "Taken out of the cabinet", station: "cabinet" },
  price: { say: "Prices saved", station: "prices" },
  listPrices: { say: "Prices from a list", station: "prices" },
  saveMarket: { say: "Market day saved", station: "markets" },
  closeMarket: { say: "Market day closed", station: "markets" },
  pastDays: { say: "Earlier market days from a list", station: "markets" },
  saveGift: { say: "Order saved", station: "gifts" },
  packOrder: { say: "Order packed", station: "gifts" },
  addOrders: { say: "Orders from a list", station: "gifts" },
  saveContact: { say: "Supplier, customer or market saved", station: "people" },
  addContacts: { say: "Suppliers, customers or markets added from a list", station: "people" },
  retireContact: { say: "Supplier, customer or market put away or back", station: "people" },
  deleteContact: { say: "Supplier, customer or market deleted", station: "people" },
  settings: { say: "Settings saved", station: "settings" },
  undo: { say: "Taken back", station: "" },
} as const satisfies Record<string, { say: string; station: string }>;

export type ActKind = keyof typeof ACTS_SAID;
export const ACT_KINDS = Object.keys(ACTS_SAID) as ActKind[];

/** Kinds of record, what one is called, and where it is found; null where its own number isn't its address. */
export const SUBJECTS = {
  material: { say: "Material", at: "/shelf/" },
  lot: { say: "Lot", at: null },
  receipt: { say: "Receipt", at: "/shelf/receipts/" },
  harvest: { say: "Harvest", at: "/shelf/harvests/" },
  jar: { say: "Jar", at: "/jars/" },
  recipe: { say: "Recipe", at: "/recipes/" },
  product: { say: "Product", at: "/prices/" },
  batch: { say: "Batch", at: "/bench/" },
  market: { say: "Market day", at: "/markets/" },
  order: { say: "Order", at: "/gifts/" },
  contact: { say: "Supplier, customer or market", at: "/people/" },
  recall: { say: "Recall", at: "/lots/recalls/" },
  settings: { say: "Settings", at: null },
} as const satisfies Record<string, { say: string; at: string | null }>;
export type SubjectKind = keyof typeof SUBJECTS;
export const SUBJECT_KINDS = Object.keys(SUBJECTS) as SubjectKind[];

/** A record an act is about. */
export interface Subject {
  kind: SubjectKind;
  id: number;
}

/** @example isActKind("receive") // true */
export const isActKind = (text: string): text is ActKind => Object.hasOwn(ACTS_SAID, text);
/** @example isSubjectKind("jar") // true */
export const isSubjectKind = (text: string): text is SubjectKind => Object.hasOwn(SUBJECTS, text);
