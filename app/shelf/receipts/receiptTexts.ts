/** A receipt as its sheet says it. */
export const BLANK_LINE = { id: "", material: "", packs: "1", packSize: "", price: "", supplierLot: "", bestBefore: "", arrived: "" };
export const BLANK_RECEIPT = {
  supplier: "",
  day: "",
  postage: "",
  tax: "",
  discount: "",
  spreadBy: "value" as string,
  currency: "",
  rate: "",
  note: "",
  lines: [BLANK_LINE],
};
export type ReceiptTexts = typeof BLANK_RECEIPT;
