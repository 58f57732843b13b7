/** Renders fields with their values on the server: the form library fills an input only once the script runs. */
import type { FieldValues, UseFormReturn } from "react-hook-form";

/**
 * What an input is sent with.
 * @example initialValue("800 g") // { defaultValue: "800 g" }
 * @example initialValue(true) // { defaultChecked: true }
 */
export const initialValue = (value: unknown): { defaultValue?: string; defaultChecked?: boolean } =>
  typeof value === "string" ? { defaultValue: value } : typeof value === "boolean" ? { defaultChecked: value } : {};

/** The same form, the fields it registers with the value they begin with. What is ticked in a list of boxes says so itself. */
export function withInitialValues<T extends FieldValues>(form: UseFormReturn<T>): UseFormReturn<T> {
  const register: typeof form.register = (name, options) => ({ ...form.register(name, options), ...initialValue(form.getValues(name)) });
  // On top of the form, not a copy: what it says of itself (`formState`) changes in place.
  return Object.create(form, { register: { value: register } }) as UseFormReturn<T>;
}
