/** Scent: who it is for and where, each oil's part and ceiling, the most the blend may be and why, and what a slip of the hand makes of it. */
import { mg, type Mg } from "#core/measure/exact";
import { massOf, USUAL_DROPS_PER_ML } from "#core/measure/mass";
import { parseAmount } from "#core/measure/parse";
import { exactWeightText } from "#core/measure/read";
import { gramsIn } from "#core/measure/write";
import { done, refuse, type Outcome } from "#core/outcome";
import { inGrams, sayShare, type Judged, type JudgedLine } from "#core/recipe/judge/judgement";
import { blendTo, COUNTABLE_DROPS } from "#core/recipe/judge/scent";
import { RECIPE_TYPES } from "#core/recipe/types";
import { afterSpill, isScent, scentOf, type Most } from "#core/scent/dilution";
import { FOR_WHOM, FOR_WHOM_IDS, USED_ON, USED_ON_IDS } from "#core/scent/limits";
import { factsIn } from "#core/material/facts";
import type { MaterialChoice } from "#core/recipe/written";
import { useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import { Button, Choice, Text } from "../../ui/fields/form.tsx";
import { Caution } from "../../ui/sheet/sheet.tsx";
import { Table } from "../../ui/lists/table.tsx";
import type { RecipeTexts } from "../recipeTexts.ts";
import type { Mending } from "./mending.ts";

interface Props {
  judged: Judged;
  materials: readonly MaterialChoice[];
  form: UseFormReturn<RecipeTexts>;
  mending: Mending;
}

const sayMost = ({ by }: Most, judged: Judged): string =>
  by.kind === "use"
    ? `as much as ${USED_ON[judged.usedOn].label.toLowerCase()} take, ${sayShare(USED_ON[judged.usedOn].usual)} is usual${judged.forWhom === "anyone" ? "" : `, ${FOR_WHOM[judged.forWhom].say}`}`
    : by.kind === "sun"
      ? "as much as skin in the sun takes of these citrus oils"
      : `${by.name} may be ${sayShare(by.ceiling)} of the whole`;

export function Scent({ judged, materials, form, mending }: Props) {
  const lines = judged.lines.filter(isScent);
  const scent = scentOf(lines, judged.total, judged.usedOn, judged.forWhom);
  const product = RECIPE_TYPES[judged.type].label.toLowerCase();
  const facts = new Map(materials.map((m) => [m.name, m]));
  /** As many drops as can be counted, or millilitres. */
  const measured = (name: string, weight: number): string => {
    const m = facts.get(name);
    const density = m?.densities.liquid;
    if (!density) return "—";
    const drops = Math.round((weight / density) * (m.dropsPerMl ?? USUAL_DROPS_PER_ML));
    return drops <= COUNTABLE_DROPS ? `${drops}` : `${(weight / density).toFixed(1)} mL`;
  };
  return (
    <div className="space-y-5">
      <div className="grid gap-4 sm:grid-cols-2">
        <Choice
          label="Where it goes"
          options={[
            ["", `As a ${product} does: ${USED_ON[RECIPE_TYPES[judged.type].usedOn].label.toLowerCase()}`] as const,
            ...USED_ON_IDS.map((u) => [u, USED_ON[u].label] as const),
          ]}
          {...form.register("usedOn")}
        />
        <Choice label="Who uses it" options={FOR_WHOM_IDS.map((w) => [w, FOR_WHOM[w].label] as const)} {...form.register("forWhom")} />
      </div>
      {!scent ? (
        <p className="text-pine-soft">No essential oil or fragrance in it. Add one as an ingredient: by drops, mL, grams or per cent.</p>
      ) : (
        <>
          <p>
            <strong>{sayShare(scent.share)}</strong> scent. In these proportions it may be{" "}
            <strong className={scent.share > scent.most.share ? "text-berry" : "text-sage"}>{sayShare(scent.most.share)}</strong> at most:{" "}
            {sayMost(scent.most, judged)}.
            {scent.sun > 0 && ` On skin in the sun it is ${sayShare(scent.sun)} of what these citrus oils allow together.`}
          </p>
          <Table
            rows={scent.oils}
            by={(o) => o.name}
            columns={[
              { head: "Oil", cell: (o) => o.name },
              { head: "Weighs", as: "weight", cell: (o) => gramsIn(2)(o.share * judged.total) },
              {
                head: "Drops or mL",
                as: "figure",
                cell: (o) => measured(o.name, o.share * judged.total),
              },
              { head: "Of the blend", as: "figure", cell: (o) => sayShare(o.part) },
              { head: "Of the whole", as: "figure", cell: (o) => sayShare(o.share) },
              {
                head: "At most",
                as: "figure",
                cell: (o) => ((o.ceiling ?? o.sun) === null ? "—" : sayShare(Math.min(o.ceiling ?? 1, o.sun ?? 1))),
                className: (o) => (o.share > Math.min(o.ceiling ?? 1, o.sun ?? 1) ? "text-berry font-semibold" : ""),
              },
            ]}
          />
          {inGrams(judged) && <BlendTo {...{ judged, lines, mending }} most={scent.most.share} />}
          <Spill {...{ judged, lines, mending, facts }} />
        </>
      )}
      <Caution>
        Ceilings here are from memory: the certificate that came with the lot, and the rules where you sell, stand above them. Keep
        essential oils from children and pets; in pregnancy ask a midwife or doctor; patch-test.
      </Caution>
    </div>
  );
}

/** The whole blend to another share of the pot, in the proportions it has. */
function BlendTo({ judged, lines, mending, most }: { judged: Judged; lines: readonly JudgedLine[]; mending: Mending; most: number }) {
  const [text, setText] = useState("");
  const [asked, ask] = useState(false);
  const wished = readShare(text);
  const put = (): void => {
    ask(true);
    if (!wished.ok) return;
    mending.press({ say: `Made the scent ${sayShare(wished.value)}`, rows: blendTo(judged, lines, wished.value) });
  };
  return (
    <div className="flex flex-wrap items-end gap-3">
      <Text
        className="w-40"
        data-amount="decimal"
        label="Make it, per cent"
        placeholder={`${(most * 100).toFixed(2)} at most`}
        value={text}
        onChange={(e) => setText(e.target.value)}
        problem={wished.ok || (text.trim() === "" && !asked) ? undefined : wished.problem.say}
      />
      <Button small className="mb-0.5" onClick={put}>
        Put it in the recipe
      </Button>
    </div>
  );
}

function readShare(text: string): Outcome<number> {
  const n = parseAmount(`${text.replace("%", "").trim()} %`);
  if (!n.ok) return n;
  const share = n.value.n.valueOf() / 100;
  return share > 0 && share <= 0.5 ? done(share) : refuse("range", "Enter more than 0, and 50 at most.");
}

interface SpillProps {
  judged: Judged;
  lines: readonly JudgedLine[];
  mending: Mending;
  facts: ReadonlyMap<string, MaterialChoice>;
}

/** More went in than was meant: what the others must come to, or what it is now. */
function Spill({ judged, lines, mending, facts }: SpillProps) {
  const [row, choose] = useState(lines[0]!.row);
  const [text, setText] = useState("");
  const at = Math.max(
    0,
    lines.findIndex((l) => l.row === row),
  );
  const line = lines[at]!;
  const amount = text.trim() === "" ? null : parseAmount(text, "drop");
  const material = facts.get(line.name);
  const poured: Outcome<Mg> | null = amount && material ? (amount.ok ? massOf(amount.value, factsIn(material)) : amount) : null;
  const problem =
    poured && !poured.ok ? poured.problem.say : poured?.ok && poured.value <= line.weight ? "That isn't more than was meant." : undefined;
  const others =
    poured?.ok && problem === undefined
      ? afterSpill(
          lines.map((l) => l.weight),
          at,
          poured.value,
        )
      : null;
  const asItIs =
    others &&
    scentOf(
      lines.map((l, i) => (i === at ? { ...l, weight: others[at]! } : l)),
      mg(judged.total + others[at]! - line.weight),
      judged.usedOn,
      judged.forWhom,
    );
  return (
    <details>
      <summary className="pressable">Too much of one went in</summary>
      <div className="mt-2 grid gap-3 sm:grid-cols-[1.5fr_1fr]">
        <Choice
          label="Of"
          options={lines.map((l) => [String(l.row), l.name] as const)}
          value={String(line.row)}
          onChange={(e) => choose(Number(e.target.value))}
        />
        <Text data-amount label="Went in" placeholder="90 drops" value={text} onChange={(e) => setText(e.target.value)} problem={problem} />
      </div>
      {others && asItIs && (
        <div className="mt-2 space-y-1">
          <p>
            As it is: <strong>{sayShare(asItIs.share)}</strong> scent
            {asItIs.share > asItIs.most.share && <span className="text-berry"> (at most {sayShare(asItIs.most.share)})</span>}.
            {lines.length > 1 && " To smell as it was meant to, bring the others to:"}
          </p>
          {lines.map((l, i) =>
            i === at ? null : <p key={l.row}>{`${l.name}: ${gramsIn(2)(others[i]!)}, ${gramsIn(2)(others[i]! - l.weight)} more`}</p>,
          )}
          <div className="flex flex-wrap gap-2">
            <Button
              small
              onClick={() =>
                mending.press({
                  say: `Wrote what went in of ${line.name}`,
                  rows: [{ row: line.row, entered: exactWeightText(others[at]!) }],
                })
              }
            >
              Write it as it is
            </Button>
            {lines.length > 1 && (
              <Button
                small
                onClick={() =>
                  mending.press({
                    say: "Brought the others up to it",
                    rows: lines.map((l, i) => ({ row: l.row, entered: exactWeightText(others[i]!) })),
                  })
                }
              >
                Bring the others up to it
              </Button>
            )}
          </div>
        </div>
      )}
    </details>
  );
}
