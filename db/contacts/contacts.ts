/** Suppliers, customers and markets: who the books know; saving, putting away and deleting them. */
import { CONTACTS, type ContactKind } from "#core/contact";
import { Refused } from "#core/refused";
import type { Day } from "#core/when";
import { counted } from "#core/words";
import { and, eq, inArray, sql, type SQL } from "drizzle-orm";
import { array, object } from "yup";
import { defineAct } from "../act/define.ts";
import { undoId, leftRow, undoText } from "../act/left.ts";
import { defineRetire } from "../act/retire.ts";
import { requireUnchanged } from "../act/seen.ts";
import { notReversed, requireNoLaterActs } from "../ledger/effective.ts";
import type { Reads, Tx } from "../client.ts";
import { readBoolean, readNumber, readText, orNone, rowsOf, sqlText } from "../columnsOf.ts";
import { contact, contactName } from "../schema.ts";
import { oneOf } from "../schema/columns.ts";

export type ContactRow = typeof contact.$inferSelect;

/** Where the books name each kind: what is written of them, for when, where it is read, and the day it happened; none where it hasn't yet. */
const WRITTEN: Record<ContactKind, SQL> = {
  supplier: sql`
    select lower(btrim(p.supplier)) as called, p.day, '/shelf/receipts/' || p.id as path, p.supplier as as_written, 'receipt' as what, p.day as happened,
      (select count(*) from purchase_line l where l.purchase_id = p.id) as n
      from purchase p where ${notReversed(sql`p.act_id`)}
    union all select lower(btrim(o.supplier)), o.seen, '/shelf/' || o.material_id || '/buying', o.supplier, 'offer', o.seen, 1 from offer o`,
  customer: sql`
    select lower(btrim(g.customer)) as called, g.due as day, '/gifts/' || g.id as path, g.customer as as_written,
      case when g.packed_act_id is null then 'order' else 'packed' end as what,
      (select least(g.due, coalesce(g.handed_over, a.day)) from act a where a.id = g.packed_act_id) as happened,
      (select coalesce(sum(i.units), 0) from gift_item i where i.gift_order_id = g.id) as n from gift_order g`,
  market: sql`
    select lower(btrim(d.name)) as called, d.day, '/markets/' || d.id as path, d.name as as_written,
      case when d.closed_act_id is null then 'day' else 'sold' end as what, case when d.closed_act_id is not null then d.day end as happened,
      (select coalesce(sum(case when d.closed_act_id is null then l.taken else l.sold end), 0) from market_line l where l.market_day_id = d.id)
        + (select coalesce(sum(s.units), 0) from past_sale s where s.market_day_id = d.id) as n
      from market_day d`,
};
const WHAT = ["receipt", "offer", "order", "packed", "day", "sold"] as const;

export interface Known {
  id: number;
  name: string;
  reach: string;
  note: string;
  retired: boolean;
  /** How often they are in the books, and when something of theirs last happened. */
  times: number;
  last: Day | null;
}

/** Everybody of a kind, the one last dealt with first. */
export const contactsOf = (db: Reads, kind: ContactKind): Promise<Known[]> =>
  rowsOf(
    db,
    {
      id: contact.id,
      name: contact.name,
      reach: contact.reach,
      note: contact.note,
      retired: readBoolean,
      times: readNumber,
      last: orNone(readText),
    },
    sql`
    select c.id, c.name, c.reach, c.note, c.retired, coalesce(sum(w.times), 0) as times, max(w.last)::text as last
    from ${contact} c join ${contactName} n on n.contact_id = c.id
      left join (select called, count(*) as times, max(happened) as last from (${WRITTEN[kind]}) x group by called) w on w.called = n.called
    where c.kind = ${kind} group by c.id order by max(w.last) desc nulls last, c.name`,
  );

export interface Mention {
  day: Day;
  path: string;
  asWritten: string;
  what: (typeof WHAT)[number];
  /** Lines of a receipt, units of an order or a day. */
  n: number;
}

