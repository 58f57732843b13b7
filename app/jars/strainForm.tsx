/** Straining a jar: oil back, what stayed in the herb, and how it was bottled, reckoned while it is typed. */
import { strain } from "#core/infusion/strain";
import { mg, sum, type Mg, type Micros } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import type { JarRow } from "#db/jars/read";
import { Dialog } from "radix-ui";
import { firstUnread, readWeighed } from "#core/measure/read";
import { useDraftOfDialog } from "../forms/drafts/keptDrafts.ts";
import { useSheet } from "../forms/useSheet.ts";
import { PerUnit, percent } from "../ui/figures/amounts.tsx";
import { Text } from "../ui/fields/form.tsx";
import { LineTable } from "../ui/fields/lines.tsx";
import { Modal } from "../ui/sheet/modal.tsx";
import { Figure, Figures } from "../ui/figures/reckoner.tsx";
import { Part, Sheet } from "../ui/sheet/sheet.tsx";
import { enterGoesOn } from "../ui/fields/enter.ts";
import { Send, SheetSays } from "../forms/sheetSays.tsx";

const BOTTLE = { amount: "" };
const COLUMNS = [{ key: "amount", label: "Bottle", placeholder: "g or mL", right: true, width: "12rem" }];

const weightOr = (text: string): Mg | null => {
  if (text.trim() === "") return null;
  const w = readWeighed(text);
  return w.ok ? w.value : null;
};

function Spoil({ jar, token }: { jar: JarRow; token: string }) {
  const sheet = useSheet({ why: "" }, { token }, { draft: `Writing off ${jar.number}`, sheet: "spoil" });
  return (
    <form onSubmit={(e) => e.preventDefault()} onKeyDown={enterGoesOn} className="space-y-4">
      <SheetSays sheet={sheet} />
      <p>The jar {jar.number} is written off with all that went into it. It can be taken back from the note that follows.</p>
      <Text
        label="What happened"
        placeholder="such as mould on top, sour smell"
        autoFocus
        {...sheet.register("why")}
        problem={sheet.formState.errors.why?.message}
      />
      <Send sheet={sheet} press={() => void sheet.send("spoil")()}>
        Write it off
      </Send>
    </form>
  );
}

export function StrainForm({ jar, oil, herb, value, token }: { jar: JarRow; oil: number; herb: number; value: Micros; token: string }) {
  const sheet = useSheet(
    { back: "", secondBack: "", sediment: "", herbOut: "", pressed: false, bottles: [BOTTLE] },
    { token },
    { draft: "Straining", sheet: "strain" },
  );
  const v = sheet.values;
  const { errors } = sheet.formState;
  const back = weightOr(v.back);
  const bottles = v.bottles.map((b) => weightOr(b.amount)).filter((b) => b !== null && b > 0) as Mg[];
  const unread = firstUnread([
    ["Oil back", v.back, readWeighed],
    ["After a second straining", v.secondBack, readWeighed],
    ["Sediment", v.sediment, readWeighed],
    ["Herb out", v.herbOut, readWeighed],
    ...v.bottles.map((b, i) => [`Bottle ${i + 1}`, b.amount, readWeighed] as const),
  ]);
  const secondBack = weightOr(v.secondBack);
  const sediment = weightOr(v.sediment) ?? mg(0);
  const done =
    back !== null && bottles.length > 0
      ? strain({ oilIn: mg(oil), herbIn: mg(herb), value, back, secondBack, sediment, bottles, expected: jar.expected })
      : null;
  const rest = back === null ? null : (secondBack ?? back) - sediment - sum(bottles);
  return (
    <form onSubmit={(e) => e.preventDefault()} onKeyDown={enterGoesOn} id="strain" className="scroll-mt-4">
      <Sheet>
        <Part title="Strain it">
          <SheetSays sheet={sheet} />
          <div className="grid gap-4 sm:grid-cols-4">
            <Text
              data-amount
              label="Oil back"
              placeholder={`about ${grams(jar.expected, 0)}`}
              {...sheet.register("back")}
              problem={errors.back?.message}
            />
            <Text
              data-amount
              label="After a second straining"
              placeholder="none"
              {...sheet.register("secondBack")}
              problem={errors.secondBack?.message}
            />
            <Text
              data-amount
              label="Sediment left behind"
              placeholder="none"
              {...sheet.register("sediment")}
              problem={errors.sediment?.message}
            />
            <Text
              data-amount
              label="Herb out, wet"
              placeholder="not weighed"
              {...sheet.register("herbOut")}
              problem={errors.herbOut?.message}
            />
          </div>
          <label className="mt-3 flex items-center gap-2">
            <input type="checkbox" className="h-5 w-5 accent-amber" {...sheet.register("pressed")} /> Pressed, not only drained through
            cloth
          </label>
          <div className="mt-4 grid items-start gap-x-10 gap-y-4 sm:grid-cols-[17rem_1fr]">
            <LineTable form={sheet.form} name="bottles" columns={COLUMNS} blank={BOTTLE} addLabel="Add a bottle" />
            <Figures unread={unread}>
              <Figure
                label="Not bottled yet"
                value={rest === null ? "—" : grams(rest, 0)}
                tone={rest !== null && rest < 0 ? "bad" : undefined}
              />
              <Figure
                label="Held back by the herb"
                value={back === null ? "—" : grams(oil - back, 0)}
                tone={back !== null && back > oil ? "bad" : undefined}
              />
              <Figure label="Against expected" value={done?.ok && done.value.against !== null ? percent(done.value.against, 0) : "—"} />
              <Figure
                label="The oil costs"
                value={done?.ok ? <PerUnit cost={{ value, per: done.value.bottled }} measured="weight" /> : "—"}
              />
            </Figures>
          </div>
          <div className="mt-5 flex flex-wrap items-center gap-3">
            <Send sheet={sheet} press={() => void sheet.send("strain")()}>
              Strain into bottles
            </Send>
            <Dialog.Root defaultOpen={useDraftOfDialog("spoil") !== null}>
              <Dialog.Trigger className="act">It has spoiled</Dialog.Trigger>
              <Modal title="Write the jar off">
                <Spoil jar={jar} token={token} />
              </Modal>
            </Dialog.Root>
            <p className="text-small text-pine-soft">Each bottle becomes a lot on the shelf, with its own number and cost.</p>
          </div>
        </Part>
      </Sheet>
    </form>
  );
}
