/** Whom the books name: who is bought from, who it is made for, where it is sold. */

export const CONTACTS = {
  supplier: { say: "Supplier", all: "Suppliers", reach: "Where to order", known: "bought from" },
  customer: { say: "Customer", all: "Customers", reach: "How to reach them", known: "made for" },
  market: { say: "Market", all: "Markets", reach: "Where it is, who runs it", known: "sold at" },
} as const satisfies Record<string, { say: string; all: string; reach: string; known: string }>;
export type ContactKind = keyof typeof CONTACTS;
export const CONTACT_KINDS = Object.keys(CONTACTS) as ContactKind[];

/** @example isContactKind("market") // true */
export const isContactKind = (text: string): text is ContactKind => Object.hasOwn(CONTACTS, text);
