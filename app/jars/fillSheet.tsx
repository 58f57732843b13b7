/** The plan of a jar on its sheet: herb, oil and how, with what it comes to beside it. */
import { Link } from "react-router";
import { AMOUNT_BY, AMOUNT_BY_IDS, JAR_FILLS } from "#core/infusion/amounts";
import { CUTS, CUT_IDS } from "#core/infusion/absorption";
import { DRYNESS } from "#core/material/dryness";
import { firstMistake } from "#core/refused";
import { METHODS, METHOD_IDS } from "#core/infusion/methods";
import { grams } from "#core/measure/write";
import { useMemo } from "react";
import { useSheet } from "../forms/useSheet.ts";
import { CARRIERS, HERBS } from "../names/finds.ts";
import { LOOKUP_FAILED, useLookup, useLastKnown } from "../names/useLookup.ts";
import { DayText } from "../ui/fields/dateField.tsx";
import { Area, Choice, Text } from "../ui/fields/form.tsx";
import { useSayDay } from "../ui/figures/amounts.tsx";
import { nameCell } from "../names/combo.tsx";
import { LineTable, type Column } from "../ui/fields/lines.tsx";
import type { Choosable } from "../ui/fields/pick.tsx";
import { Caution, Empty, Heading, Part, Sheet, SideBySide } from "../ui/sheet/sheet.tsx";
import { Send, SheetSays } from "../forms/sheetSays.tsx";
import type { Route } from "./+types/fill";
import { lotsOf, suggestName } from "#core/infusion/plan";
import { namesOn, planOf } from "./jarPlan.ts";
import { PlanReckoner } from "./planReckoner.tsx";

/** The fields that its figures rest on; a lot, a reason or a name changes none of them. */
const FIGURES = /^(oil|ratio|herbCups|share|holds|own(Days|Hours)|(herbs|carriers)\.\d+\.(material|parts))$/;

const HERB = { material: "", lot: "", cut: "cut", parts: "1" };
const CARRIER = { material: "", lot: "", parts: "1" };

const CUT_OPTIONS = CUT_IDS.map((c) => [c, CUTS[c]] as const);

type Page = Route.ComponentProps["loaderData"];

/** The rows it opens with: what it was asked for, or one to be filled in. */
function startOf<T extends object>({ rows }: Page["start"], role: "herb" | "carrier", blank: T): T[] {
  const own = rows.filter((r) => r.role === role).map(({ role: _, ...row }) => ({ ...blank, ...row }));
  return own.length === 0 ? [blank] : own;
}

