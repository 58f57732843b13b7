/** Saying what a lot cost that was there before the books began: all of a material, one unit of finished goods. What was made or sold of it follows. */
import { COST_KNOWN, type CostKnown } from "#core/stock/costKnown";
import { parseMoney } from "#core/measure/read";
import { object } from "yup";
import { idField, oneOf, reads } from "../forms/fields.ts";
import { SheetSays } from "../forms/sheetSays.tsx";
import { useSheet, type Opened } from "../forms/useSheet.ts";
import { Button, Choice, Text } from "../ui/fields/form.tsx";

export const costSchema = object({ lotId: idField(), cost: reads(parseMoney), known: oneOf<CostKnown>(["paid", "guessed"]) });

interface Props {
  lot: { id: number; number: string; costKnown: CostKnown };
  opened: Opened;
  /** What the figure is of, such as "All of it". */
  of: string;
}

export function SayCost({ lot, opened, of }: Props) {
  const sheet = useSheet({ lotId: lot.id, cost: "", known: "paid" }, opened, { draft: `Cost of ${lot.number}`, sheet: `cost ${lot.id}` });
  return (
    <form onSubmit={sheet.send("cost")} className="space-y-3">
      <SheetSays sheet={sheet} />
      <div className="grid gap-4 sm:grid-cols-2">
        <Text
          data-amount
          label={`${of} cost`}
          hint={`It came without a receipt; its cost is ${COST_KNOWN[lot.costKnown]}.`}
          placeholder="such as 12.50"
          {...sheet.register("cost")}
          problem={sheet.formState.errors.cost?.message}
        />
        <Choice
          label="That is"
          options={(["paid", "guessed"] as const).map((k) => [k, COST_KNOWN[k]] as const)}
          {...sheet.register("known")}
          problem={sheet.formState.errors.known?.message}
        />
      </div>
      <Button type="submit" disabled={sheet.busy}>
        Say what it cost
      </Button>
    </form>
  );
}
