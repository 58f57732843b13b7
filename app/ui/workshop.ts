/** What every screen knows of the workshop: its name, currency, costing school and today's date. */
import type { School } from "#core/stock/schools";
import type { Day } from "#core/when";
import { createContext, useContext } from "react";

export interface Workshop {
  name: string;
  currency: string;
  school: School;
  today: Day;
}

export const WorkshopContext = createContext<Workshop>({ name: "", currency: "EUR", school: "lot", today: "2000-01-01" });
export const useWorkshop = (): Workshop => useContext(WorkshopContext);
