/** Receiving a purchase of several lines at once. */
import { factsIn } from "#core/material/facts";
import { micros, sum } from "#core/measure/exact";
import { parseMoney, type UnitCost } from "#core/measure/money";
import { parseNumber } from "#core/measure/parse";
import { Refused, type FieldProblem } from "#core/refused";
import { landedCosts, packAmount } from "#core/stock/packs";
import { receive } from "#db/shelf/receive";
import { againCosts } from "#db/ledger";
import { listMaterials } from "#db/shelf/materials";
import { today } from "#db/clock";
import { Link } from "react-router";
import { array, object } from "yup";
import { db } from "../db.server.ts";
import { dayField, moneyOr0, optionalDay, reads, note, wholeNumber, words } from "../forms/fields.ts";
import { act, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { PerUnit, percent, showBase } from "../ui/amounts.tsx";
import { Button, Problem, Suggestions, Text } from "../ui/form.tsx";
import { LineTable } from "../ui/lines.tsx";
import { Figure, Heading, HowLine, Reckoner, Sheet, SideBySide } from "../ui/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { money } from "#core/measure/money";
import type { Route } from "./+types/receive";

export const meta: Route.MetaFunction = () => [{ title: "Receive a purchase · Zelbin" }];

const schema = object({
  supplier: words("who it came from"),
  day: dayField(),
  postage: moneyOr0(),
  lines: array()
    .of(
      object({
        material: words("a material"),
        supplierLot: note(60),
        packs: wholeNumber(1, 10_000, "packs", 1),
        packSize: words("what is in a pack", 40),
        price: reads(parseMoney),
        bestBefore: optionalDay(),
      }),
    )
    .min(1, "Enter at least one line.")
    .required(),
});

export async function loader({ request }: Route.LoaderArgs) {
  const [materials, again] = await Promise.all([listMaterials(db()), againCosts(db())]);
  const wanted = Number(new URL(request.url).searchParams.get("material"));
  return {
    materials,
    again: [...again] as [number, UnitCost][],
    first: materials.find((m) => m.id === wanted)?.name ?? "",
    token: crypto.randomUUID(),
    today: today(),
  };
}

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { supplier, day, postage, lines } = sheet.value;
  const byName = new Map((await listMaterials(db())).map((m) => [m.name.toLowerCase(), m]));
  const problems: FieldProblem[] = [];
  if (day > today()) problems.push({ field: "day", say: "That day hasn't come yet." });
  const read = lines.map((l, i) => {
    const m = byName.get(l.material.toLowerCase());
    if (!m) {
      problems.push({
        field: `lines.${i}.material`,
        say: `“${l.material}” isn't on the shelf. Choose one from the list, or add it first.`,
      });
      return null;
    }
    const qty = packAmount(l.packs, l.packSize, factsIn(m));
    if (!qty.ok) problems.push({ field: `lines.${i}.packSize`, say: qty.problem.say });
    if (l.bestBefore !== null && l.bestBefore < day)
      problems.push({ field: `lines.${i}.bestBefore`, say: "That is before the day it arrived." });
    return qty.ok
      ? {
          materialId: m.id,
          supplierLot: l.supplierLot ?? "",
          packs: l.packs,
          packSize: l.packSize,
          qty: qty.value,
          price: l.price,
          bestBefore: l.bestBefore,
        }
      : null;
  });
  if (problems.length > 0) return refuseSheet(problems);
  return act(() => {
    if (read.some((l) => l === null)) throw Refused.one("", "Some lines could not be read.");
    return receive(db(), { supplier, day, postage, lines: read.map((l) => l!) }, { token: sheet.token });
  });
}

const BLANK = { material: "", supplierLot: "", packs: "1", packSize: "", price: "", bestBefore: "" };
const COLUMNS = [
  { key: "material", label: "Material", width: "25%", list: "materials" },
  { key: "packs", label: "Packs", width: "3.6rem", right: true },
  { key: "packSize", label: "Each holds", width: "6rem", placeholder: "500 g", right: true },
  { key: "price", label: "Price of all", width: "6.5rem", placeholder: "12.50", right: true },
  { key: "supplierLot", label: "Supplier's lot", width: "6.5rem" },
  { key: "bestBefore", label: "Best before", type: "date" as const, width: "9rem" },
];

