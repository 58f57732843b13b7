/** Setting out a batch: which recipe, how large, out of which lots. */
import { grams, gramsIn } from "#core/measure/write";
import { mg } from "#core/measure/exact";
import { money } from "#core/measure/money";
import { costRecipe } from "#core/recipe/cost";
import { onScale, scaleTo } from "#core/recipe/scale";
import { bestBefore } from "#core/batch/bestBefore";
import { planTakes } from "#core/stock/lots";
import { today } from "#db/clock";
import { setOut } from "#db/bench/setOut";
import { lotsOfMaterials } from "#db/ledger";
import { materialsOf, readShelfCosts } from "#db/recipe/costs";
import { costInput, readRecipes } from "#db/recipe/read";
import { readSettings } from "#db/settings";
import { listMaterials } from "#db/shelf/materials";
import { Link } from "react-router";
import { object } from "yup";
import { db } from "../db.server.ts";
import { note, oneOf, wholeNumber } from "../forms/fields.ts";
import { act, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { LotTag, showBase, When } from "../ui/amounts.tsx";
import { Button, Choice, Problem, Text } from "../ui/form.tsx";
import { Empty, Figure, Heading, HowLine, Part, Reckoner, Sheet, SideBySide } from "../ui/sheet.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { readSize, SIZE_MODES, type SizeMode } from "./size.ts";
import type { Route } from "./+types/setOut";

export const meta: Route.MetaFunction = () => [{ title: "Set out a batch · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const [settings, recipes, materials] = await Promise.all([readSettings(db()), readRecipes(db()), listMaterials(db())]);
  const { lots, again } = await readShelfCosts(db(), materialsOf(recipes));
  return {
    recipes,
    lots,
    again: [...again],
    settings,
    names: materials.map((m) => [m.id, m.name] as const),
    wanted: new URL(request.url).searchParams.get("recipe") ?? "",
    token: crypto.randomUUID(),
  };
}

const schema = object({
  recipe: wholeNumber(1, 1e9, "recipes"),
  mode: oneOf(Object.keys(SIZE_MODES) as SizeMode[]),
  size: note(40),
  lot: wholeNumber(0, 1e9, "lots", 0),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { recipe, mode, size, lot } = sheet.value;
  const [w] = await readRecipes(db(), [recipe]);
  if (!w) return refuseSheet([{ field: "recipe", say: "Choose a recipe." }]);
  const read = readSize(
    mode,
    size,
    lot,
    w,
    await lotsOfMaterials(
      db(),
      w.lines.map((l) => l.materialId),
    ),
  );
  if (!read.ok) return refuseSheet([{ field: mode === "lot" ? "lot" : "size", say: read.problem.say }]);
  return act(() =>
    setOut(db(), { recipeId: recipe, batchMg: read.value.batch, units: read.value.units }, { day: today(), token: sheet.token }),
  );
}

export default function SetOut({ loaderData: { recipes, lots, again, settings, names, wanted, token } }: Route.ComponentProps) {
  const { currency, today: day } = useWorkshop();
  const first = recipes.find((r) => String(r.recipe.id) === wanted) ?? recipes[0];
  const sheet = useSheet({ recipe: String(first?.recipe.id ?? ""), mode: "units" as SizeMode, size: "12", lot: "" }, token);
  const v = sheet.values;
  const { errors } = sheet.formState;
  const w = recipes.find((r) => String(r.recipe.id) === v.recipe) ?? first;
  if (!w)
    return (
      <Empty
        title="No recipe to make yet"
        act={
          <Link to="/recipes/new" className="act act-main">
            Write a recipe
          </Link>
        }
      >
        A batch is made from a recipe. Write one first.
      </Empty>
    );

  const name = new Map(names);
  const size = readSize(v.mode, v.size, Number(v.lot), w, lots);
  const batch = size.ok ? size.value.batch : mg(w.lines.reduce((a, l) => a + l.weight, 0));
  const weights = scaleTo(
    w.lines.map((l) => l.weight),
    batch,
  );
  const cost = size.ok ? costRecipe(costInput(w, settings, weights), lots, new Map(again), day) : null;
  const plan = cost
    ? cost.lines.map((l) => l.plan)
    : planTakes(
        w.lines.map((l, i) => ({ of: l.materialId, amount: weights[i]! })),
        lots,
        day,
      );
  const byId = new Map(lots.map((l) => [l.id, l]));
  const taken = plan.flatMap((p) => p.takes.map((t) => byId.get(t.lotId)!));
  const best = bestBefore(day, w.recipe.keepsMonths, taken);
  const short = [
    ...w.lines.flatMap((l, i) => (plan[i]!.short > 0 ? [`${showBase(plan[i]!.short, "weight")} ${name.get(l.materialId)}`] : [])),
    ...w.packaging.flatMap((p, i) =>
      cost && cost.packaging[i]!.plan.short > 0 ? [`${showBase(cost.packaging[i]!.plan.short, "count")} ${name.get(p.materialId)}`] : [],
    ),
  ];
  const unreadable = w.lines.filter((_, i) => onScale(weights[i]!, settings.scaleStep).outOfReach);
  const lotChoices = [
    ["", "Choose a lot"] as const,
    ...lots
      .filter((l) => w.lines.some((x) => x.materialId === l.of))
      .map((l) => [String(l.id), `${l.number}  ${name.get(l.of)}, ${showBase(l.onHand, "weight")}`] as const),
  ];
  const one = cost?.perUnit[settings.school];

  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title="Set out a batch"
        about="Choose how much. The lots to use first are picked for you; you can change them on the weigh sheet. Nothing leaves the shelf until you pour."
      >
        <Link to="/bench" className="act">
          Leave
        </Link>
        <Button type="submit" main disabled={sheet.busy}>
          Set out
        </Button>
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure label="Batch" value={size.ok ? grams(batch) : "—"} />
            <Figure
              label="Fills"
              big
              value={size.ok ? `${size.value.units} × ${grams(w.product.fill)}` : "—"}
              how={
                cost && (
                  <>
                    <HowLine label="Pot and jug" value={grams(cost.fill.potLoss)} />
                    <HowLine label="Left over" value={grams(cost.fill.leftover)} />
                  </>
                )
              }
            />
            {one && (
              <Figure
                label="Cost of one unit"
                value={money(one.total, currency)}
                how={
                  <>
                    <HowLine label="Materials" value={money(one.materials, currency)} />
                    <HowLine label="Work" value={money(one.work, currency)} />
                    <HowLine label="Overhead" value={money(one.overhead, currency)} />
                  </>
                }
              />
            )}
            <Figure
              label="Best before, poured today"
              value={<When day={best.day} />}
              tone={best.limitedBy ? "warn" : undefined}
              how={
                <p>
                  {best.limitedBy
                    ? `Cut short by lot ${best.limitedBy}, the shortest-lived in it.`
                    : `${w.recipe.keepsMonths} months; every lot lasts longer.`}
                </p>
              }
            />
            {unreadable.length > 0 && (
              <p className="py-2 text-honey">
                Below what the scale reads ({grams(settings.scaleStep)}): {unreadable.map((l) => name.get(l.materialId)).join(", ")}. Make
                more, or count drops.
              </p>
            )}
            {short.length > 0 && (
              <div className="py-2 text-berry">
                <p className="font-semibold">Short on the shelf</p>
                {short.map((s) => (
                  <p key={s}>{s}</p>
                ))}
              </div>
            )}
          </Reckoner>
        }
      >
        <Sheet>
          <Problem say={sheet.problem} />
          <div className="grid gap-4 sm:grid-cols-2">
            <Choice
              label="Recipe"
              className="sm:col-span-2"
              options={recipes.map((r) => [String(r.recipe.id), r.recipe.name] as const)}
              {...sheet.register("recipe")}
              problem={errors.recipe?.message}
            />
            <Choice label="How large" options={Object.entries(SIZE_MODES)} {...sheet.register("mode")} />
            {v.mode === "lot" ? (
              <Choice label="Lot to use up" options={lotChoices} {...sheet.register("lot")} problem={errors.lot?.message} />
            ) : (
              <Text
                label={v.mode === "units" ? "Units" : "Batch weight"}
                placeholder={v.mode === "units" ? "12" : "800 g"}
                {...sheet.register("size")}
                problem={errors.size?.message ?? (v.size && !size.ok ? size.problem.say : undefined)}
              />
            )}
          </div>
          <Part title="To weigh">
            <table className="ruled stack">
              <thead>
                <tr>
                  <th scope="col">Material</th>
                  <th scope="col" className="text-right!">
                    Weigh
                  </th>
                  <th scope="col" className="pl-6!">
                    Out of
                  </th>
                </tr>
              </thead>
              <tbody>
                {w.lines.map((l, i) => (
                  <tr key={l.id}>
                    <td>
                      {name.get(l.materialId)} <span className="text-[0.88rem] text-pine-soft">written as {l.entered}</span>
                    </td>
                    <td data-label="Weigh" className="num weight">
                      {gramsIn(settings.scaleStep >= 1000 ? 0 : settings.scaleStep >= 100 ? 1 : 2)(
                        onScale(weights[i]!, settings.scaleStep).weight,
                      )}
                    </td>
                    <td className="pl-6!">
                      <span className="flex flex-wrap gap-1.5">
                        {plan[i]!.takes.map((t) => (
                          <span key={t.lotId} className="inline-flex items-baseline gap-1.5">
                            <LotTag lot={byId.get(t.lotId)!} />
                            {plan[i]!.takes.length > 1 && <span className="weight text-[0.85rem]">{grams(t.amount)}</span>}
                          </span>
                        ))}
                        {plan[i]!.short > 0 && (
                          <span className="font-semibold text-berry">{showBase(plan[i]!.short, "weight")} missing</span>
                        )}
                      </span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Part>
        </Sheet>
      </SideBySide>
    </form>
  );
}
