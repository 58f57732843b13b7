/** Tending a steeping jar: one press for a shake, a line for a temperature, a top-up, a photo, a word; gentle heat with its timer. */
import { METHODS } from "#core/infusion/methods";
import { isHeated, judgeWarmth } from "#core/infusion/warmth";
import { grams } from "#core/measure/write";
import type { JarRow } from "#db/jars/read";
import { firstExpiredFirst, type Lot } from "#core/stock/lots";
import { useFetcher } from "react-router";
import type { Reply } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { Button, Problem, Text } from "../ui/fields/form.tsx";
import { Pick } from "../ui/fields/pick.tsx";
import { KeepFile } from "../files/keepFile.tsx";
import { Caution, Part } from "../ui/sheet/sheet.tsx";

/** One line with its button. */
function Line({
  intent,
  field,
  label,
  placeholder,
  button,
  start = "",
  token,
}: {
  intent: string;
  field: string;
  label: string;
  placeholder: string;
  button: string;
  start?: string;
  token: string;
}) {
  const sheet = useSheet<Record<string, string>>({ [field]: start }, { token }, { draft: label, sheet: intent });
  return (
    <form onSubmit={sheet.send(intent)} className="flex items-end gap-2">
      <Text
        data-amount={field === "note" ? undefined : ""}
        className="flex-1"
        label={label}
        placeholder={placeholder}
        {...sheet.register(field)}
        problem={sheet.formState.errors[field]?.message ?? sheet.problem ?? undefined}
      />
      <Button type="submit" disabled={sheet.busy}>
        {button}
      </Button>
    </form>
  );
}

function TopUp({ lots, names, token }: { lots: readonly Lot[]; names: ReadonlyMap<number, string>; token: string }) {
  const own = [...lots].sort(firstExpiredFirst);
  const sheet = useSheet({ lot: String(own[0]?.id ?? ""), qty: "" }, { token }, { draft: "A top-up", sheet: "topUp" });
  const { errors } = sheet.formState;
  if (own.length === 0) return <p className="self-end text-pine-soft">None of its oil is on hand for a top-up.</p>;
  return (
    <form onSubmit={sheet.send("topUp")} className="flex items-end gap-2">
      <Pick
        className="min-w-0 flex-[2]"
        label="Top up from"
        control={sheet.control}
        name="lot"
        options={own.map((l) => ({ value: String(l.id), name: l.number, aside: grams(l.onHand, 0), about: names.get(l.of) }))}
        problem={errors.lot?.message}
      />
      <Text
        data-amount
        className="flex-1"
        label="With"
        placeholder="such as 50 g"
        {...sheet.register("qty")}
        problem={errors.qty?.message}
      />
      <Button type="submit" disabled={sheet.busy}>
        Top up
      </Button>
    </form>
  );
}

export function Tending({
  jar,
  lots,
  names,
  reading,
  token,
}: {
  jar: JarRow;
  /** The last a thermometer read, °C; null where nobody has. */
  reading: number | null;
  lots: readonly Lot[];
  names: ReadonlyMap<number, string>;
  token: string;
}) {
  const press = useFetcher<Reply | null>();
  const hit = (intent: string): void => void press.submit({ intent, token }, { method: "post", encType: "application/json" });
  const method = METHODS[jar.method];
  const heated = isHeated(jar.method, jar.heatMinutes !== null);
  const warmth = reading === null ? null : judgeWarmth(heated, reading);
  return (
    <Part title="Tend it">
      <Problem say={press.data?.problems[0]?.say} see={press.data?.problems[0]?.see} />
      {warmth !== null && <Caution>{warmth}</Caution>}
      {heated && reading === null && (
        <Caution>
          Nobody has read a thermometer yet: a cooker is often hotter than it says. Read it after half an hour, and note it here.
        </Caution>
      )}
      <div key={token} className="mt-3 grid items-end gap-x-8 gap-y-4 sm:grid-cols-2">
        <div className="flex flex-wrap gap-2">
          {method.shaken && (
            <Button disabled={press.state !== "idle"} onClick={() => hit("shaken")}>
              Shaken
            </Button>
          )}
          {jar.heatOn !== null && (
            <Button disabled={press.state !== "idle"} onClick={() => hit("heatOff")}>
              Heat off
            </Button>
          )}
          <KeepFile to={`/jars/${jar.id}/photo`} accept="image/*" label="Add a photo" />
        </div>
        {jar.heatOn === null && (method.heat === "gentle" || jar.method === "own") && (
          <Line
            intent="heatOn"
            field="minutes"
            label="Minutes of gentle heat"
            placeholder="such as 720"
            button="Heat on"
            start={String(jar.heatMinutes ?? "")}
            token={token}
          />
        )}
        <Line intent="temperature" field="celsius" label="Temperature" placeholder="such as 42 °C or 108 °F" button="Note" token={token} />
        <TopUp lots={lots} names={names} token={token} />
        <Line intent="note" field="note" label="A word" placeholder="such as deep orange, herb feels crisp" button="Note" token={token} />
      </div>
      <p className="mt-2 text-small text-pine-soft">{method.how}</p>
    </Part>
  );
}
