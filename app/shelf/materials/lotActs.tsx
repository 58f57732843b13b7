/** Acts on one lot: correcting its count, opening it, and taking some out. */
import type { readMaterial } from "#db/shelf/materials";
import { DRYNESS } from "#core/material/dryness";
import { USUAL_DROPS_PER_ML } from "#core/measure/mass";
import { MOVE_OUT_REASONS, REASONS } from "#core/ledger/reasons";
import { useFetcher } from "react-router";
import type { Reply } from "../../forms/sheet.server.ts";
import { useSheet } from "../../forms/useSheet.ts";
import { SayCost } from "../../lots/sayCost.tsx";
import { LotTag, showBase, When } from "../../ui/figures/amounts.tsx";
import { Button, Choice, Problem, Text } from "../../ui/fields/form.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";

export type LotRow = NonNullable<Awaited<ReturnType<typeof readMaterial>>>["lots"][number];
interface Props {
  lot: LotRow;
  measured: "weight" | "count";
  token: string;
}

export function CountForm({ lot, measured, token }: Props) {
  const sheet = useSheet(
    { lotId: lot.id, expected: lot.onHand, counted: "", reason: "" },
    { token },
    { draft: `Counting ${lot.number}`, sheet: `count ${lot.id}` },
  );
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send("count")} className="space-y-4">
      <SheetSays sheet={sheet} />
      <p>
        The shelf says <strong className="weight">{showBase(lot.onHand, measured)}</strong> of <LotTag lot={lot} plain />.
      </p>
      <Text
        data-amount
        label="Counted or weighed"
        placeholder={measured === "weight" ? "such as 430 g" : "such as 48"}
        autoFocus
        {...sheet.register("counted")}
        problem={errors.counted?.message}
      />
      <Text
        label="Why it differs"
        hint="Spilt, misread, found another bag …"
        {...sheet.register("reason")}
        problem={errors.reason?.message}
      />
      <Send sheet={sheet}>Correct the count</Send>
    </form>
  );
}

/** Taking some out, with a reason. */
function TakeOut({ lot, measured, token }: Props) {
  const sheet = useSheet(
    { lotId: lot.id, amount: "", why: "wasted", note: "" },
    { token },
    { draft: `Taking out of ${lot.number}`, sheet: `out ${lot.id}` },
  );
  const { errors } = sheet.formState;
  return (
    <form onSubmit={sheet.send("takeOut")} className="space-y-4">
      <SheetSays sheet={sheet} />
      <div className="grid gap-4 sm:grid-cols-2">
        <Text
          data-amount
          label="Take out"
          placeholder={measured === "weight" ? "such as 50 g" : "such as 3"}
          hint={`${showBase(lot.onHand, measured)} on hand.`}
          {...sheet.register("amount")}
          problem={errors.amount?.message}
        />
        <Choice label="Because it is" options={MOVE_OUT_REASONS.map((r) => [r, REASONS[r].say] as const)} {...sheet.register("why")} />
      </div>
      <Text
        label="Note"
        placeholder="such as smelt of crayons; to whom; which return"
        {...sheet.register("note")}
        problem={errors.note?.message}
      />
      <Button type="submit" main disabled={sheet.busy || lot.onHand === 0}>
        Take it out
      </Button>
    </form>
  );
}

/** How dry a herb is: bought ones are taken for dry until somebody says otherwise. */
function Dry({ lot, token }: { lot: LotRow; token: string }) {
  const sheet = useSheet({ lotId: lot.id, dryness: lot.dryness }, { token });
  return (
    <form onSubmit={sheet.send("dryness")} className="flex items-end gap-3 border-t border-rule pt-4">
      <Choice
        label="How dry it is"
        hint="Only a dry herb goes into a shelf infusion without a reason."
        className="flex-1"
        options={Object.entries(DRYNESS)}
        {...sheet.register("dryness")}
        problem={sheet.formState.errors.dryness?.message}
      />
      <Button type="submit" disabled={sheet.busy} className="mb-6">
        Say so
      </Button>
    </form>
  );
}

/** How a bottle drips: asked once, and told where a recipe or a coarse scale counts in drops. */
function Drips({ lot, token }: { lot: LotRow; token: string }) {
  const sheet = useSheet({ lotId: lot.id, drips: lot.dropsPerMl === null ? "" : String(lot.dropsPerMl) }, { token });
  return (
    <form onSubmit={sheet.send("drips")} className="flex items-start gap-3 border-t border-rule pt-4">
      <Text
        data-amount="decimal"
        label="Drops to the mL from this bottle"
        placeholder="such as 28"
        hint={`A pipette gives about ${USUAL_DROPS_PER_ML}, an orifice in the neck 25 to 35: count the drops to a millilitre, or weigh fifty.`}
        className="flex-1"
        {...sheet.register("drips")}
        problem={sheet.formState.errors.drips?.message}
      />
      <Button type="submit" disabled={sheet.busy} className="mt-6">
        Say so
      </Button>
    </form>
  );
}

/** Everything else that can be done with a lot. */
export function LotActs({
  lot,
  measured,
  token,
  keepsOpened,
  herb,
  pours,
}: Props & { keepsOpened: number | null; herb: boolean; pours: boolean }) {
  const open = useFetcher<Reply | null>();
  return (
    <div className="space-y-6">
      <TakeOut lot={lot} measured={measured} token={token} />
      {lot.opening && (
        <div className="border-t border-rule pt-4">
          <SayCost lot={lot} opened={{ token }} of="All of it" />
        </div>
      )}
      {herb && <Dry lot={lot} token={token} />}
      {pours && <Drips lot={lot} token={token} />}
      <div className="border-t border-rule pt-4">
        {lot.opened !== null ? (
          <p>
            Opened <When day={lot.opened} />, so best before <When day={lot.bestBefore} />.
          </p>
        ) : (
          <>
            <p className="mb-2">
              {keepsOpened === null
                ? "Say under its facts how long it keeps once opened, and opening a lot brings its best-before forward."
                : `Once opened it keeps ${keepsOpened} months, and never longer than it would have.`}
            </p>
            <Problem say={open.data?.problems[0]?.say} />
            <Button
              disabled={open.state !== "idle"}
              onClick={() => void open.submit({ intent: "open", lotId: lot.id, token }, { method: "post", encType: "application/json" })}
            >
              Opened today
            </Button>
          </>
        )}
      </div>
    </div>
  );
}
