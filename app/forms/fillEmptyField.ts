/** Fills in fields for the maker, without touching what is being typed. */
import type { FieldValues, Path, PathValue, UseFormReturn } from "react-hook-form";

/**
 * Fills in a field that is still empty. Where the hand has gone into it by then, what is filled in is marked, as it is in a filled field one goes
 * to by Tab: what is typed next replaces it.
 */
export function fillEmptyField<T extends FieldValues>(
  { getValues, setValue }: Pick<UseFormReturn<T>, "getValues" | "setValue">,
  name: Path<T>,
  text: string,
): void {
  if (getValues(name) !== "") return;
  setValue(name, text as PathValue<T, Path<T>>);
  selectFilled(name);
}

/**
 * Marks what was filled in where the hand is: in the field, or in one of a list of them.
 * @param name the field's, or the list's
 */
export function selectFilled(name: string): void {
  // At once: the form's own way of choosing a field comes a moment later, when something may have been typed.
  const at = document.activeElement;
  if (at instanceof HTMLInputElement && (at.name === name || at.name.startsWith(`${name}.`))) at.select();
}
