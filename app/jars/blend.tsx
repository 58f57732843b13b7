/** Blending oils of several lots into one. */
import { Link } from "react-router";
import { micros, mg, sum } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { grams } from "#core/measure/write";
import type { FieldProblem } from "#core/refused";
import { drawValue } from "#core/stock/lots";
import { blend } from "#db/jars/strain";
import { array, object } from "yup";
import { db } from "../server/workshop.server.ts";
import { firstUnread, readWeight } from "#core/measure/read";
import { done, refuse } from "#core/outcome";
import { noteText, reads, requiredText } from "../forms/fields.ts";
import { runAct, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { PerUnit, When } from "../ui/figures/amounts.tsx";
import { OIL_LOTS } from "../names/finds.ts";
import { byCalled, normalizeName } from "#core/meant";
import type { OilLot } from "#db/jars/read";
import { LOOKUP_FAILED, useLookup, useLastKnown } from "../names/useLookup.ts";
import { Text } from "../ui/fields/form.tsx";
import { nameCell } from "../names/combo.tsx";
import { LineTable } from "../ui/fields/lines.tsx";
import { Figure, HowLine, Reckoner } from "../ui/figures/reckoner.tsx";
import { Heading, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { oilLots } from "#db/jars/read";
import type { Route } from "./+types/blend";

export const meta: Route.MetaFunction = () => [{ title: "Blend oils · Zelbin" }];

export const loader = () => ({ token: crypto.randomUUID() });

const schema = object({
  name: requiredText("what the blend is called", 80),
  note: noteText(300),
  takes: array()
    .of(object({ lot: requiredText("a lot", 200), qty: reads(readWeight) }))
    .min(1, "Enter at least two lots.")
    .required(),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const lots = byCalled(
    await oilLots(
      db(),
      sheet.value.takes.map((t) => t.lot),
    ),
  );
  const problems: FieldProblem[] = [];
  const takes = sheet.value.takes.map((t, i) => {
    const lotId = lots.get(normalizeName(t.lot))?.id;
    if (lotId === undefined) problems.push({ field: `takes.${i}.lot`, say: "Choose a lot from the list." });
    return { lotId: lotId ?? 0, qty: t.qty };
  });
  if (problems.length > 0) return refuseSheet(problems);
  return runAct(() => blend(db(), { name: sheet.value.name, note: sheet.value.note, takes }, sheet.doing));
}

const TAKE = { lot: "", qty: "" };
/** A blend is always a new one. */
const NONE: OilLot[] = [];

export default function Blend({ loaderData: { token } }: Route.ComponentProps) {
  const { currency } = useWorkshop();
  const sheet = useSheet({ name: "", note: "", takes: [TAKE, TAKE] }, { token }, { draft: (v) => v.name || "A blend" });
  const { find, asking, lost } = useLookup(
    "oilLot",
    NONE,
    sheet.values.takes.map((t) => t.lot),
  );
  const { takes } = useLastKnown(sheet.values, asking);
  const read = takes.map((t) => {
    const lot = find(t.lot);
    const w = readWeight(t.qty);
    return { lot, qty: w.ok ? w.value : mg(0) };
  });
  const good = read.filter((r) => r.lot && r.qty > 0 && r.qty <= r.lot.onHand);
  const qty = sum(good.map((r) => r.qty));
  const cost = micros(sum(good.map((r) => drawValue(r.lot!, r.qty))));
  const best = good.reduce<string | null>(
    (a, r) => (r.lot!.bestBefore !== null && (a === null || r.lot!.bestBefore < a) ? r.lot!.bestBefore : a),
    null,
  );
  const { errors } = sheet.formState;
  const mistake = firstUnread(
    takes.flatMap((t, i) => {
      const { lot, qty } = read[i]!;
      return [
        [`Lot, row ${i + 1}`, t.lot, (text: string) => (lot ? done(text) : refuse("unknown", "Choose a lot from the list."))] as const,
        [`Amount, row ${i + 1}`, t.qty, readWeight] as const,
        [
          `Amount, row ${i + 1}`,
          t.qty,
          (text: string) => (lot && qty > lot.onHand ? refuse("more", `There are ${grams(lot.onHand)} of it.`) : done(text)),
        ] as const,
      ];
    }),
  );
  const unread = lost ? LOOKUP_FAILED : mistake;
  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title="Blend oils"
        about="Oils of two lots or more poured together become a new lot, at what they cost, and can be traced back to each."
      >
        <Link to="/jars" className="act">
          Leave
        </Link>
        <Send sheet={sheet}>Pour together</Send>
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner unread={unread}>
            <Figure label="In all" big value={qty > 0 ? grams(qty) : "—"} />
            <Figure
              label="Cost"
              value={qty > 0 ? <PerUnit cost={{ value: cost, per: qty }} measured="weight" /> : "—"}
              how={
                qty > 0 &&
                good.map((r) => <HowLine key={r.lot!.id} label={r.lot!.name} value={money(drawValue(r.lot!, r.qty), currency)} />)
              }
            />
            <Figure label="Best before" value={<When day={best} />} how={<p>The soonest of the lots in it.</p>} />
          </Reckoner>
        }
      >
        <Sheet>
          <SheetSays sheet={sheet} />
          <div className="mb-5 grid gap-4 sm:grid-cols-2">
            <Text label="The blend is called" {...sheet.register("name")} problem={errors.name?.message} />
            <Text label="Note" {...sheet.register("note")} problem={errors.note?.message} />
          </div>
          <LineTable
            form={sheet.form}
            name="takes"
            columns={[
              { key: "lot", label: "Lot", own: nameCell(OIL_LOTS), width: "65%" },
              { key: "qty", label: "Amount", placeholder: "g or mL", right: true },
            ]}
            blank={TAKE}
            addLabel="Add a lot"
            derived={[
              {
                label: "Left after",
                cell: (i) => <span className="weight">{read[i]?.lot ? grams(read[i].lot.onHand - read[i].qty) : ""}</span>,
              },
            ]}
          />
        </Sheet>
      </SideBySide>
    </form>
  );
}
