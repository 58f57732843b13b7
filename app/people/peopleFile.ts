/** Suppliers, customers or markets as a file. */
import { CONTACTS, type ContactKind } from "#core/contact";
import type { FileColumn } from "#core/lists/fileColumns";
import type { contactsOf } from "#db/contacts/contacts";

type Contact = Awaited<ReturnType<typeof contactsOf>>[number];

export const peopleFile = (kind: ContactKind): FileColumn<Contact>[] => [
  { head: "name", of: (c) => c.name },
  { head: CONTACTS[kind].reach.toLowerCase(), of: (c) => c.reach },
  { head: "note", of: (c) => c.note },
  { head: `times ${CONTACTS[kind].known}`, of: (c) => c.times, as: "number" },
  { head: "last", of: (c) => c.last },
  { head: "put away", of: (c) => (c.retired ? "yes" : "no") },
];
