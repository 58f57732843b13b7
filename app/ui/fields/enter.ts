/**
 * Moves the focus to the next field on Enter. On a sheet whose button moves goods or closes something Enter never presses that button: the
 * larger thing waits for a press.
 */
import type { KeyboardEvent } from "react";

const FIELDS = "input:not([type=hidden]):not(:disabled), select:not(:disabled), textarea:not(:disabled), [role=combobox]:not(:disabled)";

/** For a form's `onKeyDown`. At the last field it stays there. What a field makes of Enter itself (a list's choice, a table's next row) goes before. */
export function enterGoesOn(e: KeyboardEvent<HTMLFormElement>): void {
  if (e.key !== "Enter" || e.ctrlKey || e.metaKey || e.defaultPrevented || !(e.target instanceof HTMLInputElement)) return;
  e.preventDefault();
  const fields = [...e.currentTarget.querySelectorAll<HTMLElement>(FIELDS)];
  goTo(fields[fields.indexOf(e.target) + 1]);
}

/** Focuses a field and selects its text. */
function goTo(field: HTMLElement | undefined): void {
  field?.focus();
  if (field instanceof HTMLInputElement && field.type === "text") field.select();
}

/**
 * Goes from one field of a form to another by its name, at once. The form's library goes there a moment later (`setFocus`), and what a quick
 * hand, or a scale that types, enters meanwhile would be in the field it left.
 * @returns whether there is such a field to type in
 */
export function goToNamed(from: EventTarget, name: string): boolean {
  const field = from instanceof Element ? from.closest("form")?.elements.namedItem(name) : null;
  if (!(field instanceof HTMLInputElement) || field.type === "hidden") return false;
  goTo(field);
  return true;
}