export function FillSheet({ stuff, bare, start, today: day, token }: Page) {
  const sheet = useSheet(
    {
      name: start.name,
      method: start.method,
      methodName: "",
      ownDays: "14",
      ownHours: "",
      day,
      wished: "",
      by: "ratio",
      oil: "500 g",
      ratio: "8",
      herbCups: "2 cups",
      share: "50",
      vessel: "",
      holds: "",
      why: "",
      note: "",
      herbs: startOf(start, "herb", HERB),
      carriers: startOf(start, "carrier", CARRIER),
    },
    { token },
    { draft: (v) => (v.herbs[0]?.material ? `A jar of ${v.herbs[0].material}` : "A jar") },
  );
  const { known, find, meant, asking, lost } = useLookup("jar", stuff, namesOn(sheet.values), sheet.means);
  const v = useLastKnown(sheet.values, asking);
  const { errors } = sheet.formState;
  const sayIt = useSayDay();
  const plan = useMemo(() => planOf(v, known, day, meant), [v, known, day, meant]);
  const usual = METHODS[plan.method].times;
  const lotOptions = (rows: readonly { material: string }[]) => (row: number) => {
    const m = find(rows[row]?.material ?? "");
    const own = m ? lotsOf(m.lots, m.id) : [];
    return own.length === 0
      ? [{ value: "", name: m ? "none on hand" : "—" }]
      : own.map((l, i): Choosable => ({
          value: i === 0 ? "" : String(l.id),
          name: l.number,
          aside: grams(l.onHand, 0),
          about: [
            l.grown && `grown ${l.grown}`,
            l.dryness && l.dryness !== "dry" && DRYNESS[l.dryness],
            l.bestBefore && `best before ${sayIt(l.bestBefore)}`,
          ]
            .filter(Boolean)
            .join(", "),
        }));
  };
  const herbColumns: readonly Column[] = [
    { key: "material", label: "Herb", own: nameCell(HERBS), width: "32%" },
    { key: "lot", label: "Herb lot", picks: lotOptions(v.herbs), width: "30%" },
    { key: "cut", label: "Cut", options: CUT_OPTIONS, width: "22%" },
    { key: "parts", label: "Herb parts", right: true, width: "6rem" },
  ];
  const carrierColumns: readonly Column[] = [
    { key: "material", label: "Oil", own: nameCell(CARRIERS), width: "42%" },
    { key: "lot", label: "Oil lot", picks: lotOptions(v.carriers), width: "40%" },
    { key: "parts", label: "Oil parts", right: true, width: "6rem" },
  ];
  const weighed = (role: "herb" | "carrier") => ({
    label: "Weigh in",
    cell: (row: number) => {
      const id = find((role === "herb" ? v.herbs : v.carriers)[row]?.material ?? "")?.id;
      const p = plan.parts.find((x) => x.role === role && x.material.id === id);
      return <span className="weight">{p?.qty != null ? grams(p.qty) : ""}</span>;
    },
  });
  // A lot picked for one herb means nothing for another.
  const forget = (list: "herbs" | "carriers") => (row: number, key: string) =>
    key === "material" && sheet.setValue(`${list}.${row}.lot`, "");
  const needsReason = plan.warnings.some((w) => w.severity === "reason");
  if (bare)
    return (
      <>
        <Heading title="Fill a jar" />
        <Empty
          title="No herb on the shelf yet"
          act={
            <Link to="/shelf/library" className="act act-main">
              Take herbs from the library
            </Link>
          }
        >
          Add a herb and an oil, receive or harvest some, then fill the first jar.
        </Empty>
      </>
    );
  return (
    <form onSubmit={sheet.send()}>
      <Heading
        title="Fill a jar"
        about="Herb, oil and the way to steep it. What to weigh in, what comes back and when it is ready are shown beside it."
      >
        <Link to="/jars" className="act">
          Leave
        </Link>
        <Send sheet={sheet}>Fill the jar</Send>
      </Heading>
      <SideBySide
        reckoner={
          <PlanReckoner
            plan={plan}
            unread={
              lost
                ? LOOKUP_FAILED
                : firstMistake(
                    plan.problems.filter((p) => FIGURES.test(p.field)),
                    v,
                  )
            }
            pick={(m) => sheet.setValue("method", m)}
          />
        }
      >
        <Caution>
          Dry herb, dry jar, dry tools: water is what spoils an oil. Never leave oil on heat alone, and never over a direct flame.
        </Caution>
        <Sheet>
          <SheetSays sheet={sheet} />
          <Part title="What goes in">
            <LineTable
              form={sheet.form}
              name="herbs"
              columns={herbColumns}
              blank={HERB}
              addLabel="Add a herb"
              derived={[weighed("herb")]}
              onPicked={forget("herbs")}
            />
            <div className="mt-4">
              <LineTable
                form={sheet.form}
                name="carriers"
                columns={carrierColumns}
                blank={CARRIER}
                addLabel="Add an oil"
                derived={[weighed("carrier")]}
                onPicked={forget("carriers")}
              />
            </div>
          </Part>
          <Part title="How much">
            <div className="grid gap-4 sm:grid-cols-3">
              <Choice label="Measured" options={AMOUNT_BY_IDS.map((b) => [b, AMOUNT_BY[b]] as const)} {...sheet.register("by")} />
              {(v.by === "ratio" || v.by === "cups") && (
                <Text
                  data-amount
                  label="Oil in"
                  placeholder={v.by === "cups" ? "such as 3 cups" : "such as 500 g"}
                  {...sheet.register("oil")}
                  problem={errors.oil?.message}
                />
              )}
              {(v.by === "ratio" || v.by === "lot") && (
                <Text
                  data-amount="decimal"
                  label="Oil to 1 of herb"
                  placeholder="such as 8"
                  hint="By weight: 5 to 10 is strong, 32 is mild."
                  {...sheet.register("ratio")}
                  problem={errors.ratio?.message}
                />
              )}
              {v.by === "cups" && (
                <Text
                  data-amount
                  label="Herb, loose"
                  placeholder="such as 2 cups"
                  {...sheet.register("herbCups")}
                  problem={errors.herbCups?.message}
                />
              )}
              {v.by === "fill" && (
                <Text
                  data-amount="decimal"
                  label="Jar full of herb, %"
                  hint={JAR_FILLS.map(([n, say]) => `${n}: ${say}`).join(" · ")}
                  {...sheet.register("share")}
                  problem={errors.share?.message}
                />
              )}
              <Text
                data-amount
                label="The jar holds"
                placeholder="such as 1 L"
                hint="To the brim."
                {...sheet.register("holds")}
                problem={errors.holds?.message}
              />
              <Text label="Which jar" placeholder="such as tall clip jar" {...sheet.register("vessel")} problem={errors.vessel?.message} />
            </div>
          </Part>
          <Part title="How and when">
            <div className="grid gap-4 sm:grid-cols-3">
              <Choice label="Method" options={METHOD_IDS.map((m) => [m, METHODS[m].label] as const)} {...sheet.register("method")} />
              {v.method === "own" && (
                <>
                  <Text label="What you call it" {...sheet.register("methodName")} problem={errors.methodName?.message} />
                  <Text data-amount label="Days it takes" {...sheet.register("ownDays")} problem={errors.ownDays?.message} />
                </>
              )}
              {plan.heated && (
                <Text
                  data-amount="decimal"
                  label="Hours on the heat"
                  placeholder={`such as ${usual.earliest}–${usual.latest}`}
                  hint={`Empty for the usual ${usual.earliest} to ${usual.latest}.`}
                  {...sheet.register("ownHours")}
                  problem={errors.ownHours?.message}
                />
              )}
              <DayText label="Filled on" control={sheet.control} name="day" leaning="past" problem={errors.day?.message} />
              <DayText
                label="Wanted by"
                control={sheet.control}
                name="wished"
                leaning="future"
                hint="Empty when there is no hurry."
                problem={errors.wished?.message}
              />
            </div>
          </Part>
          <Part title="On the label">
            <div className="grid gap-4 sm:grid-cols-2">
              <Text
                label="The oil will be called"
                placeholder={suggestName(
                  plan.parts.filter((p) => p.role === "herb").map((p) => p.material.name),
                  plan.parts.find((p) => p.role === "carrier")?.material.name ?? "",
                )}
                {...sheet.register("name")}
                problem={errors.name?.message}
              />
              <Area label="Note" rows={1} {...sheet.register("note")} problem={errors.note?.message} />
              {(needsReason || errors.why) && (
                <Area
                  className="sm:col-span-2"
                  label="Why you fill it all the same"
                  hint="Stays with the jar and its bottles."
                  rows={2}
                  {...sheet.register("why")}
                  problem={errors.why?.message}
                />
              )}
            </div>
          </Part>
        </Sheet>
      </SideBySide>
    </form>
  );
}
