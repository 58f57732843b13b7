/**
 * Rewrites a typed amount (`data-amount`) so that it has one reading, by the workshop's habit, as soon as its field is left or sent: every
 * later reader gets the same number, also after the habit is changed. Mounted once, for every field. In a field for small numbers
 * (`data-amount="decimal"`: a density, a rate) a lone point is always the decimal point.
 */
import type { NumberHabit, settleNumbers } from "#core/measure/habit";
import { useEffect } from "react";

const isAmount = (field: EventTarget | null): field is HTMLInputElement =>
  field instanceof HTMLInputElement && field.dataset.amount !== undefined;

function settle(field: HTMLInputElement, habit: NumberHabit, settled: typeof settleNumbers): void {
  const text = settled(field.value, habit, field.dataset.amount === "decimal" ? "decimal" : "asked");
  if (text === field.value) return;
  // As if it had been typed: React tracks the value of a controlled field through its own setter.
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")!.set!.call(field, text);
  field.dispatchEvent(new Event("input", { bubbles: true }));
}

export function useUnambiguousNumbers(habit: NumberHabit): void {
  useEffect(() => {
    if (habit === "asked") return;
    // Only a workshop with a habit has to know how numbers are read on every page.
    let reading: typeof settleNumbers | null = null;
    void import("#core/measure/habit").then((m) => (reading = m.settleNumbers));
    // What is in a field that nobody typed in is the sheet's own.
    let found = isAmount(document.activeElement) ? document.activeElement.value : "";
    const entered = (e: FocusEvent): void => {
      if (isAmount(e.target)) found = e.target.value;
    };
    const settled = (field: EventTarget | null): void => {
      if (reading && isAmount(field) && field.value !== found) settle(field, habit, reading);
    };
    const left = (e: FocusEvent): void => settled(e.target);
    const sent = (e: KeyboardEvent): void => {
      if (e.key === "Enter") settled(e.target);
    };
    // In the capture phase, so that later listeners get the rewritten text.
    window.addEventListener("focusin", entered, true);
    window.addEventListener("focusout", left, true);
    window.addEventListener("keydown", sent, true);
    return () => {
      window.removeEventListener("focusin", entered, true);
      window.removeEventListener("focusout", left, true);
      window.removeEventListener("keydown", sent, true);
    };
  }, [habit]);
}