/** One contact with what the books say of it, newest first; null when it isn't there. */
export async function readContact(db: Reads, id: number): Promise<{ contact: ContactRow; mentions: Mention[] } | null> {
  const [found] = await db.select().from(contact).where(eq(contact.id, id));
  if (!found) return null;
  const mentions = await rowsOf(
    db,
    { day: readText, path: readText, asWritten: readText, what: oneOf(WHAT), n: readNumber },
    sql`
    select w.day::text as day, w.path, w.as_written as "asWritten", w.what, w.n from (${WRITTEN[found.kind]}) w
    join ${contactName} n on n.called = w.called and n.kind = ${found.kind} where n.contact_id = ${id} order by w.day desc, w.path limit 200`,
  );
  return { contact: found, mentions };
}

/** Everything the contact of a name was ever called, the name itself too, as a subquery of small letters. */
export const namesOf = (kind: ContactKind, name: string): SQL => sql`
  select lower(btrim(${name}::text)) union select o.called from ${contactName} n join ${contactName} o on o.contact_id = n.contact_id
  where n.kind = ${kind} and n.called = lower(btrim(${name}::text))`;

const about = (id: number) => [{ kind: "contact" as const, id, changes: true }];

async function held(tx: Tx, id: number): Promise<ContactRow> {
  const [row] = await tx.select().from(contact).where(eq(contact.id, id)).for("no key update");
  if (!row) throw Refused.one("", "That isn't here any more.");
  return row;
}

/** Lets a contact be found by a name too. @returns that name where it is new; null where it was called so before. @throws Refused when somebody else is */
async function call(tx: Tx, { id, kind, name }: Pick<ContactRow, "id" | "kind" | "name">): Promise<string | null> {
  // In small letters by the database's own rule, which is the one the books are looked up by.
  const called = sqlText(sql`lower(btrim(${name}::text))`);
  const [fresh] = await tx
    .insert(contactName)
    .values({ kind, called, contactId: id })
    .onConflictDoNothing()
    .returning({ called: contactName.called });
  const [whose] = await tx
    .select({ id: contact.id, name: contact.name })
    .from(contactName)
    .innerJoin(contact, eq(contact.id, contactName.contactId))
    .where(and(eq(contactName.kind, kind), eq(contactName.called, called)));
  if (whose!.id !== id)
    throw new Refused([
      {
        field: "name",
        say: `${whose!.name} is or was called that already.`,
        see: [{ to: `/people/${whose!.id}`, name: whose!.name }],
      },
    ]);
  return fresh?.called ?? null;
}

export interface ContactIn {
  /** Of one that is there already. */
  id?: number | undefined;
  kind: ContactKind;
  name: string;
  reach: string;
  note: string;
}

/**
 * Adds a contact, or changes one. A new name is another it goes by: older records show the old name, and still lead here.
 * @throws Refused for a name that is somebody else's; EditedMeanwhile
 */
export const saveContact = defineAct({
  kind: "saveContact",
  run: async (tx, { id, ...input }: ContactIn, { seen }) => {
    const before = id === undefined ? null : await held(tx, id);
    if (before) await requireUnchanged(tx, { kind: "contact", id: before.id }, seen);
    const [row] = before
      ? await tx
          .update(contact)
          .set({ name: input.name, reach: input.reach, note: input.note })
          .where(eq(contact.id, before.id))
          .returning({ id: contact.id, kind: contact.kind, name: contact.name })
      : await tx.insert(contact).values(input).returning({ id: contact.id, kind: contact.kind, name: contact.name });
    const called = await call(tx, row!);
    return { path: `/people/${row!.id}`, summary: `Saved ${input.name}`, about: about(row!.id), leaves: { id: row!.id, before, called } };
  },
  leaves: object({ id: undoId(), before: leftRow(contact).nullable(), called: undoText().nullable() }),
  back: async (tx, { id, before, called }, { undoes }) => {
    await requireNoLaterActs(
      tx,
      { kind: "contact", id },
      undoes,
      ["saveContact", "deleteContact"],
      "It has been saved again or deleted since.",
    );
    if (!before) {
      await deleteUnnamed(tx, id);
      return "/people";
    }
    await tx.update(contact).set({ name: before.name, reach: before.reach, note: before.note }).where(eq(contact.id, id));
    // The other name is free again, unless the books have used it meanwhile.
    if (called !== null)
      await tx
        .delete(contactName)
        .where(
          and(
            eq(contactName.kind, before.kind),
            eq(contactName.called, called),
            sql`not exists (select 1 from (${WRITTEN[before.kind]}) w where w.called = ${called})`,
          ),
        );
  },
});

