/** What every screen knows of the workshop: which of the two it is, its name, currency, costing method and today's date. */
import type { NumberHabit } from "#core/measure/habit";
import type { CostingMethod } from "#core/stock/costingMethods";
import type { DateStyle } from "#core/typedDay";
import type { Day } from "#core/when";
import type { ServedKind } from "#core/workshop";
import { createContext, useContext } from "react";

export interface Workshop {
  kind: ServedKind;
  /** Where its pages are: "/demo"; nothing where there is but one. */
  home: string;
  name: string;
  currency: string;
  school: CostingMethod;
  today: Day;
  dates: DateStyle;
  numbers: NumberHabit;
}

export const WorkshopContext = createContext<Workshop>({
  kind: "demo",
  home: "",
  name: "",
  currency: "EUR",
  school: "lot",
  today: "2000-01-01",
  dates: "dmy",
  numbers: "asked",
});
export const useWorkshop = (): Workshop => useContext(WorkshopContext);
