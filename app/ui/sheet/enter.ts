/**
 * What Enter does on a sheet whose button moves goods or closes something: it goes on to the next field, and the larger thing waits for a press
 * of its own.
 */
import type { KeyboardEvent } from "react";

const FIELDS = "input:not([type=hidden]):not(:disabled), select:not(:disabled), textarea:not(:disabled), [role=combobox]:not(:disabled)";

/** For a form's `onKeyDown`. At the last field it stays there. What a field makes of Enter itself (a list's choice, a table's next row) goes before. */
export function enterGoesOn(e: KeyboardEvent<HTMLFormElement>): void {
  if (e.key !== "Enter" || e.ctrlKey || e.metaKey || e.defaultPrevented || !(e.target instanceof HTMLInputElement)) return;
  e.preventDefault();
  const fields = [...e.currentTarget.querySelectorAll<HTMLElement>(FIELDS)];
  const next = fields[fields.indexOf(e.target) + 1];
  next?.focus();
  if (next instanceof HTMLInputElement && next.type === "text") next.select();
}
