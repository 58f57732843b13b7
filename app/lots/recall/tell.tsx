/** Somebody to be told: what they have of it, whether they know, and what came back from them. */
import { Link } from "react-router";
import type { Reach } from "#db/lots/reach";
import type { NamedLot } from "#db/lots/trace";
import type { Day } from "#core/when";
import { tokenFor, useSheet, type Opened } from "../../forms/useSheet.ts";
import { LotTag, useSayDay, When } from "../../ui/figures/amounts.tsx";
import { Button, Problem, Text } from "../../ui/fields/form.tsx";
import { useWorkshop } from "../../ui/workshop.ts";
import { nameOf } from "../lotColumns.tsx";

interface Said {
  toldOn: Day | null;
  back: number;
  note: string;
}

interface Props {
  recallId: number;
  holder: Reach["people"][number];
  lots: ReadonlyMap<number, NamedLot>;
  told: Said | null;
  opened: Opened;
  closed: boolean;
  /** How they came by it. */
  way: string;
}

const MAIL = /[^\s<>,;:@]+@[^\s<>,;:@]+\.[a-z]{2,}/i;

export function Tell({ recallId, holder, lots, told, opened, closed, way }: Props) {
  const said: Said = told ?? { toldOn: null, back: 0, note: "" };
  return (
    <li className="grid gap-x-6 gap-y-1.5 py-2.5 sm:grid-cols-[minmax(0,1fr)_17rem]">
      <div>
        <p>
          <Link to={`/people/${holder.contactId}`} className="font-display text-lead hover:underline">
            {holder.name}
          </Link>{" "}
          <Reached reach={holder.reach} />
        </p>
        {holder.times.map((t) => (
          <div key={`${t.orderId} ${t.marketDayId}`} className="mt-1 text-small">
            <Link
              to={t.orderId === null ? `/markets/${t.marketDayId}` : `/gifts/${t.orderId}`}
              className="text-pine-soft underline underline-offset-4"
            >
              {way}, <When day={t.day} />
            </Link>
            <ul>
              {t.had.map((h) => {
                const lot = lots.get(h.lotId)!;
                return (
                  <li key={h.lotId} className="grid grid-cols-[2.6rem_minmax(0,1fr)_auto] items-baseline gap-x-2 py-0.5">
                    <strong className="num">{h.units} ×</strong>
                    {nameOf(lot)}
                    <LotTag lot={lot} />
                  </li>
                );
              })}
            </ul>
          </div>
        ))}
      </div>
      {closed ? (
        <SaidOf said={said} units={holder.units} />
      ) : (
        <Form key={`${said.toldOn} ${said.back} ${said.note}`} {...{ recallId, holder, said, opened }} />
      )}
    </li>
  );
}

/** How to reach them; an address for mail is pressable. */
function Reached({ reach }: { reach: string }) {
  const mail = MAIL.exec(reach)?.[0];
  if (!reach) return <span className="text-honey">nobody wrote down how to reach them</span>;
  return mail ? (
    <a href={`mailto:${mail}`} className="text-pine-soft underline underline-offset-4">
      {reach}
    </a>
  ) : (
    <span className="text-pine-soft">{reach}</span>
  );
}

/** What was written of somebody, once it is closed. */
function SaidOf({ said, units }: { said: Said; units: number }) {
  return (
    <p className="sm:text-right">
      {said.toldOn === null ? (
        <span className="text-honey">not told</span>
      ) : (
        <>
          told <When day={said.toldOn} />
        </>
      )}
      {said.back > 0 && `, ${said.back} of ${units} back`}
      {said.note && <span className="block text-pine-soft">{said.note}</span>}
    </p>
  );
}

function Form({ recallId, holder, said, opened }: Pick<Props, "recallId" | "holder" | "opened"> & { said: Said }) {
  const { today } = useWorkshop();
  const sayIt = useSayDay();
  const own = { ...opened, token: tokenFor(opened.token, holder.contactId) };
  const typed = { ...said, toldOn: said.toldOn ?? "", back: said.back ? String(said.back) : "" };
  const sheet = useSheet({ contactId: holder.contactId, ...typed, was: typed }, own, { action: `/lots/recalls/${recallId}` });
  const { errors } = sheet.formState;
  const tell = (day: string): void => {
    sheet.setValue("toldOn", day);
    void sheet.send("tell")();
  };
  return (
    <form onSubmit={sheet.send("tell")} className="grid content-start gap-1.5">
      <div className="flex flex-wrap items-center justify-between gap-x-3">
        {said.toldOn === null ? (
          <Button small main disabled={sheet.busy} onClick={() => tell(today)} aria-label={`Told today: ${holder.name}`}>
            Told today
          </Button>
        ) : (
          <>
            <strong className="text-sage">told {sayIt(said.toldOn)}</strong>
            <button type="button" className="pressable no-print text-small" disabled={sheet.busy} onClick={() => tell("")}>
              Not after all
            </button>
          </>
        )}
      </div>
      <div className="grid grid-cols-[5rem_minmax(0,1fr)_auto] items-end gap-2">
        <Text
          data-amount
          label="Back"
          placeholder={`of ${holder.units}`}
          aria-label={`Came back from ${holder.name}`}
          className="[&_input]:text-right"
          {...sheet.register("back")}
          problem={errors.back?.message}
        />
        <Text label="Note" aria-label={`Note on ${holder.name}`} {...sheet.register("note")} problem={errors.note?.message} />
        <Button type="submit" small className="no-print mb-0.5" disabled={sheet.busy}>
          Save
        </Button>
      </div>
      <Problem say={sheet.problem} see={sheet.see} />
    </form>
  );
}