/** How everybody of a kind is or was called, in small letters. */
export const calledSo = async (db: Reads, kind: ContactKind): Promise<Set<string>> =>
  new Set((await db.select({ called: contactName.called }).from(contactName).where(eq(contactName.kind, kind))).map((n) => n.called));

/**
 * Adds everybody on a list, or nobody. Taken back, all of them are deleted, as long as the books name none.
 * @throws Refused for a name that is somebody else's
 */
export const addContacts = defineAct({
  kind: "addContacts",
  run: async (tx, { kind, people }: { kind: ContactKind; people: readonly { name: string; reach: string; note: string }[] }) => {
    const rows = await tx
      .insert(contact)
      .values(people.map(({ name, reach, note }) => ({ kind, name, reach, note })))
      .returning({ id: contact.id, kind: contact.kind, name: contact.name });
    for (const row of rows) await call(tx, row);
    const { say, all } = CONTACTS[kind];
    return {
      path: `/people?of=${kind}`,
      summary: `Added ${counted(rows.length, say.toLowerCase(), all.toLowerCase())} from a list`,
      about: rows.flatMap((r) => about(r.id)),
      leaves: { ids: rows.map((r) => r.id) },
    };
  },
  leaves: object({ ids: array().of(undoId()).required() }),
  back: async (tx, { ids }, { undoes }) => {
    let of = "";
    for (const id of ids) {
      await requireNoLaterActs(
        tx,
        { kind: "contact", id },
        undoes,
        ["saveContact", "deleteContact"],
        "One of them has been saved again or deleted since.",
      );
      of = (await deleteUnnamed(tx, id)).row.kind;
    }
    return `/people?of=${of}`;
  },
});

export const retireContact = defineRetire({
  kind: "retireContact",
  subject: "contact",
  at: "/people/",
  deletes: "deleteContact",
  held: async (tx, id) => {
    const { name, retired } = await held(tx, id);
    return { called: name, retired, about: about(id) };
  },
  set: (tx, id, retired) => tx.update(contact).set({ retired }).where(eq(contact.id, id)),
  back: (name) => `Brought ${name} back`,
});

/** @throws Refused when the books name them */
async function deleteUnnamed(tx: Tx, id: number): Promise<{ row: ContactRow; names: string[] }> {
  const row = await held(tx, id);
  const { mentions } = (await readContact(tx, id))!;
  if (mentions.length > 0)
    throw Refused.one(
      "",
      `${row.name} can't be deleted: the books name it ${counted(mentions.length, "time")}. Put it away instead, and what was written stays.`,
    );
  const names = await tx.delete(contactName).where(eq(contactName.contactId, id)).returning({ called: contactName.called });
  await tx.delete(contact).where(eq(contact.id, id));
  return { row, names: names.map((n) => n.called) };
}

/** Deletes a contact the books never named. @throws Refused when they do */
export const deleteContact = defineAct({
  kind: "deleteContact",
  run: async (tx, { id }: { id: number }) => {
    const gone = await deleteUnnamed(tx, id);
    return { path: `/people?of=${gone.row.kind}`, summary: `Deleted ${gone.row.name}`, about: about(id), leaves: gone };
  },
  leaves: object({ row: leftRow(contact), names: array().of(undoText()).required() }),
  back: async (tx, { row, names }) => {
    const taken = await tx
      .select({ id: contactName.contactId, called: contactName.called })
      .from(contactName)
      .where(and(eq(contactName.kind, row.kind), inArray(contactName.called, names)));
    if (taken.length > 0)
      throw Refused.one("", `There is another ${CONTACTS[row.kind].say.toLowerCase()} called ${taken[0]!.called} by now.`, [
        { to: `/people/${taken[0]!.id}`, name: taken[0]!.called },
      ]);
    await tx.insert(contact).overridingSystemValue().values(row);
    await tx.insert(contactName).values(names.map((called) => ({ kind: row.kind, called, contactId: row.id })));
    return `/people/${row.id}`;
  },
});
