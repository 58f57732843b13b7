/** A receipt on its sheet, line by line, with what each gram then costs beside it; for a new one and for a correction. */
import { Link } from "react-router";
import { isKeyOf } from "#core/objects";
import { factsIn } from "#core/material/facts";
import { micros, sum } from "#core/measure/exact";
import { firstUnread, orNothing, readCount, readPlain, parseMoney } from "#core/measure/read";
import { done, refuse } from "#core/outcome";
import { packAmount, stockWeight } from "#core/stock/packs";
import { landReceipt, RATE_1, SPREADS } from "#core/stock/receipt";
import { useState, type ReactNode } from "react";
import { fillEmptyField } from "../../forms/fillEmptyField.ts";
import { useSubmitWhenReady } from "../../forms/useSubmitWhenReady.ts";
import { useSheet, type Opened } from "../../forms/useSheet.ts";
import { showBase } from "../../ui/figures/amounts.tsx";
import { CURRENCIES } from "../../ui/fields/currencies.ts";
import { FindText, nameCell } from "../../names/combo.tsx";
import { MATERIALS, SUPPLIERS } from "../../names/finds.ts";
import { normalizeName } from "#core/meant";
import type { PurchasedMaterial } from "#db/shelf/sheetMaterials";
import { LOOKUP_FAILED, useLookup, useLastKnown } from "../../names/useLookup.ts";
import { DayText } from "../../ui/fields/dateField.tsx";
import { Choice, Text } from "../../ui/fields/form.tsx";
import { LineTable, type Column } from "../../ui/fields/lines.tsx";
import { Heading, Sheet, SideBySide } from "../../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";
import { Tip } from "../../ui/sheet/tip.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { ReceiptReckoner } from "./receiptReckoner.tsx";
import { BLANK_LINE, type ReceiptTexts } from "./receiptTexts.ts";

const COLUMNS: readonly Column[] = [
  { key: "material", label: "Material", width: "24%", own: nameCell(MATERIALS) },
  { key: "packs", label: "Packs", width: "3.4rem", right: true },
  { key: "packSize", label: "Each holds", width: "5.6rem", placeholder: "g, mL, pcs", right: true },
  { key: "price", label: "Price of all", width: "6rem", right: true },
  { key: "supplierLot", label: "Supplier's lot", width: "6.2rem" },
  { key: "bestBefore", label: "Best before", day: "future" as const, width: "8.8rem" },
];
const ARRIVED: Column = { key: "arrived", label: "So far", width: "4.2rem", right: true, placeholder: "all" };

const moneyOf = (text: string) => {
  const m = parseMoney(text || "0");
  return m.ok ? m.value : micros(0);
};

interface Props {
  title: string;
  about: ReactNode;
  start: ReceiptTexts;
  /** What its lines name as it is opened. */
  stuff: readonly PurchasedMaterial[];
  opened: Opened;
  back: string;
  button: string;
  /** Packs can be still to come; on a correction that is done from the receipt. */
  partial: boolean;
  links?: ReactNode;
}

const FIELD_NAMES = {
  supplier: "Supplier",
  day: "Day",
  postage: "Postage",
  tax: "Tax",
  discount: "Discount",
  spreadBy: "Postage shared",
  currency: "Currency",
  rate: "Rate",
  note: "Note",
  lines: "Lines",
};

