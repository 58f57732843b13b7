/** The facts of a material: one form for adding and for changing. */
import { factsIn, KEPT, REORDER_BY } from "#core/material/facts";
import { KINDS, KIND_IDS, kind, type KindId } from "#core/material/kinds";
import { FORM_IDS, type Densities, type Form } from "#core/measure/mass";
import type { MaterialRow } from "#db/shelf/materials";
import { Link } from "react-router";
import { useSheet } from "../forms/useSheet.ts";
import { showBase } from "../ui/amounts.tsx";
import { Area, Button, Choice, Problem, Text } from "../ui/form.tsx";
import { Heading, Part, Sheet } from "../ui/sheet.tsx";
import { Cautions, ContainerFacts, Densities as DensityFields, Keeping } from "./factsParts.tsx";

const shown = (n: number | undefined): string => (n === undefined ? "" : String(n / 1000));
const text = (n: number | null | undefined): string => (n == null ? "" : String(Math.round(n * 100) / 100));
const densityTexts = (d: Densities): Record<Form, string> =>
  Object.fromEntries(FORM_IDS.map((f) => [f, shown(d[f])])) as Record<Form, string>;

/** What the sheet starts with. */
const startWith = (m: MaterialRow | null, lids: readonly { id: number; name: string }[]) => ({
  name: m?.name ?? "",
  kind: m?.kind ?? ("oil" as KindId),
  inci: m?.inci ?? "",
  botanical: m?.botanical ?? "",
  allergen: m?.allergen ?? "",
  note: m?.note ?? "",
  reorderBy: (m?.reorderBy ?? "never") as string,
  reorder: m?.reorderAt != null ? showBase(m.reorderAt, factsIn(m).measured).replace(/,/g, "") : "",
  dropsPerMl: text(m?.dropsPerMl),
  piece: m?.pieceMg ? `${m.pieceMg / 1000} g` : "",
  densities: densityTexts(m?.densities ?? KINDS.oil.start),
  meltFrom: text(m?.meltFrom),
  meltTo: text(m?.meltTo),
  keepsSealed: text(m?.keepsSealed),
  keepsOpened: text(m?.keepsOpened),
  vegan: (m?.vegan ?? "") as string,
  refined: (m?.refined ?? "") as string,
  kept: (m?.kept ?? "") as string,
  oilKept: text(m?.oilKept),
  cautions: (m?.cautions ?? []) as string[],
  brim: text(m?.brimMl),
  usable: text(m?.usableMl),
  inner: text(m?.innerMm),
  fill: text(m?.fillMm),
  empty: m?.emptyMg ? `${m.emptyMg / 1000} g` : "",
  madeOf: m?.madeOf ?? "",
  lid: lids.find((l) => l.id === m?.lidId)?.name ?? "",
});
export type FactsSheet = ReturnType<typeof useSheet<ReturnType<typeof startWith>>>;

export function FactsForm({
  material,
  token,
  locked,
  lids,
}: {
  material: MaterialRow | null;
  token: string;
  lids: readonly { id: number; name: string }[];
  /** It has lots, so what it is measured in stays. */ locked: boolean;
}) {
  const sheet = useSheet(startWith(material, lids), token);
  const { errors } = sheet.formState;
  const chosen = kind(sheet.watch("kind"));
  const choices = KIND_IDS.filter((k) => !locked || !material || KINDS[k].measured === kind(material.kind).measured).map(
    (k) => [k, KINDS[k].label] as const,
  );
  const { onChange, ...kindField } = sheet.register("kind");
  const ingredient = chosen.group === "ingredient";
  return (
    <form onSubmit={sheet.send()} className="max-w-4xl">
      <Heading
        title={material ? material.name : "Add a material"}
        about={
          material
            ? "Recipes are weighed again by these; batches made before stay as they were."
            : "Anything the workroom keeps: an oil, a wax, a tin, a label, a ribbon."
        }
      >
        {!material && (
          <Link to="/shelf/library" className="act">
            From the library
          </Link>
        )}
        <Link to={material ? `/shelf/${material.id}` : "/shelf"} className="act">
          Leave
        </Link>
        <Button type="submit" main disabled={sheet.busy}>
          {material ? "Keep" : "Add to the shelf"}
        </Button>
      </Heading>
      <Sheet>
        <Problem say={sheet.problem} />
        <div className="grid gap-4 sm:grid-cols-[1fr_13rem]">
          <Text label="Name" {...sheet.register("name")} problem={errors.name?.message} />
          <Choice
            label="Kind"
            options={choices}
            {...kindField}
            onChange={(e) => {
              void onChange(e);
              if (!material) sheet.setValue("densities", densityTexts(kind(e.target.value as KindId).start));
            }}
          />
        </div>
        {ingredient && (
          <div className="mt-4 grid gap-4 sm:grid-cols-2">
            <Text label="INCI name" hint="As it stands in an ingredient list." {...sheet.register("inci")} problem={errors.inci?.message} />
            <Text label="Botanical name" {...sheet.register("botanical")} problem={errors.botanical?.message} />
          </div>
        )}
        <div className="mt-4 grid gap-4 sm:grid-cols-[1fr_13rem]">
          <Choice
            label="Remind me to buy"
            hint={sheet.values.reorderBy === "use" ? "From what is used in half a year and the days to delivery in Settings." : undefined}
            options={Object.entries(REORDER_BY)}
            {...sheet.register("reorderBy")}
          />
          {sheet.values.reorderBy === "hand" && (
            <Text
              label="Remind me below"
              hint={chosen.measured === "count" ? "Pieces." : "Such as 500 g."}
              {...sheet.register("reorder")}
              problem={errors.reorder?.message}
            />
          )}
        </div>
        {chosen.measured === "weight" && <DensityFields sheet={sheet} kind={chosen} />}
        {sheet.values.kind === "herb" && (
          <Part title="In a jar">
            <Text
              label="A gram of it keeps, g of oil"
              hint="Empty: common practice, until your own strainings say it."
              className="max-w-80 [&_input]:text-right"
              {...sheet.register("oilKept")}
              problem={errors.oilKept?.message}
            />
          </Part>
        )}
        {sheet.values.kind === "container" && <ContainerFacts sheet={sheet} lids={lids} />}
        <Keeping sheet={sheet} ingredient={ingredient} kept={Object.entries(KEPT)} />
        <Part title="Cautions and notes">
          <div className="grid gap-4">
            {ingredient && <Text label="Allergen to name" {...sheet.register("allergen")} problem={errors.allergen?.message} />}
            {ingredient && <Cautions sheet={sheet} />}
            <Area label="Note" {...sheet.register("note")} problem={errors.note?.message} />
          </div>
        </Part>
      </Sheet>
    </form>
  );
}
