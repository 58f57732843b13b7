/** Suppliers, customers and markets: met by being named, kept, called otherwise, put away and deleted. */
import { addDays } from "#core/when";
import { describe, expect, it } from "vitest";
import { reverseAct } from "../acts/reverse.ts";
import { addContacts, calledSo, contactsOf, deleteContact, readContact, retireContact, saveContact } from "./contacts.ts";
import { saveGiftOrder } from "../gifts/gifts.ts";
import { closeMarketDay, lastDayAt, saveMarketDay } from "../markets/markets.ts";
import { fairOf } from "#test/db/market";
import { euro } from "#test/db/fresh";
import { buy, DAY, db, eachTestHasAWorkshop, finished, idIn, ids, make, refused } from "#test/db/workshop";

eachTestHasAWorkshop();

const doing = { day: DAY };
const order = (customer: string) => ({
  customer,
  due: DAY,
  extra: euro(0),
  discountBp: 0,
  wrapMinutes: 0,
  note: "",
  items: [{ productId: ids.product, units: 1, price: euro(9) }],
  wrapping: [],
});
const fair = (name: string, day: string) => fairOf({ name, day });
/** A stall that sold one. */
const stall = async () => {
  await make(1);
  const [l] = await finished();
  return [{ lotId: l!.id, taken: 1, sold: 1, given: 0, damaged: 0, price: euro(5) }];
};
const called = async (kind: "supplier" | "customer" | "market") => (await contactsOf(db, kind)).map((c) => [c.name, c.times]);

