/** The facts of a material: one form for adding and for changing. */
import { Link } from "react-router";
import { KEPT, REORDER_BY } from "#core/material/facts";
import { KINDS, KIND_IDS, kind, type KindId } from "#core/material/kinds";
import type { MaterialRow } from "#db/shelf/materials";
import { useSheet, type Opened } from "../../forms/useSheet.ts";
import { Area, Choice, Text } from "../../ui/fields/form.tsx";
import { Heading, Part, Sheet } from "../../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../../forms/sheetSays.tsx";
import { densityTexts, factsText } from "./factsText.ts";
import { Cautions, ContainerFacts, Densities as DensityFields, Keeping, Senses } from "./factsParts.tsx";

const FIELD_NAMES = {
  name: "Name",
  kind: "Kind",
  inci: "INCI name",
  botanical: "Botanical name",
  allergen: "Allergen",
  note: "Notes",
  reorderBy: "Remind",
  reorder: "Remind below",
  dropsPerMl: "Drops to the mL",
  piece: "One piece weighs",
  densities: "Density",
  meltFrom: "Melts from",
  meltTo: "Melts to",
  keepsSealed: "Keeps sealed",
  keepsOpened: "Keeps opened",
  vegan: "Vegan",
  refined: "Refined",
  kept: "Storage",
  scentNote: "In a blend",
  feel: "On the skin",
  smell: "Smells",
  oilKept: "Oil a gram holds back",
  cautions: "Cautions",
  brim: "Holds to the brim",
  usable: "Holds, usable",
  inner: "Inside across",
  fill: "Filled to",
  empty: "Empty weight",
  madeOf: "Made of",
  lid: "Lid",
};

export function FactsForm({
  material,
  like = null,
  opened,
  locked,
  lids,
}: {
  material: MaterialRow | null;
  /** One that the new one is a copy of, but for its name. */
  like?: MaterialRow | null;
  opened: Opened;
  lids: readonly { id: number; name: string }[];
  /** It has lots, so what it is measured in stays. */ locked: boolean;
}) {
  const sheet = useSheet(like ? { ...factsText(like, lids), name: "" } : factsText(material, lids), opened, {
    draft: (v) => v.name || "A material",
  });
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
        title={material ? material.name : like ? `Like ${like.name}` : "Add a material"}
        about={
          material
            ? "Recipes are worked out again with these; batches already made don't change."
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
        <Send sheet={sheet}>{material ? "Save" : "Add to the shelf"}</Send>
      </Heading>
      <Sheet>
        <SheetSays sheet={sheet} names={FIELD_NAMES} />
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
            <Text label="INCI name" hint="As written in an ingredient list." {...sheet.register("inci")} problem={errors.inci?.message} />
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
              data-amount
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
              data-amount="decimal"
              label="A gram of it holds back, g of oil"
              hint="Empty: common practice, until your own strainings say it."
              className="max-w-80 [&_input]:text-right"
              {...sheet.register("oilKept")}
              problem={errors.oilKept?.message}
            />
          </Part>
        )}
        {sheet.values.kind === "container" && <ContainerFacts sheet={sheet} />}
        {ingredient && <Senses sheet={sheet} />}
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
