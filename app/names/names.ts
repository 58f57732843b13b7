/** What the fields for names choose from, and adding a material on the spot: the sheet it is needed on stays as it is. */
import { KIND_IDS, KINDS, kind } from "#core/material/kinds";
import { LIBRARY, libraryEntry } from "#core/material/library";
import { mg } from "#core/measure/exact";
import { showUnitCost } from "#core/measure/money";
import { showStock } from "#core/measure/write";
import { counted } from "#core/words";
import { sayDay } from "#core/when";
import { today } from "#db/clock";
import { isContactKind, type ContactKind } from "#core/contact";
import { grams } from "#core/measure/write";
import { firstExpiredFirst } from "#core/stock/lots";
import { oilLots } from "#db/jars/read";
import { contactsOf } from "#db/contacts/contacts";
import { materialNames } from "#db/names";
import { cachedSettings } from "#db/settings/settings";
import { addFromLibrary, saveMaterial } from "#db/shelf/keepMaterial";
import { data } from "react-router";
import { array, object } from "yup";
import { db } from "../server/workshop.server.ts";
import { noteText, oneOf, scaled, requiredText } from "../forms/fields.ts";
import { productsToChoose } from "#db/gifts/products";
import { withRefusals, validateSheet, readPosted, refuseSheet } from "../forms/sheet.server.ts";
import type { Route } from "./+types/names";
import type { Name, Names } from "./name.ts";

async function materials(): Promise<Names> {
  const [all, { currency }] = await Promise.all([materialNames(db()), cachedSettings(db())]);
  const there = new Set(all.map((m) => m.name.toLowerCase()));
  return {
    names: all.map((m): Name => {
      const { measured } = kind(m.kind);
      const cost = m.onHand > 0 ? `, ${showUnitCost({ value: m.value, per: m.onHand }, measured, currency)}` : "";
      return {
        name: m.name,
        kind: m.kind,
        also: `${m.inci} ${m.botanical}`.trim(),
        first: m.onHand > 0,
        aside: m.onHand > 0 ? showStock(m.onHand, measured) : "none here",
        about: m.onHand > 0 ? `${counted(m.lots, "lot")}${cost}` : KINDS[m.kind].label,
      };
    }),
    library: LIBRARY.filter((e) => !there.has(e.name.toLowerCase())).map((e) => ({
      name: e.name,
      kind: e.kind,
      also: `${e.inci} ${e.botanical}`.trim(),
      about: KINDS[e.kind].label,
      key: e.key,
    })),
  };
}

/** What helps to tell a contact: what was written about them before how often they were dealt with. */
const people = async (kind: ContactKind): Promise<Names> => {
  const [known, { dates }] = await Promise.all([contactsOf(db(), kind), cachedSettings(db())]);
  return {
    names: known
      .filter((c) => !c.retired)
      .map((c) => ({
        name: c.name,
        also: `${c.reach} ${c.note}`.trim(),
        aside: c.last === null ? "new" : sayDay(c.last, today(), dates === "mdy"),
        about: [counted(c.times, "time"), c.reach].filter(Boolean).join(", "),
      })),
    library: [],
  };
};

/** Everything that can be ordered, with what is free of it. */
async function products(): Promise<Names> {
  const all = await productsToChoose(db());
  return { names: all.map((p) => ({ name: p.name, first: p.free > 0, aside: `${p.free} free`, about: p.spoken })), library: [] };
}

/** Lots of liquid and infused oils, by what they are of and their number; the one to use first in front. */
async function oils(): Promise<Names> {
  const [lots, { dates }] = await Promise.all([oilLots(db()), cachedSettings(db())]);
  return {
    names: lots.sort(firstExpiredFirst).map((l) => ({
      name: l.name,
      aside: grams(l.onHand),
      ...(l.bestBefore && { about: `best before ${sayDay(l.bestBefore, today(), dates === "mdy")}` }),
    })),
    library: [],
  };
}

export function loader({ params: { of } }: Route.LoaderArgs): Promise<Names> {
  if (of === "material") return materials();
  if (of === "product") return products();
  if (of === "oilLot") return oils();
  if (isContactKind(of)) return people(of);
  throw new Response("Not Found", { status: 404 });
}

/** More at once is no recipe. */
const MOST_ADDED = 60;
const schema = object({
  key: noteText(60),
  /** Several at once. */
  keys: array().of(noteText(60)).max(MOST_ADDED).default([]),
  name: noteText(120),
  kind: noteText(20),
  brimMl: scaled(0, 20_000, "millilitres", 10, 0),
  emptyG: scaled(0, 20_000, "grams", 1000, 0),
});
const own = object({ name: requiredText("a name"), kind: oneOf(KIND_IDS) });

/** Answers with the (first) name that was added, so that the field it was typed in can go on. */
export async function action({ request, params }: Route.ActionArgs) {
  if (params.of !== "material") throw new Response("Not Found", { status: 404 });
  const posted = await readPosted(request);
  if (!posted.ok) return posted.reply;
  const sheet = await validateSheet(posted.body, schema);
  if (!sheet.ok) return sheet.reply;
  const { key, brimMl, emptyG } = sheet.value;
  const keys = key === "" ? sheet.value.keys : [key];
  if (keys.length > 0) {
    const entries = keys.map(libraryEntry);
    if (entries.some((e) => !e)) return refuseSheet([{ field: "", say: "The library hasn't got that any more." }]);
    return withRefusals(async () => {
      await addFromLibrary(db(), { keys }, sheet.doing);
      return data({ added: entries[0]!.name });
    });
  }
  const said = await validateSheet(posted.body, own);
  if (!said.ok) return said.reply;
  const { name, kind: id } = said.value;
  return withRefusals(async () => {
    await saveMaterial(
      db(),
      { name, kind: id, densities: kind(id).start, brimMl: brimMl ? brimMl / 10 : null, emptyMg: emptyG ? mg(emptyG) : null },
      sheet.doing,
    );
    return data({ added: name });
  });
}
