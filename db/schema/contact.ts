/**
 * Who is bought from and made for, and where it is sold. What the books call them stays as it was written on its day; a name leads to its
 * contact through `contact_name`, which a trigger fills whenever the books name somebody new (migration 0006).
 */
import { CONTACTS } from "#core/contact";
import { boolean, index, integer, primaryKey, text } from "drizzle-orm/pg-core";
import { wordColumn } from "./columns.ts";
import { ours } from "./ours.ts";

export const contact = ours.table("contact", {
  id: integer().primaryKey().generatedAlwaysAsIdentity(),
  kind: wordColumn(CONTACTS).notNull(),
  /** What it is called now. */
  name: text().notNull(),
  /** Where to reach them, as the maker writes it. */
  reach: text().notNull().default(""),
  note: text().notNull().default(""),
  /** Put away: no longer offered, what was written of it stays. */
  retired: boolean().notNull().default(false),
});

/** Everything a contact was ever called, in small letters: what the books wrote then still leads to it. */
export const contactName = ours.table(
  "contact_name",
  {
    kind: wordColumn(CONTACTS).notNull(),
    called: text().notNull(),
    contactId: integer()
      .notNull()
      .references(() => contact.id),
  },
  (t) => [primaryKey({ columns: [t.kind, t.called] }), index("contact_name_contact").on(t.contactId)],
);
