/** HiGHS as the core asks it: whole numbers, to the proven best, or the best it found in its time with how far it may be off. */
import { asLp, type Solved, type WholeNumbers } from "#core/fill/wholeNumbers";
import type { Highs } from "highs";

/** Nobody waits longer at a sheet. */
const SECONDS = 5;
const INFEASIBLE = 8;

/** @param highs as its loader gives it */
export const solverOf =
  (highs: Highs) =>
  (question: WholeNumbers): Solved | null =>
    highs.withModel({ format: "lp", data: asLp(question) }, (model): Solved | null => {
      model.options.set({ output_flag: false, mip_rel_gap: 0, mip_abs_gap: 0, time_limit: SECONDS });
      model.run();
      if (model.getModelStatus() === INFEASIBLE) return null;
      const values = [...model.getSolution().colValue];
      const whole = Array.from({ length: question.cost.length }, (_, i) => values[model.getColByName(`x${i}`)] ?? 0);
      // No number where nothing was found in time.
      if (!whole.every(Number.isFinite)) return null;
      return { values: whole, cost: model.getObjectiveValue(), bound: Number(model.info.get("mip_dual_bound")) };
    });
