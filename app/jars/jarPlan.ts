/** A jar's plan read out of what its sheet knows: live on the page, and again by the action that fills it. */
import { readPlan, type JarPlan, type PlanTexts } from "#core/infusion/plan";
import type { Meant } from "#core/meant";
import type { Day } from "#core/when";
import type { JarStuff } from "#db/jars/jarStuff";

/** Every herb and oil that is on the sheet, by the name it was typed with. */
export const namesOn = (t: Pick<PlanTexts, "herbs" | "carriers">): string[] => [...t.herbs, ...t.carriers].map((p) => p.material);

export const planOf = (t: PlanTexts, stuff: readonly JarStuff[], today: Day, meant?: Meant): JarPlan =>
  readPlan(
    t,
    stuff,
    stuff.flatMap((s) => s.lots),
    stuff.flatMap((s) => s.past),
    today,
    meant,
  );
