/** The choices beside a file: which column is which, how it is written, and what it doesn't tell by itself. */
import { BLANK_AS } from "#core/intake/asked";
import { FIELDS, isNeeded, PRICE_OF, PURPOSES, type FieldId, type Purpose } from "#core/intake/columns";
import { DATE_ORDERS, NUMBER_STYLES } from "#core/intake/loose";
import { counted } from "#core/words";
import { useId } from "react";
import { DayInput } from "../../ui/fields/dateField.tsx";
import { Choice, Frame, Problem, Text } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import type { Preview } from "./intake.server.ts";

/** What was chosen; empty where it is as guessed. */
export interface Matching {
  columns: Record<string, string>;
  matches: Record<string, string>;
  blanks: Record<string, string>;
  money: Record<string, string>;
  rates: Record<string, string>;
  numbers: string;
  dates: string;
  priceOf: string;
  supplier: string;
  day: string;
  twice: string;
}

interface ChoicesProps {
  purpose: Purpose;
  preview: Preview;
  matching: Matching;
  set: (change: Partial<Matching>) => void;
}

/** What opening stock calls its columns, where it is another word. */
const OPENING: Partial<Record<FieldId, string>> = { price: "Cost", day: "Bought on", supplierLot: "Lot on it" };
export const fieldName = (purpose: Purpose, f: FieldId): string => (purpose === "opening" ? (OPENING[f] ?? FIELDS[f]) : FIELDS[f]);

/** The choices, with a blank one as long as nobody has chosen. */
export const asking = (value: string, of: Readonly<Record<string, string>>): (readonly [string, string])[] => [
  ...(value === "" ? [["", "— choose —"] as const] : []),
  ...Object.entries(of),
];

export function FileChoices({ purpose, preview: p, matching, set }: ChoicesProps) {
  const { currency } = useWorkshop();
  const dayId = useId();
  const { columns, blanks, money, rates } = matching;
  const needed = (f: FieldId): boolean => isNeeded(purpose, f) || (f === "packSize" && p.mapping.packs === null);
  const told = [
    ...(p.mapping.price === null
      ? []
      : [["priceOf", purpose === "opening" ? "The cost is that of" : "The price is that of", PRICE_OF] as const]),
    ["numbers", "Numbers are written", NUMBER_STYLES] as const,
    ["dates", "Dates are written", DATE_ORDERS] as const,
  ];
  return (
    <Part title="Which column is which" aside={<span className="text-pine-soft">{counted(p.rows, "row")}</span>}>
      <div className="grid gap-3 sm:grid-cols-4">
        {PURPOSES[purpose].fields.map((f) => (
          <Choice
            key={f}
            label={fieldName(purpose, f)}
            value={p.mapping[f] === null ? "none" : String(p.mapping[f])}
            onChange={(e) => set({ columns: { ...columns, [f]: e.target.value } })}
            options={[
              ["none", needed(f) ? "— choose —" : "not in it"],
              ...p.header.map((h, i) => [String(i), `${h}${p.sample[0]?.[i] ? ` · ${p.sample[0][i]}` : ""}`] as const),
            ]}
          />
        ))}
        {told.map(([field, label, of]) => (
          <Choice
            key={field}
            label={label}
            problem={p.asked[field] || undefined}
            value={p[field]}
            onChange={(e) => set({ [field]: e.target.value })}
            options={asking(p[field], of)}
          />
        ))}
        {p.merged.map(({ field, as }) => (
          <Choice
            key={field}
            label={`Rows without a ${FIELDS[field].toLowerCase()}`}
            problem={p.asked.blanks[field]}
            value={as}
            onChange={(e) => set({ blanks: { ...blanks, [field]: e.target.value } })}
            options={asking(as, BLANK_AS)}
          />
        ))}
        {p.foreign.map(({ sign, currencies }) => (
          <Choice
            key={sign}
            label={`“${sign}” is`}
            problem={p.asked.money.find((m) => m.sign === sign)?.say}
            value={money[sign] ?? ""}
            onChange={(e) => set({ money: { ...money, [sign]: e.target.value } })}
            options={asking(money[sign] ?? "", Object.fromEntries(currencies.map((c) => [c, c === currency ? `${c} all the same` : c])))}
          />
        ))}
        {p.foreign
          .filter(({ sign }) => money[sign] && money[sign] !== currency)
          .map(({ sign }) => (
            <Text
              key={`rate ${sign}`}
              label={`One ${money[sign]} in ${currency}`}
              placeholder="such as 0.92"
              inputMode="decimal"
              value={rates[sign] ?? ""}
              onChange={(e) => set({ rates: { ...rates, [sign]: e.target.value } })}
            />
          ))}
        {p.mapping.supplier === null && purpose === "receipt" && (
          <Text label="All from" placeholder="Supplier" value={matching.supplier} onChange={(e) => set({ supplier: e.target.value })} />
        )}
        {p.mapping.day === null && (
          <Frame id={dayId} label="All bought on" hint={purpose === "opening" ? "if you remember" : undefined}>
            <DayInput id={dayId} className="field" leaning="past" value={matching.day} onDay={(day) => set({ day })} />
          </Frame>
        )}
      </div>
      <Problem say={p.say} />
    </Part>
  );
}
