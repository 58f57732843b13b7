/** Setting out a batch: which recipe, how large, into which pots, out of which lots. */
import { readSize, SIZE_MODE_IDS, SIZE_MODES, type SizeMode } from "#core/batch/size";
import { bestBefore } from "#core/batch/bestBefore";
import { money } from "#core/measure/money";
import { grams } from "#core/measure/write";
import { costMix } from "#core/recipe/cost";
import { fillMix, onScale, scaleTo, showScale } from "#core/recipe/scale";
import { planTakes } from "#core/stock/lots";
import { setOut } from "#db/bench/setOut";
import { lotsOfMaterials } from "#db/ledger/lots";
import { materialsOf, readShelfCosts } from "#db/recipe/costs";
import { readRecipes } from "#db/recipe/read";
import { readSettings } from "#db/settings";
import { listMaterials } from "#db/shelf/materials";
import { Link } from "react-router";
import { array, object } from "yup";
import { db } from "../db.server.ts";
import { note, oneOf, wholeNumber } from "../forms/fields.ts";
import { opened } from "../forms/opened.server.ts";
import { act, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { useSheet } from "../forms/useSheet.ts";
import { showBase, When } from "../ui/amounts.tsx";
import { Choice, Problem, Text } from "../ui/form.tsx";
import { Empty, Figure, Heading, HowLine, Part, Reckoner, Sheet, SideBySide } from "../ui/sheet.tsx";
import { Send, SheetSays } from "../ui/sheetSays.tsx";
import { useWorkshop } from "../ui/workshop.ts";
import { ToWeigh } from "./toWeigh.tsx";
import type { Route } from "./+types/setOut";

export const meta: Route.MetaFunction = () => [{ title: "Set out a batch · Zelbin" }];

export async function loader({ request }: Route.LoaderArgs) {
  const [settings, recipes, materials] = await Promise.all([readSettings(db()), readRecipes(db()), listMaterials(db())]);
  const asked = new URL(request.url).searchParams;
  const { lots, again } = await readShelfCosts(db(), materialsOf(recipes));
  return {
    recipes: recipes.filter((r) => r.sizes.length > 0),
    lots,
    again: [...again],
    settings,
    names: materials.map((m) => [m.id, m.name] as const),
    wanted: asked.get("recipe") ?? "",
    units: /^\d{1,5}$/.exec(asked.get("units") ?? "")?.[0] ?? "12",
    opened: await opened(),
  };
}

const schema = object({
  recipe: wholeNumber(1, 1e9, "recipes"),
  mode: oneOf(SIZE_MODE_IDS),
  weight: note(40),
  lot: wholeNumber(0, 1e9, "lots", 0),
  units: array().of(note(12)).required(),
});

/** The field a problem of the size belongs beside. */
const fieldOf = (mode: SizeMode): string => (mode === "lot" ? "lot" : mode === "grams" ? "weight" : "units.0");

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const { recipe, mode, weight, lot, units } = sheet.value;
  const [w] = await readRecipes(db(), [recipe]);
  if (!w) return refuseSheet([{ field: "recipe", say: "Choose a recipe." }]);
  const lots = await lotsOfMaterials(
    db(),
    w.lines.map((l) => l.materialId),
  );
  const read = readSize({ mode, weight, lotId: lot, units }, w, lots);
  if (!read.ok) return refuseSheet([{ field: fieldOf(mode), say: read.problem.say }]);
  const sizes = w.sizes.map((s, i) => ({ productId: s.id, units: read.value.units[i]! }));
  return act(() => setOut(db(), { recipeId: recipe, batchMg: read.value.batch, sizes }, sheet.doing));
}

