/** Forms on a lot's page: hold, the supplier's limit of a scent, returns, count, melting down. */
import { FATE_IDS, FATES } from "#core/cabinet/out";
import type { Mg } from "#core/measure/exact";
import { parseNumber, plainText } from "#core/measure/parse";
import { grams } from "#core/measure/write";
import type { OutAt } from "#db/ledger/out";
import { useSheet, type Opened } from "../forms/useSheet.ts";
import { useSayDay } from "../ui/figures/amounts.tsx";
import { Button, Choice, Problem, Text } from "../ui/fields/form.tsx";
import { enterGoesOn } from "../ui/fields/enter.ts";
import { Part } from "../ui/sheet/sheet.tsx";
import { SheetSays } from "../forms/sheetSays.tsx";

/** Putting a lot on hold, or off it. */
export function Hold({ held, opened: sheetOpened }: { held: boolean; opened: Opened }) {
  const sheet = useSheet({ reason: "" }, sheetOpened, { draft: "Putting a lot on hold", sheet: "hold" });
  return (
    <form onSubmit={sheet.send("hold")} className="flex flex-wrap items-start gap-2">
      {held ? (
        <Button onClick={() => void sheet.send("release")()} disabled={sheet.busy}>
          Take off hold
        </Button>
      ) : (
        <>
          <input {...sheet.register("reason")} aria-label="Why on hold" placeholder="Why on hold" className="field w-44!" />
          <Button type="submit" disabled={sheet.busy}>
            Put on hold
          </Button>
        </>
      )}
      <Problem say={sheet.formState.errors.reason?.message ?? sheet.problem} see={sheet.see} />
    </form>
  );
}

/** Millionths as the per cent of a field. @example percentText(7000) // "0.7" */
export const percentText = (ppm: number | null): string => (ppm === null ? "" : plainText(ppm / 10_000));

/** The most of a scent by its supplier's paper. */
export function ScentMost({ ppm, opened: sheetOpened }: { ppm: number | null; opened: Opened }) {
  const sheet = useSheet({ most: percentText(ppm) }, sheetOpened, { draft: "What a lot may be", sheet: "scentMost" });
  return (
    <Part title="By its supplier’s paper" screenOnly>
      <SheetSays sheet={sheet} names={{ most: "Of a product at most, per cent" }} />
      <form onSubmit={sheet.send("scentMost")} className="flex flex-wrap items-start gap-3">
        <Text
          data-amount="decimal"
          className="w-80"
          label="Of a product at most, per cent"
          hint="It overrides the usual ceiling. 0 where none may be in it; empty where the paper doesn’t say."
          {...sheet.register("most")}
          problem={sheet.formState.errors.most?.message}
        />
        <Button type="submit" className="sm:mt-6" disabled={sheet.busy}>
          Write it down
        </Button>
      </form>
    </Part>
  );
}

/** Units that somebody brought back. */
export function CameBack({ out, at, opened: sheetOpened }: { out: number; at: readonly OutAt[]; opened: Opened }) {
  const sayIt = useSayDay();
  const sources = at.map((o): readonly [string, string] =>
    o.orderId !== null
      ? [`order ${o.orderId}`, `${o.name}, order due ${sayIt(o.day!)}: ${o.units} out`]
      : o.dayId !== null
        ? [`day ${o.dayId}`, `${o.name}, ${sayIt(o.day!)}: ${o.units} out`]
        : ["hand", `handed out: ${o.units}`],
  );
  const only = sources.length === 1 ? sources[0]![0] : "";
  const sheet = useSheet({ units: "", fate: "kept", from: only, note: "" }, sheetOpened, { draft: "What came back", sheet: "came back" });
  const { errors } = sheet.formState;
  return (
    <Part title="Came back" screenOnly>
      <SheetSays sheet={sheet} names={{ units: "Units", from: "From", note: "Who brought it, and why" }} />
      <form onSubmit={sheet.send("cameBack")} className="grid items-start gap-3 sm:grid-cols-[6rem_1fr_1fr]">
        <Text
          data-amount
          label="Units"
          placeholder={`of ${out}`}
          className="[&_input]:text-right"
          {...sheet.register("units")}
          problem={errors.units?.message}
        />
        <Choice
          label="From"
          options={[...(only === "" ? [["", "choose …"] as const] : []), ...sources]}
          {...sheet.register("from")}
          problem={errors.from?.message}
        />
        <Choice label="What came back" options={FATE_IDS.map((f) => [f, FATES[f]] as const)} {...sheet.register("fate")} />
        <Text
          className="sm:col-span-2"
          label="Who brought it, and why"
          hint="A rash or anything else that hurt somebody: put the lot on hold too, and ask what has to be reported where you are."
          {...sheet.register("note")}
          problem={errors.note?.message}
        />
        <Button type="submit" className="sm:mt-6" disabled={sheet.busy}>
          Write it down
        </Button>
      </form>
    </Part>
  );
}

