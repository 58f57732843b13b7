/** What leads somewhere: acts asked for by their words, lots and who has them, anything by its name. */
import { finder } from "#core/find";
import { STATIONS } from "../ui/frame/stations.ts";
import { holds } from "#core/material/container";
import { massOf } from "#core/measure/mass";
import { grams } from "#core/measure/write";
import { writeNumber } from "#core/numbers";
import { showAmount } from "#core/measure/parse";
import { unit } from "#core/measure/units";
import type { ActWord, Question } from "#core/reckon/question";
import { counted } from "#core/words";
import { findLot, lotsLike, traceLot } from "#db/lots/trace";
import { contactsOf } from "#db/contacts/contacts";
import { readRecipes } from "#db/recipe/read";
import { listMaterials } from "#db/shelf/materials";
import { db } from "../server/workshop.server.ts";
import { cant, type Reading } from "./reading.ts";

const lotPlace = (number: string): string => `/lots/${encodeURIComponent(number)}`;
const reading = (say: string, to: string, name: string): Reading => ({ say, steps: [], places: [{ to, name }] });
const MOST = 3;

/** Screens by what they are called. */
const SCREENS: readonly { name: string; to: string; also: string }[] = [
  ...STATIONS.map(([to, name]) => ({ name, to, also: "" })),
  { name: "Stock-take", to: "/shelf/stock-take", also: "stocktake count inventory" },
  { name: "Shopping list", to: "/shelf/shopping", also: "buy" },
  { name: "Receipts", to: "/shelf/receipts", also: "purchases" },
  { name: "Harvests", to: "/shelf/harvests", also: "picking drying" },
  { name: "Library", to: "/shelf/library", also: "" },
  { name: "Opening stock", to: "/shelf/opening", also: "what is there already" },
  { name: "Fill a jar", to: "/jars/fill", also: "infuse" },
  { name: "Blend oils", to: "/jars/blend", also: "" },
  { name: "Set out a batch", to: "/bench/set-out", also: "make" },
  { name: "Settings", to: "/settings", also: "currency scale hourly" },
  { name: "The book of acts", to: "/book", also: "undo take back history" },
  { name: "Workshops", to: "/workshops", also: "demo own" },
];
const findScreen = finder(SCREENS, (s) => s);

/** An act asked for by its words leads to its sheet, with what it is about on it. */
export async function acting({ act, of, units }: Extract<Question, { kind: "act" }>): Promise<Reading[]> {
  const materials = async () =>
    finder(
      (await listMaterials(db())).filter((m) => !m.retired),
      (m) => ({ name: m.name, also: m.inci }),
    );
  const recipes = async () =>
    finder(
      (await readRecipes(db())).filter((w) => w.sizes.length > 0),
      (w) => ({ name: w.recipe.name }),
    );
  const ofMaterials = async (say: (name: string) => string, to: (m: { id: number; name: string }) => string, name: string) =>
    (await materials())(of, MOST).map((m) => reading(say(m.name), to(m), name));
  const does: Record<ActWord, () => Promise<Reading[]>> = {
    receive: async () => {
      if (of === "") return [reading("Receive a purchase", "/shelf/receive", "Open the sheet")];
      const from = finder(await contactsOf(db(), "supplier"), (s) => ({ name: s.name }))(of.replace(/^from /, ""), 1);
      return [
        ...(await ofMaterials(
          (n) => `Receive ${n}`,
          (m) => `/shelf/receive?material=${m.id}`,
          "Open the sheet",
        )),
        ...from.map((s) => reading(`Receive from ${s.name}`, `/shelf/receive?supplier=${encodeURIComponent(s.name)}`, "Open the sheet")),
      ];
    },
    setOut: async () =>
      of === ""
        ? [reading("Set out a batch", "/bench/set-out", "Open the sheet")]
        : (await recipes())(of, MOST).map((w) =>
            reading(
              `Set out ${units === null ? "" : `${units} × `}${w.recipe.name}`,
              `/bench/set-out?recipe=${w.recipe.id}${units === null ? "" : `&units=${units}`}`,
              "Open the sheet",
            ),
          ),
    count: async () =>
      of === ""
        ? [reading("Count the shelf", "/shelf/stock-take", "Open the stock-take")]
        : ofMaterials(
            (n) => `Count ${n}`,
            (m) => `/shelf/${m.id}`,
            "Open it and count its lots",
          ),
    fillJar: async () =>
      of === ""
        ? [reading("Fill a jar", "/jars/fill", "Open the sheet")]
        : ofMaterials(
            (n) => `Fill a jar with ${n}`,
            (m) => `/jars/fill?material=${m.id}`,
            "Open the sheet",
          ),
    strain: () => Promise.resolve([reading("The wall of jars", "/jars", "Choose the jar")]),
    write: () => Promise.resolve([reading("Write a recipe", "/recipes/new", "Open the sheet")]),
    add: () =>
      Promise.resolve([
        reading("Take it from the library", "/shelf/library", "Open the library"),
        reading("Add a material by hand", "/shelf/new", "Open the sheet"),
      ]),
    price: async () =>
      (await recipes())(of, MOST).flatMap((w) =>
        w.sizes.slice(0, MOST).map((s) => reading(`Prices of ${w.recipe.name}, ${s.label}`, `/prices/${s.id}`, "Open its prices")),
      ),
    market: () => Promise.resolve([reading("Plan a market day", "/markets/new", "Open the sheet")]),
    order: () => Promise.resolve([reading("Write an order", "/gifts/new", "Open the slip")]),
  };
  return does[act]();
}