export default function Receive({ loaderData: { materials, again, first, token, today: day } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const sheet = useSheet({ supplier: "", day, postage: "", lines: [{ ...BLANK, material: first }] }, token);
  const values = sheet.values;
  const byName = new Map(materials.map((m) => [m.name.toLowerCase(), m]));
  const lastCost = new Map(again);

  const read = values.lines.map((l) => {
    const m = byName.get(l.material.trim().toLowerCase());
    const packs = parseNumber(l.packs || "1");
    const price = parseMoney(l.price);
    const qty = m && packs.ok ? packAmount(Number(packs.value.valueOf()), l.packSize, factsIn(m)) : null;
    return {
      m,
      price: price.ok ? price.value : micros(0),
      qty: qty?.ok ? qty.value : null,
      say: l.packSize && qty && !qty.ok ? qty.problem.say : null,
    };
  });
  const postage = parseMoney(values.postage || "0");
  const landed =
    read.length > 0 && postage.ok
      ? landedCosts(
          read.map((r) => r.price),
          postage.value,
        )
      : [];
  const goods = sum(read.map((r) => r.price));
  const unitCost = (i: number): UnitCost | null => (read[i]?.qty ? { value: landed[i] ?? micros(0), per: read[i].qty } : null);

  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title="Receive a purchase"
        about="Copy the receipt line by line. Each line becomes a lot with its own cost, postage included."
      >
        <Link to="/shelf" className="act">
          Leave
        </Link>
        <Button type="submit" main disabled={sheet.busy}>
          Put on the shelf
        </Button>
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure label="Goods" value={money(goods, currency)} />
            <Figure
              label="Postage"
              value={postage.ok ? money(postage.value, currency) : "—"}
              how={
                <>
                  <p>Shared over the lines by their price, to the last cent.</p>
                  {read.map(
                    (r, i) =>
                      r.m &&
                      landed[i] !== undefined && <HowLine key={i} label={r.m.name} value={`+ ${money(landed[i] - r.price, currency)}`} />,
                  )}
                </>
              }
            />
            <Figure label="Paid in all" big value={postage.ok ? money(goods + postage.value, currency) : "—"} />
            {read.map((r, i) => {
              const now = unitCost(i);
              const last = r.m && lastCost.get(r.m.id);
              if (!r.m || !now || now.value === 0) return null;
              const change = last ? now.value / now.per / (last.value / last.per) - 1 : null;
              const measured = factsIn(r.m).measured;
              return (
                <Figure
                  key={i}
                  label={r.m.name}
                  value={<PerUnit cost={now} measured={measured} />}
                  tone={change !== null && change > 0.1 ? "warn" : undefined}
                  how={
                    <>
                      <HowLine label="Price and postage" value={money(now.value, currency)} />
                      <HowLine label="Spread over" value={showBase(now.per, measured)} />
                      {last && <HowLine label="Bought last at" value={<PerUnit cost={last} measured={measured} />} />}
                      {change !== null && <HowLine label="Change" value={`${change >= 0 ? "+" : "−"}${percent(Math.abs(change))}`} />}
                    </>
                  }
                />
              );
            })}
          </Reckoner>
        }
      >
        <Sheet>
          <Problem say={sheet.problem} />
          <div className="mb-5 grid gap-4 sm:grid-cols-[1fr_11rem_9rem]">
            <Text label="Supplier" {...sheet.register("supplier")} problem={sheet.formState.errors.supplier?.message} />
            <Text label="Arrived" type="date" {...sheet.register("day")} problem={sheet.formState.errors.day?.message} />
            <Text
              label="Postage"
              placeholder="0.00"
              className="[&_input]:text-right"
              {...sheet.register("postage")}
              problem={sheet.formState.errors.postage?.message}
            />
          </div>
          <LineTable
            form={sheet}
            name="lines"
            columns={COLUMNS}
            blank={BLANK}
            addLabel="Add a line"
            derived={[
              {
                label: "In all",
                cell: (i) => (
                  <span className="weight">
                    {read[i]?.qty ? (
                      showBase(read[i].qty, read[i].m ? factsIn(read[i].m).measured : "weight")
                    ) : read[i]?.say ? (
                      <span title={read[i].say} className="font-semibold text-berry">
                        ?
                      </span>
                    ) : (
                      ""
                    )}
                  </span>
                ),
              },
            ]}
          />
          <Suggestions id="materials" names={materials.map((m) => m.name)} />
          <p className="mt-4 text-[0.92rem] text-pine-soft">
            Leave best before empty where there is none. Lot numbers are given when you put it on the shelf.
          </p>
        </Sheet>
      </SideBySide>
    </form>
  );
}