export function ReceiptSheet({ title, about, start, stuff, opened, back, button, partial, links }: Props) {
  const { currency } = useWorkshop();
  const sheet = useSheet<ReceiptTexts>(start, opened, { draft: (r) => (r.supplier ? `Receipt from ${r.supplier}` : "A receipt") });
  const { find, asking, lost, once } = useLookup(
    "bought",
    stuff,
    sheet.values.lines.map((l) => l.material),
    sheet.means,
  );
  const sending = useSubmitWhenReady(sheet, asking && !lost);
  const v = useLastKnown(sheet.values, asking);
  const { errors } = sheet.formState;
  const [more, setMore] = useState([v.tax, v.discount, v.currency, v.note].some((t) => t !== ""));
  const [parts, setParts] = useState(partial && v.lines.some((l) => l.arrived !== ""));
  const paidIn = v.currency || currency;

  const read = v.lines.map((l) => {
    const m = find(l.material);
    const packs = readCount(l.packs || "1");
    const price = parseMoney(l.price);
    const qty = m && packs.ok ? packAmount(packs.value, l.packSize, factsIn(m)) : null;
    const amount = qty?.ok ? qty.value : null;
    return {
      m,
      price: price.ok ? price.value : micros(0),
      qty: amount,
      weight: m && amount !== null ? stockWeight(amount, factsIn(m), m.emptyMg) : null,
      say: l.packSize && qty && !qty.ok ? qty.problem.say : null,
    };
  });
  const rate = Math.round(orNothing(v.rate, readPlain, 0) * RATE_1);
  const landed = landReceipt({
    lines: read.map((r) => ({ price: r.price, weight: r.weight })),
    postage: moneyOf(v.postage),
    tax: moneyOf(v.tax),
    discount: moneyOf(v.discount),
    spreadBy: isKeyOf(SPREADS, v.spreadBy) ? v.spreadBy : "value",
    rate: v.currency && v.currency !== currency && rate > 0 ? rate : RATE_1,
  });
  // Most things are bought in the same pack again.
  const onPicked = (i: number, key: string, text: string): void => {
    if (key !== "material") return;
    const size = `lines.${i}.packSize` as const;
    once(text, size, ({ pack }) => {
      if (pack && normalizeName(sheet.getValues(`lines.${i}.material`)) === normalizeName(text)) fillEmptyField(sheet, size, pack);
    });
  };
  const row = (what: string, i: number): string => `${what}, row ${i + 1}`;
  const mistake = firstUnread([
    ["Postage", v.postage, parseMoney],
    ["Tax", v.tax, parseMoney],
    ["Discount", v.discount, parseMoney],
    ["Rate", v.rate, readPlain],
    ...v.lines.flatMap((l, i) => {
      const m = read[i]!.m;
      return [
        [row("Material", i), l.material, (t: string) => (m ? done(t) : refuse("unknown", "It isn't on the shelf."))] as const,
        [row("Packs", i), l.packs, readCount] as const,
        [row("Each holds", i), m ? l.packSize : "", (t: string) => packAmount(1, t, factsIn(m!))] as const,
        [row("Price", i), l.price, parseMoney] as const,
      ];
    }),
  ]);
  const unread = lost ? LOOKUP_FAILED : mistake;
  return (
    <form onSubmit={sending.send()}>
      <Heading title={title} about={about}>
        {links}
        <Link to={back} className="act">
          Leave
        </Link>
        <Send sheet={sending}>{button}</Send>
      </Heading>
      <SideBySide
        reckoner={<ReceiptReckoner read={read} goods={sum(read.map((r) => r.price))} landed={landed} unread={unread} paidIn={paidIn} />}
      >
        <Sheet>
          <SheetSays sheet={sheet} names={FIELD_NAMES} />
          <div className="mb-5 grid gap-4 sm:grid-cols-[1fr_11rem_8rem_9rem]">
            <FindText control={sheet.control} name="supplier" finds={SUPPLIERS} label="Supplier" problem={errors.supplier?.message} />
            <DayText label="Arrived" control={sheet.control} name="day" leaning="past" problem={errors.day?.message} />
            <Text
              data-amount
              label="Postage"
              placeholder="none"
              className="[&_input]:text-right"
              {...sheet.register("postage")}
              problem={errors.postage?.message}
            />
            <Choice
              label="Shared out"
              options={Object.entries(SPREADS)}
              {...sheet.register("spreadBy")}
              problem={errors.spreadBy?.message}
            />
            {more && (
              <>
                <Text label="Note" {...sheet.register("note")} problem={errors.note?.message} />
                <Choice
                  label="Paid in"
                  options={[["", currency], ...CURRENCIES.filter((c) => c !== currency).map((c) => [c, c] as const)]}
                  {...sheet.register("currency")}
                  problem={errors.currency?.message}
                />
                <Text
                  data-amount
                  label="Tax on top"
                  placeholder="none"
                  className="[&_input]:text-right"
                  {...sheet.register("tax")}
                  problem={errors.tax?.message}
                />
                <Text
                  data-amount
                  label="Discount"
                  placeholder="none"
                  className="[&_input]:text-right"
                  {...sheet.register("discount")}
                  problem={errors.discount?.message}
                />
                {v.currency && v.currency !== currency && (
                  <Text
                    data-amount="decimal"
                    label={`One ${v.currency} in ${currency}`}
                    placeholder="such as 0.93"
                    className="[&_input]:text-right sm:col-start-2"
                    {...sheet.register("rate")}
                    problem={errors.rate?.message}
                  />
                )}
              </>
            )}
          </div>
          {(!more || (partial && !parts)) && (
            <p className="-mt-2 mb-4 flex flex-wrap gap-x-6 text-small">
              {!more && (
                <button type="button" className="pressable" onClick={() => setMore(true)}>
                  Tax, discount, another currency, a note
                </button>
              )}
              {partial && !parts && (
                <button type="button" className="pressable" onClick={() => setParts(true)}>
                  Not all of it has come
                </button>
              )}
            </p>
          )}
          <LineTable
            form={sheet.form}
            name="lines"
            columns={partial && parts ? [...COLUMNS, ARRIVED] : COLUMNS}
            blank={BLANK_LINE}
            addLabel="Add a line"
            onPicked={onPicked}
            derived={[
              {
                label: "In all",
                cell: (i) => (
                  <span className="weight">
                    {read[i]?.qty ? (
                      showBase(read[i].qty, read[i].m ? factsIn(read[i].m).measured : "weight")
                    ) : read[i]?.say ? (
                      <Tip says={read[i].say}>
                        <button type="button" aria-label={read[i].say} className="px-1 font-semibold text-berry">
                          ?
                        </button>
                      </Tip>
                    ) : (
                      ""
                    )}
                  </span>
                ),
              },
            ]}
          />
          <p className="mt-4 text-small text-pine-soft">
            Leave best before empty where there is none. Rows paste in from a spreadsheet, in the order of the columns.
            {parts && " Say how many packs have come so far; the rest waits on the receipt."}
          </p>
        </Sheet>
      </SideBySide>
    </form>
  );
}
