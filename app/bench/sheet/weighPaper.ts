/** A weigh sheet on paper: what is weighed out of which lot, with a line for each figure that isn't there yet. */
import { grams } from "#core/measure/write";
import { ofSteps, onScale, showSteps, type Scale } from "#core/recipe/scale";
import { lotState } from "#core/stock/lots";
import { plannedMinutes } from "#core/recipe/cost";
import { wordList } from "#core/words";
import { today } from "#db/clock";
import type { BatchSheet } from "#db/bench/read";
import type { Cell, Paper } from "../../paper/paper.ts";
import type { Said } from "../../paper/pdf.server.ts";
import { STATE_WORDS } from "../../ui/figures/amounts.tsx";
import { sayInDrops, type Liquid } from "../inDrops.tsx";
import { HOT_WAX } from "./weighSheet.tsx";

interface Weighed {
  sheet: BatchSheet;
  scale: Scale;
  liquids: readonly Liquid[];
}

/** Weights as the scale shows them, in its own unit. */
const onScaleText = (planned: BatchSheet["takes"][number]["planned"], scale: Scale): string => {
  const { steps, weight, outOfReach } = onScale(planned, scale);
  return outOfReach ? grams(planned) : scale.unit === "g" ? grams(weight) : showSteps(steps, scale);
};

export function weighPaper({ sheet, scale, liquids }: Weighed, { day }: Said): Paper {
  const { batch, recipe, sizes, takes, lots } = sheet;
  const lotOf = (id: number) => lots.find((l) => l.id === id);
  const into = (t: (typeof takes)[number]) => sizes.find((s) => s.id === t.sizeId);
  return {
    title: recipe.name,
    file: `weigh-sheet-${batch.id}`,
    about: `Weigh sheet for ${wordList(sizes.flatMap((s) => (s.planned > 0 ? [`${s.planned} × ${s.label}`] : [])))}, by version ${recipe.n}, set out ${day(batch.day)}`,
    parts: [
      {
        columns: [
          { head: "Material" },
          { head: "Wanted", as: "weight" },
          { head: "Lot", as: "lot" },
          { head: "Best before" },
          { head: `Weighed, ${scale.unit}`, as: "write" },
        ],
        groups: [
          {
            rows: takes.map((t): Cell[] => {
              const lot = lotOf(t.lotId);
              const notes = [
                into(t) && `into ${into(t)!.label}`,
                onScale(t.planned, scale).outOfReach && "below what the scale reads",
                sayInDrops({ materialId: t.materialId, liquids, lot, weight: t.planned, step: ofSteps(1, scale) }),
              ];
              return [
                { text: t.material, strong: true, note: notes.filter(Boolean).join(", ") },
                { text: onScaleText(t.planned, scale), note: scale.unit === "oz" ? grams(t.planned) : undefined },
                { text: lot?.number ?? "", note: lot && STATE_WORDS[lotState(lot, today())] },
                day(lot?.bestBefore ?? null),
                t.weighed === null ? "" : grams(t.weighed),
              ];
            }),
          },
        ],
        // Of what the scale shows, so that the column adds up.
        foot: [
          "Together",
          showSteps(
            takes.reduce((a, t) => a + onScale(t.planned, scale).steps, 0),
            scale,
          ),
          "",
          "",
          "",
        ],
      },
      { heading: "Poured" },
      {
        toWrite: [
          ...sizes
            .filter((s) => s.planned > 0)
            .map((s) => [`Filled, ${s.label}`, s.units ? String(s.units) : "", `of ${s.planned}`] as const),
          ["Left in the jug", batch.leftover === null ? "" : grams(batch.leftover), "g"],
          [`Minutes of work, ${batch.minutes ?? plannedMinutes(recipe.batchMinutes, sizes)} planned`, "", "min"],
          ["Poured at", "", "°C"],
          ["Day and hour", ""],
          ["What happened", ""],
        ],
      },
      ...(batch.note ? [{ text: batch.note }] : []),
      ...(recipe.method ? [{ heading: "Method" }, { text: recipe.method }] : []),
      { text: HOT_WAX, as: "caution" },
    ],
  };
}
