/** One market day: its sheet, saving and closing it. */
import { parseMoney } from "#core/measure/read";
import { leftOver, salesOf } from "#core/market/day";
import { Refused, type FieldProblem } from "#core/refused";
import { firstExpiredFirst } from "#core/stock/lots";
import { unitsForStall } from "#core/stock/allocations";
import { restatementsSince } from "#db/acts/book";
import { notYetReleased } from "#db/bench/finishing/notYetReleased";
import { listCabinet } from "#db/cabinet/cabinet";
import { allocatedUnits } from "#db/cabinet/allocations";
import { today } from "#db/clock";
import { closeMarketDay, finishedLotsByNumber, lastDayAt, listMarketDays, saveMarketDay } from "#db/markets/markets";
import { chosenPrices } from "#db/prices/prices";
import { cachedSettings } from "#db/settings/settings";
import { array, object } from "yup";
import { db } from "../server/workshop.server.ts";
import { idOf } from "../forms/ids.ts";
import { dayField, moneyOr0, noteText, reads, scaled, wholeNumber, requiredText } from "../forms/fields.ts";
import { openSheet } from "../forms/openSheet.server.ts";
import { runAct, intentOf, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { actsOf } from "../book/lines.server.ts";
import { DayRecord } from "./dayRecord.tsx";
import { DaySheet } from "./daySheet.tsx";
import { PastDayRecord } from "./pastDayRecord.tsx";
import { BLANK, dayTexts } from "./dayTexts.ts";
import type { Route } from "./+types/day";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${(loaderData as { day?: { name: string } } | undefined)?.day?.name ?? "Plan a market day"} · Zelbin` },
];

/** The day a new one is begun like: a certain one, or the last at that market. */
async function likeOf(asked: URLSearchParams): Promise<number | null> {
  if (asked.has("like")) return idOf(asked.get("like")!);
  return asked.has("at") ? lastDayAt(db(), asked.get("at")!) : null;
}

export async function loader({ request, params }: Route.LoaderArgs) {
  const id = "id" in params ? idOf(params.id) : null;
  const asked = new URL(request.url).searchParams;
  const record = id === null ? null : ({ kind: "market", id } as const);
  const [days, cabinet, chosen, settings, stand, sheet, book, righted] = await Promise.all([
    listMarketDays(db(), [id ?? (await likeOf(asked)) ?? 0]),
    listCabinet(db()),
    chosenPrices(db()),
    cachedSettings(db()),
    allocatedUnits(db(), today(), { without: id ?? undefined }),
    openSheet(record),
    record && actsOf(record),
    id === null ? [] : restatementsSince(db(), "marketDayId", id),
  ]);
  if (id !== null && days.length === 0) throw new Response("Not found", { status: 404 });
  const waits = await notYetReleased(
    db(),
    cabinet.map((l) => l.id),
    today(),
  );
  const ahead = id !== null && days[0]!.day > today() ? days[0]!.day : null;
  const lots = [...cabinet].sort(firstExpiredFirst).map((l) => ({
    id: l.id,
    number: l.number,
    of: l.of,
    name: `${l.name}, ${l.label}`,
    /** What could go along: neither reserved, on its way elsewhere, on hold nor past its day. */
    free: unitsForStall(stand.get(l.of), l.id, new Map(), ahead),
    onHand: l.onHand,
    value: l.value,
    bestBefore: l.bestBefore,
    hold: l.hold,
    costKnown: l.costKnown,
    price: chosen.get(l.of)?.market ?? null,
    waits: waits.get(l.id) ?? null,
  }));
  const day = id === null ? null : days[0]!;
  const like = id === null ? days[0] : undefined;
  const start = { today: today(), cardFeeBp: settings.cardFeeBp };
  return {
    day,
    // As the last one there: its fees and hours; when, and what goes along, is another matter.
    texts: like
      ? { ...dayTexts(like, start), day: "", byCard: "", note: "", lines: [BLANK] }
      : { ...dayTexts(day, start), ...(id === null ? { name: (asked.get("at") ?? "").slice(0, 80) } : {}) },
    lots,
    opened: sheet,
    book,
    righted,
  };
}

/** The lot number a line starts with; its product's name may follow. */
const lotNumberIn = (text: string): string => text.trim().split(" ")[0]!.toUpperCase();

const count = (what: string) => wholeNumber(0, 10_000, what, 0);
const schema = object({
  intent: intentOf(["keep", "close"]),
  name: requiredText("the market", 80),
  day: dayField(),
  stallFee: moneyOr0(),
  travel: moneyOr0(),
  byCard: moneyOr0(),
  cardFee: scaled(0, 20, "per cent", 100, 0),
  hours: scaled(0, 48, "hours", 60, 0),
  note: noteText(),
  lines: array()
    .of(
      object({
        lot: noteText(60),
        taken: count("units taken"),
        sold: count("units sold"),
        given: count("units given"),
        damaged: count("units damaged"),
        price: reads((t) => parseMoney(t.trim() === "" ? "0" : t)),
      }),
    )
    .required(),
});

export async function action({ request, params }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { intent, lines, cardFee, hours, ...head } = sheet.value;
  const id = "id" in params ? idOf(params.id) : undefined;
  const lots = await finishedLotsByNumber(
    db(),
    lines.map((l) => lotNumberIn(l.lot)),
  );
  const problems: FieldProblem[] = [];
  const seen = new Set<number>();
  const read = lines.flatMap((l, i) => {
    const typed = lotNumberIn(l.lot);
    if (typed === "") {
      if (l.taken + l.sold + l.given + l.damaged > 0) problems.push({ field: `lines.${i}.lot`, say: "Which lot?" });
      return [];
    }
    const lotId = lots.get(typed);
    if (lotId === undefined) problems.push({ field: `lines.${i}.lot`, say: `No lot ${typed} is in the cabinet.` });
    else if (seen.has(lotId)) problems.push({ field: `lines.${i}.lot`, say: `${typed} is here twice.` });
    else seen.add(lotId);
    if (leftOver(l) < 0)
      problems.push({ field: `lines.${i}.sold`, say: `${l.sold + l.given + l.damaged} went, but only ${l.taken} were taken along.` });
    return lotId === undefined ? [] : [{ lotId, taken: l.taken, sold: l.sold, given: l.given, damaged: l.damaged, price: l.price }];
  });
  const { takings } = salesOf(read);
  if (intent === "close" && head.byCard > takings) problems.push({ field: "byCard", say: "More was paid by card than was taken." });
  if (intent === "close" && head.day > today()) problems.push({ field: "day", say: "That day hasn't come yet; save it as a plan." });
  if (problems.length > 0) return refuseSheet(problems);
  const input = { id, ...head, cardFeeBp: cardFee, minutes: hours, lines: read };
  const doing = { ...sheet.doing, day: intent === "close" ? head.day : today() };
  return runAct(
    () => {
      if (intent === "close" && read.length === 0) throw Refused.one("lines.0.lot", "Enter what was taken along.");
      return intent === "close" ? closeMarketDay(db(), input, doing) : saveMarketDay(db(), input, doing);
    },
    { theirs: async () => dayTexts((await listMarketDays(db(), [id ?? 0]))[0] ?? null, { today: today(), cardFeeBp: cardFee }) },
  );
}

export default function MarketDay({ loaderData }: Route.ComponentProps) {
  const { day, book, righted } = loaderData;
  if (day?.beforeBooks) return <PastDayRecord day={day} book={book} />;
  if (day?.closedActId != null) return <DayRecord day={day} book={book} righted={righted} />;
  return <DaySheet key={`${loaderData.day?.id ?? "new"} ${loaderData.opened.seen}`} {...loaderData} />;
}
