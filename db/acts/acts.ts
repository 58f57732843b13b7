/**
 * Every kind of act with its definition. The compiler holds this record complete: a kind named in core/act/kinds without a definition
 * here doesn't compile, nor does a definition entered under another kind's name.
 */
import type { ActKind } from "#core/act/kinds";
import type { AnyAct } from "../act/define.ts";
import { dropScan, keepBatchPhoto, keepPhoto, keepScan } from "../attachments/attachments.ts";
import { checkBatch } from "../bench/finishing/check.ts";
import { meltDown } from "../bench/finishing/meltDown.ts";
import { learnBatch } from "../bench/finishing/nextTime.ts";
import { pour } from "../bench/finishing/pour.ts";
import { clearBatch } from "../bench/planning/clear.ts";
import { setOut } from "../bench/planning/setOut.ts";
import { spoilBatch } from "../bench/finishing/spoil.ts";
import { comeBack } from "../cabinet/comeBack.ts";
import { takeOut } from "../cabinet/cabinet.ts";
import { openingFinished } from "../listsIn/finished.ts";
import { addMaterials } from "../listsIn/materials.ts";
import { addOrders } from "../listsIn/orders.ts";
import { saveGiftOrder } from "../gifts/gifts.ts";
import { packGiftOrder } from "../gifts/pack.ts";
import { fillJar, heat, tend, topUp } from "../jars/fill.ts";
import { blend, spoilJar, strainJar } from "../jars/strain.ts";
import { beginRecall, closeRecall, tellRecall } from "../lots/recall.ts";
import { closeMarketDay, saveMarketDay } from "../markets/markets.ts";
import { addContacts, deleteContact, retireContact, saveContact } from "../contacts/contacts.ts";
import { addPastDays } from "../listsIn/pastDays.ts";
import { choosePrices, choosePricesOfList } from "../prices/prices.ts";
import { deleteProduct, deleteRecipe, retireProduct, retireRecipe } from "../recipe/keep.ts";
import { noteFirmness } from "../recipe/firmness.ts";
import { addRecipes } from "../listsIn/recipes.ts";
import { saveRecipe } from "../recipe/save.ts";
import { saveSettings } from "../settings/settings.ts";
import { dropOffer, noteOffer } from "../shelf/buying.ts";
import { correctReceipt } from "../shelf/receipts/correct.ts";
import { correctCount, holdLot } from "../shelf/counting/count.ts";
import { finishHarvest, pick, weighHarvest } from "../shelf/harvests.ts";
import { addFromLibrary, deleteMaterial, retireMaterial, saveMaterial } from "../shelf/keepMaterial.ts";
import { moveOut, openLot, sayDrips, sayDryness } from "../shelf/lots.ts";
import { openingStock, sayCost } from "../shelf/counting/opening.ts";
import { arrive, receive, receiveMany } from "../shelf/receipts/receive.ts";
import { sayScentMost } from "../shelf/scentMost.ts";
import { postStocktake } from "../shelf/counting/stocktake.ts";

export const ACTS: { readonly [K in Exclude<ActKind, "undo">]: { readonly definition: AnyAct & { kind: K } } } = {
  saveMaterial,
  retire: retireMaterial,
  deleteMaterial,
  addMaterials,
  library: addFromLibrary,
  receive,
  receiveFile: receiveMany,
  opening: openingStock,
  sayCost,
  arrive,
  correct: correctReceipt,
  keepScan,
  dropScan,
  count: correctCount,
  stocktake: postStocktake,
  moveOut,
  open: openLot,
  dryness: sayDryness,
  drips: sayDrips,
  hold: holdLot,
  recall: beginRecall,
  tellRecall,
  closeRecall,
  scentMost: sayScentMost,
  offer: noteOffer,
  dropOffer,
  pick,
  weighHarvest,
  harvest: finishHarvest,
  fillJar,
  topUp,
  tend,
  heat,
  keepPhoto,
  strain: strainJar,
  spoil: spoilJar,
  blend,
  saveRecipe,
  addRecipes,
  learnBatch,
  checkBatch,
  noteFirmness,
  retireRecipe,
  deleteRecipe,
  retireProduct,
  deleteProduct,
  setOut,
  pour,
  spoilBatch,
  keepBatchPhoto,
  clearBatch,
  openingFinished,
  comeBack,
  meltDown,
  takeOut,
  price: choosePrices,
  listPrices: choosePricesOfList,
  saveMarket: saveMarketDay,
  closeMarket: closeMarketDay,
  pastDays: addPastDays,
  saveGift: saveGiftOrder,
  packOrder: packGiftOrder,
  addOrders,
  saveContact,
  addContacts,
  retireContact,
  deleteContact,
  settings: saveSettings,
};