/** Units counted otherwise than the books have them. */
export function CountUnits({ onHand, opened: sheetOpened }: { onHand: number; opened: Opened }) {
  const sheet = useSheet({ expected: onHand, counted: "", reason: "" }, sheetOpened, {
    draft: "A count in the cabinet",
    sheet: "count units",
    only: ["counted", "reason"],
  });
  const { errors } = sheet.formState;
  return (
    <Part title="Counted otherwise" screenOnly>
      <SheetSays sheet={sheet} names={{ counted: "Counted", reason: "Why it differs" }} />
      <form onSubmit={sheet.send("count")} className="grid items-start gap-3 sm:grid-cols-[7rem_1fr_auto]">
        <Text
          data-amount
          label="Counted"
          placeholder={`now ${onHand}`}
          className="[&_input]:text-right"
          {...sheet.register("counted")}
          problem={errors.counted?.message}
        />
        <Text
          label="Why it differs"
          placeholder="such as one behind the others"
          {...sheet.register("reason")}
          problem={errors.reason?.message}
        />
        <Button type="submit" className="sm:mt-6" disabled={sheet.busy}>
          Correct the count
        </Button>
      </form>
    </Part>
  );
}

/** Units that go back into the pot. */
export function MeltDown({ onHand, fill, opened: sheetOpened }: { onHand: number; fill: Mg; opened: Opened }) {
  const sheet = useSheet({ units: "", weight: "", note: "" }, sheetOpened, { draft: "What is melted down", sheet: "melt down" });
  const { errors } = sheet.formState;
  const units = parseNumber(sheet.values.units);
  return (
    <Part title="Melt it down" screenOnly>
      <p className="mb-2 text-pine-soft">
        Too soft, too hard, grainy? Out of their tins these are a base again, to be weighed into another pot; the lot’s history goes with
        it.
      </p>
      <SheetSays sheet={sheet} names={{ units: "Units", weight: "Came out of them", note: "Why" }} />
      <form
        onSubmit={(e) => e.preventDefault()}
        onKeyDown={enterGoesOn}
        className="grid items-start gap-3 sm:grid-cols-[7rem_12rem_1fr_auto]"
      >
        <Text
          data-amount
          label="Units"
          placeholder={`of ${onHand}`}
          className="[&_input]:text-right"
          {...sheet.register("units")}
          problem={errors.units?.message}
        />
        <Text
          data-amount
          label="Came out of them"
          placeholder={units.ok ? `about ${grams(units.value.valueOf() * fill)}` : "as filled"}
          hint="Empty: as much as they were filled with."
          {...sheet.register("weight")}
          problem={errors.weight?.message}
        />
        <Text label="Why" placeholder="such as grainy" {...sheet.register("note")} problem={errors.note?.message} />
        <Button className="sm:mt-6" disabled={sheet.busy} onClick={() => void sheet.send("meltDown")()}>
          Melt down
        </Button>
      </form>
    </Part>
  );
}
