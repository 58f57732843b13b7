/** The facts of a material: one form for adding and for changing. */
import { factsIn } from "#core/material/facts";
import { KINDS, KIND_IDS, kind, type KindId } from "#core/material/kinds";
import { FORM_IDS, FORMS, type Densities, type Form } from "#core/measure/mass";
import type { MaterialRow } from "#db/shelf/materials";
import { Link } from "react-router";
import { useSheet } from "../forms/useSheet.ts";
import { showBase } from "../ui/amounts.tsx";
import { Area, Button, Choice, Problem, Text } from "../ui/form.tsx";
import { Heading, Part, Sheet } from "../ui/sheet.tsx";

const shown = (n: number | undefined): string => (n === undefined ? "" : String(n / 1000));
const densityTexts = (d: Densities): Record<Form, string> =>
  Object.fromEntries(FORM_IDS.map((f) => [f, shown(d[f])])) as Record<Form, string>;

export function FactsForm({
  material,
  token,
  locked,
}: {
  material: MaterialRow | null;
  token: string;
  /** It has lots, so what it is measured in stays. */ locked: boolean;
}) {
  const sheet = useSheet(
    {
      name: material?.name ?? "",
      kind: material?.kind ?? ("oil" as KindId),
      inci: material?.inci ?? "",
      allergen: material?.allergen ?? "",
      note: material?.note ?? "",
      reorder: material?.reorderAt != null ? showBase(material.reorderAt, factsIn(material).measured).replace(/,/g, "") : "",
      dropsPerMl: material?.dropsPerMl?.toString() ?? "",
      piece: material?.pieceMg ? `${material.pieceMg / 1000} g` : "",
      densities: densityTexts(material?.densities ?? KINDS.oil.start),
    },
    token,
  );
  const { errors } = sheet.formState;
  const chosen = kind(sheet.watch("kind"));
  const choices = KIND_IDS.filter((k) => !locked || !material || KINDS[k].measured === kind(material.kind).measured).map(
    (k) => [k, KINDS[k].label] as const,
  );
  const { onChange, ...kindField } = sheet.register("kind");
  return (
    <form onSubmit={sheet.send()} className="max-w-3xl">
      <Heading
        title={material ? material.name : "Add a material"}
        about={
          material
            ? "Recipes are weighed again by these; batches made before stay as they were."
            : "Anything the workroom keeps: an oil, a wax, a tin, a label, a ribbon."
        }
      >
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
          {chosen.group === "ingredient" && (
            <Text label="INCI name" hint="As it stands in an ingredient list." {...sheet.register("inci")} problem={errors.inci?.message} />
          )}
          <Text
            label="Remind me below"
            hint={chosen.measured === "count" ? "Pieces; empty for never." : "Such as 500 g; empty for never."}
            {...sheet.register("reorder")}
            problem={errors.reorder?.message}
          />
        </div>
        {chosen.measured === "weight" && (
          <Part title="What it weighs">
            <p className="mb-3 text-pine-soft">
              Cups and spoons become grams through these. A cup of pellets holds about half the wax of a cup of melted wax, so each form has
              its own. The figures put in for you are typical ones, from memory; weigh a level cup of yours to be sure.
            </p>
            <div className="grid gap-4 sm:grid-cols-4">
              {chosen.forms.map((f) => (
                <Text
                  key={f}
                  label={`${FORMS[f][0]!.toUpperCase()}${FORMS[f].slice(1)}, g per mL`}
                  className="[&_input]:text-right"
                  {...sheet.register(`densities.${f}`)}
                  problem={errors.densities?.[f]?.message}
                />
              ))}
              {chosen.forms.includes("liquid") && (
                <Text
                  label="Drops per mL"
                  placeholder="20"
                  hint="20 is usual."
                  className="[&_input]:text-right"
                  {...sheet.register("dropsPerMl")}
                  problem={errors.dropsPerMl?.message}
                />
              )}
              <Text
                label="One piece weighs"
                placeholder="0.35 g"
                hint="For capsules and the like."
                className="[&_input]:text-right"
                {...sheet.register("piece")}
                problem={errors.piece?.message}
              />
            </div>
          </Part>
        )}
        <Part title="Notes">
          <div className="grid gap-4">
            {chosen.group === "ingredient" && (
              <Text label="Allergen to name" {...sheet.register("allergen")} problem={errors.allergen?.message} />
            )}
            <Area label="Note" {...sheet.register("note")} problem={errors.note?.message} />
          </div>
        </Part>
      </Sheet>
    </form>
  );
}