describe("contacts", () => {
  it("are met by being named, once whatever the case, and by several windows at once", async () => {
    expect(await called("supplier")).toEqual([["Mill", 4]]);
    await Promise.all(["Choir", "choir", " Choir ", "CHOIR"].map((c) => saveGiftOrder(db, order(c.trim()), doing)));
    expect((await called("customer")).map(([name, times]) => [String(name).toLowerCase(), times])).toEqual([["choir", 4]]);
    await saveMarketDay(db, fair("Fair", DAY), doing);
    expect(await called("market")).toEqual([["Fair", 1]]);
  });

  it("called otherwise keep what was written, lead there still, and no other may take the old name", async () => {
    const [mill] = await contactsOf(db, "supplier");
    await saveContact(db, { id: mill!.id, kind: "supplier", name: "New Mill", reach: "by post", note: "" }, doing);
    await buy(ids.oil, 1000, 1);
    // One receipt says Mill still: it is the same.
    expect(await called("supplier")).toEqual([["New Mill", 5]]);
    const found = (await readContact(db, mill!.id))!;
    expect(new Set(found.mentions.map((m) => m.asWritten))).toEqual(new Set(["Mill"]));
    const [why] = await refused(saveContact(db, { kind: "supplier", name: "mill", reach: "", note: "" }, doing));
    expect(why).toMatchObject({ field: "name", see: [{ to: `/people/${mill!.id}` }] });
    // The same name may be a customer's.
    await saveContact(db, { kind: "customer", name: "Mill", reach: "", note: "" }, doing);
    // Taken back, the other name is anybody's again.
    const other = await saveContact(db, { id: mill!.id, kind: "supplier", name: "Äther Mühle", reach: "", note: "" }, doing);
    await reverseAct(db, other.actId, doing);
    await saveContact(db, { kind: "supplier", name: "äther Mühle", reach: "", note: "" }, doing);
    const first = await closeMarketDay(db, { ...fair("Fair", DAY), lines: await stall() }, doing);
    // What is only planned, ahead or long past, is no last time.
    for (const day of [addDays(DAY, 200), addDays(DAY, -3)]) await saveMarketDay(db, fair("Fair", day), doing);
    const [market] = await contactsOf(db, "market");
    expect([market!.last, market!.times]).toEqual([DAY, 3]);
    await saveContact(db, { id: market!.id, kind: "market", name: "Great Fair", reach: "", note: "" }, doing);
    expect(await lastDayAt(db, "great fair")).toBe(idIn(first));
    expect(await lastDayAt(db, "no such")).toBeNull();
  });

  it("are put away and brought back; deleted only while no book names them; all of it can be taken back", async () => {
    const [mill] = await contactsOf(db, "supplier");
    const away = await retireContact(db, { id: mill!.id, retired: true }, doing);
    expect((await contactsOf(db, "supplier"))[0]!.retired).toBe(true);
    await reverseAct(db, away.actId, doing);
    expect((await contactsOf(db, "supplier"))[0]!.retired).toBe(false);
    expect((await refused(deleteContact(db, { id: mill!.id }, doing)))[0]!.say).toMatch(/the books name it 4 times/);

    const made = await saveContact(db, { kind: "supplier", name: "Quarry", reach: "", note: "clay" }, doing);
    const id = idIn(made);
    const gone = await deleteContact(db, { id }, doing);
    expect(await readContact(db, id)).toBeNull();
    await reverseAct(db, gone.actId, doing);
    expect((await readContact(db, id))!.contact).toMatchObject({ name: "Quarry", note: "clay" });
    const again = await deleteContact(db, { id }, doing);
    await saveContact(db, { kind: "supplier", name: "QUARRY", reach: "", note: "" }, doing);
    expect((await refused(reverseAct(db, again.actId, doing)))[0]!.say).toMatch(/another supplier called quarry/);
    // A new one taken back is there no more; one named since stays.
    const other = await saveContact(db, { kind: "customer", name: "Nan", reach: "", note: "" }, doing);
    await saveGiftOrder(db, order("Nan"), doing);
    expect((await refused(reverseAct(db, other.actId, doing)))[0]!.say).toMatch(/can't be deleted/);
  });

  it("come in out of a list, all or nobody; taken back they are gone, unless the books have named one since", async () => {
    const people = ["Choir", "School fête"].map((name) => ({ name, reach: "Hall lane\n0555 0102", note: "no nuts" }));
    const added = await addContacts(db, { kind: "customer", people }, doing);
    expect(added.path).toBe("/people?of=customer");
    expect(await called("customer")).toEqual([
      ["Choir", 0],
      ["School fête", 0],
    ]);
    expect(await calledSo(db, "customer")).toEqual(new Set(["choir", "school fête"]));
    expect((await readContact(db, (await contactsOf(db, "customer"))[0]!.id))!.contact).toMatchObject({
      reach: "Hall lane\n0555 0102",
      note: "no nuts",
    });
    // One of them is known: nobody is added.
    const [why] = await refused(addContacts(db, { kind: "customer", people: [{ name: "New", reach: "", note: "" }, people[0]!] }, doing));
    expect(why!.say).toBe("Choir is or was called that already.");
    expect(await called("customer")).toHaveLength(2);
    const back = await reverseAct(db, added.actId, doing);
    expect([await called("customer"), back.path]).toEqual([[], "/people?of=customer"]);
    // What was noted of one since isn't thrown away.
    const noted = await addContacts(db, { kind: "customer", people }, doing);
    const [one] = await contactsOf(db, "customer");
    await saveContact(db, { id: one!.id, kind: "customer", name: one!.name, reach: "by post", note: "" }, doing);
    expect((await refused(reverseAct(db, noted.actId, doing)))[0]!.say).toMatch(/saved again/);
    for (const c of await contactsOf(db, "customer")) await deleteContact(db, { id: c.id }, doing);
    const again = await addContacts(db, { kind: "customer", people }, doing);
    await saveGiftOrder(db, order("Choir"), doing);
    expect((await refused(reverseAct(db, again.actId, doing)))[0]!.say).toMatch(/Choir can't be deleted: the books name it/);
    expect(await called("customer")).toHaveLength(2);
  });

  it("two windows on one: the second is shown what the first kept", async () => {
    const [mill] = await contactsOf(db, "supplier");
    const sheet = { id: mill!.id, kind: "supplier" as const, name: "Mill", reach: "" };
    await saveContact(db, { ...sheet, note: "first" }, { ...doing, seen: 0 });
    await refused(saveContact(db, { ...sheet, note: "second" }, { ...doing, seen: 0 }));
    expect((await readContact(db, mill!.id))!.contact.note).toBe("first");
  });
});