/** Who a lot went to: market days and people, with how many. */
export async function whoHas(number: string): Promise<Reading[]> {
  const lot = await findLot(db(), number);
  if (!lot) return [cant(`There is no lot ${number}.`)];
  const { history } = await traceLot(db(), lot.id);
  const went = new Map<string, { name: string; units: number }>();
  for (const h of history) {
    const [to, name] =
      h.giftOrderId !== null
        ? [`/gifts/${h.giftOrderId}`, h.customer]
        : h.marketDayId !== null
          ? [`/markets/${h.marketDayId}`, h.market]
          : [];
    if (to && name && h.qty < 0) went.set(to, { name, units: (went.get(to)?.units ?? 0) - h.qty });
  }
  const places = [...went].map(([to, { name, units }]) => ({ to, name: `${name}: ${counted(units, "unit")}` }));
  return [
    {
      say:
        places.length > 0
          ? `${lot.number}, ${lot.name}, went to ${counted(places.length, "place")}`
          : `${lot.number}, ${lot.name}, has gone to nobody`,
      steps: [],
      places: [...places, { to: lotPlace(lot.number), name: "All of its history" }],
    },
  ];
}

/** A balm, melted; common practice, no source. */
const BALM_MG_PER_ML = 900;

/** How many of a size a weight fills, and what is left: by weight, and by what the container of that name holds. */
export async function filling({ each, container, whole }: Extract<Question, { kind: "fills" }>): Promise<Reading[]> {
  const facts = { name: "It", form: "liquid", densities: { liquid: BALM_MG_PER_ML } } as const;
  const all = massOf(whole, facts);
  if (!all.ok) return [cant(all.problem.say)];
  const by = (one: number, say: string, step: string[]): Reading[] => {
    const n = Math.floor(all.value / one);
    return one > 0
      ? [
          {
            say: `${n} of ${say} from ${showAmount(whole)}`,
            steps: [`${n} × ${grams(one)} = ${grams(n * one)}, ${grams(all.value - n * one)} left`, ...step],
            places: [],
          },
        ]
      : [];
  };
  const dense = `By volume, at ${writeNumber(BALM_MG_PER_ML / 1000, 2, 2)} g per mL, as a balm is when it is melted`;
  const known = container.replace(/\b(tins?|jars?|pots?|tubes?|bars?|bottles?)\b/gi, "").trim();
  const pots =
    known === ""
      ? []
      : finder(
          (await listMaterials(db())).filter((m) => m.kind === "container" || m.kind === "mould"),
          (m) => m,
        )(container, 1);
  const out: Reading[] = [];
  const one = massOf(each, facts);
  if (one.ok)
    out.push(...by(one.value, `${showAmount(each)}${container ? ` ${container}` : ""}`, unit(each.unit).kind === "volume" ? [dense] : []));
  if (each.unit === "oz") {
    const fluid = massOf({ ...each, unit: "floz" }, facts);
    if (fluid.ok) out.push(...by(fluid.value, `${showAmount({ ...each, unit: "floz" })}${container ? ` ${container}` : ""}`, [dense]));
  }
  for (const p of pots) {
    const held = holds(p);
    if (held) out.push(...by(Math.round(held.ml * BALM_MG_PER_ML), p.name, [dense]));
  }
  return out;
}

/** A lot, a material, a recipe or a screen by its name. */
export async function finding(text: string): Promise<Reading[]> {
  if (!/[\p{L}\d]/u.test(text)) return [];
  const lot = await findLot(db(), text);
  if (lot) return [reading(`${lot.number}: ${lot.name}`, lotPlace(lot.number), "Open its history")];
  const [materials, written] = await Promise.all([listMaterials(db()), readRecipes(db())]);
  const like = text.length > 2 ? await lotsLike(db(), text, 4) : [];
  const places = [
    ...findScreen(text, 2).map((s) => ({ to: s.to, name: s.name })),
    ...finder(materials, (m) => ({ name: m.name, also: m.inci }))(text, MOST).map((m) => ({
      to: `/shelf/${m.id}`,
      name: `${m.name} on the shelf`,
    })),
    ...finder(written, (w) => ({ name: w.recipe.name }))(text, MOST).map((w) => ({
      to: `/recipes/${w.recipe.id}`,
      name: `${w.recipe.name}, the recipe`,
    })),
    ...like.map((l) => ({ to: lotPlace(l.number), name: `${l.number}, ${l.name}` })),
  ];
  return places.length > 0 ? [{ say: "Found", steps: [], places }] : [];
}