export default function SetOut({ loaderData }: Route.ComponentProps) {
  const { recipes, lots, again, settings, names, wanted } = loaderData;
  const { currency, today: day } = useWorkshop();
  const first = recipes.find((r) => String(r.recipe.id) === wanted) ?? recipes[0];
  const sheet = useSheet<{ recipe: string; mode: SizeMode; weight: string; lot: string; units: string[] }>(
    { recipe: String(first?.recipe.id ?? ""), mode: "pots", weight: "", lot: "", units: [loaderData.units] },
    loaderData.opened,
    { draft: "Setting out a batch" },
  );
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
  const size = readSize({ mode: v.mode, weight: v.weight, lotId: Number(v.lot), units: v.units }, w, lots);
  const batch = size.ok ? size.value.batch : w.recipe.total;
  const weights = scaleTo(
    w.lines.map((l) => l.weight),
    batch,
  );
  const lines = w.lines.map((l, i) => ({ of: l.materialId, weight: weights[i]! }));
  const sizes = w.sizes.map((s, i) => ({
    ...s,
    units: size.ok ? size.value.units[i]! : 0,
    unitMinutes: s.unitMinutesHundredths / 100,
    packaging: s.packaging.map((p) => ({ of: p.materialId, pieces: p.pieces })),
  }));
  const cost = size.ok
    ? costMix({ lines, sizes, work: { ...settings, batchMinutes: w.recipe.batchMinutes } }, lots, new Map(again), day)
    : null;
  const plan = cost
    ? cost.lines.map((l) => l.plan)
    : planTakes(
        lines.map((l) => ({ of: l.of, amount: l.weight })),
        lots,
        day,
      );
  const { potLoss } = fillMix(batch, w.recipe.lossBp, []);
  const byId = new Map(lots.map((l) => [l.id, l]));
  const best = bestBefore(
    day,
    w.recipe.keepsMonths,
    plan.flatMap((p) => p.takes.map((t) => byId.get(t.lotId)!)),
  );
  const short = [
    ...lines.flatMap((l, i) => (plan[i]!.short > 0 ? [`${showBase(plan[i]!.short, "weight")} ${name.get(l.of)}`] : [])),
    ...sizes.flatMap((s, n) =>
      s.packaging.flatMap((p, i) => {
        const missing = cost?.sizes[n]?.packaging[i]?.plan.short ?? 0;
        return missing > 0 ? [`${showBase(missing, "count")} ${name.get(p.of)}`] : [];
      }),
    ),
  ];
  const { scale } = settings;
  const unreadable = w.lines.filter((_, i) => onScale(weights[i]!, scale).outOfReach);
  const lotChoices = [
    ["", "Choose a lot"] as const,
    ...lots
      .filter((l) => w.lines.some((x) => x.materialId === l.of))
      .map((l) => [String(l.id), `${l.number}  ${name.get(l.of)}, ${showBase(l.onHand, "weight")}`] as const),
  ];
  const filled = sizes.filter((s) => s.units > 0);
  const many = w.sizes.length > 1;
  const sizeProblem = v.mode === "pots" || v.mode === "grams" ? (size.ok ? undefined : size.problem) : size.ok ? undefined : size.problem;

  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title="Set out a batch"
        about="Choose how much. The lots to use first are picked for you; you can change them on the weigh sheet. Nothing leaves the shelf until you pour."
      >
        <Link to="/bench" className="act">
          Leave
        </Link>
        <Send sheet={sheet}>Set out</Send>
      </Heading>
      <SideBySide
        reckoner={
          <Reckoner>
            <Figure label="Batch" value={size.ok ? grams(batch) : "—"} />
            {filled.length === 0 && <Figure label="Fills" big value="—" />}
            {filled.map((s, i) => (
              <Figure
                key={s.id}
                label={i === 0 ? "Fills" : "and"}
                big
                value={`${s.units} × ${s.label}`}
                how={
                  <>
                    <HowLine label="Each" value={grams(s.fill)} />
                    <HowLine label="Together" value={grams(s.units * s.fill)} />
                  </>
                }
              />
            ))}
            {size.ok && (
              <Figure label="Left over" value={grams(size.value.leftover)} how={<HowLine label="Pot and jug" value={grams(potLoss)} />} />
            )}
            {cost?.sizes.map((c, i) => {
              const one = c.perUnit[settings.school];
              return (
                one && (
                  <Figure
                    key={i}
                    label={many ? `Cost of one, ${sizes[i]!.label}` : "Cost of one unit"}
                    value={money(one.total, currency)}
                    how={
                      <>
                        <HowLine label="Materials" value={money(one.materials, currency)} />
                        <HowLine label="Work" value={money(one.work, currency)} />
                        <HowLine label="Overhead" value={money(one.overhead, currency)} />
                      </>
                    }
                  />
                )
              );
            })}
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
                Below what the scale reads ({showScale(scale)}): {unreadable.map((l) => name.get(l.materialId)).join(", ")}. Make more, or
                count drops.
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
          <SheetSays sheet={sheet} />
          <Problem say={(errors as { size?: { message?: string } }).size?.message} />
          <div className="grid gap-4 sm:grid-cols-2">
            <Choice
              label="Recipe"
              className="sm:col-span-2"
              options={recipes.map((r) => [String(r.recipe.id), r.recipe.name] as const)}
              {...sheet.register("recipe")}
              problem={errors.recipe?.message}
            />
            <Choice label="How large" options={Object.entries(SIZE_MODES)} {...sheet.register("mode")} />
            {v.mode === "lot" && (
              <Choice label="Lot to use up" options={lotChoices} {...sheet.register("lot")} problem={errors.lot?.message} />
            )}
            {v.mode === "grams" && (
              <Text
                label="Batch weight"
                placeholder="800 g"
                {...sheet.register("weight")}
                problem={errors.weight?.message ?? (v.weight && sizeProblem ? sizeProblem.say : undefined)}
              />
            )}
          </div>
          <div className="mt-4 grid gap-4 sm:grid-cols-4">
            {w.sizes.map((s, i) => (
              <Text
                key={s.id}
                label={many ? `Pots of ${s.label}` : "Units"}
                placeholder={v.mode === "pots" ? "0" : "as many as there are"}
                className="[&_input]:text-right"
                {...sheet.register(`units.${i}`)}
                problem={
                  errors.units?.[i]?.message ??
                  (i === 0 && sizeProblem && v.mode !== "grams" && v.mode !== "lot" && v.units.some((u) => u) ? sizeProblem.say : undefined)
                }
              />
            ))}
          </div>
          {v.mode !== "pots" && (
            <p className="mt-1 text-[0.9rem] text-pine-soft">
              Leave a number empty to fill as many as there is left for{many && ": the first size first, then the next with the rest"}.
            </p>
          )}
          <Part title="To weigh">
            <ToWeigh lines={w.lines} weights={weights} plan={plan} lots={byId} names={name} scale={scale} />
          </Part>
        </Sheet>
      </SideBySide>
    </form>
  );
}
