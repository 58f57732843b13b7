/** Binds a field that isn't a plain input to its sheet: its text, and how to change it. */
import { useController, type Control } from "react-hook-form";

/** Which field of which sheet. */
export interface InSheet {
  /** The sheet's; any sheet will do. */
  control: unknown;
  name: string;
}

export function useTextField({ control, name }: InSheet) {
  const { field } = useController({ control: control as Control, name });
  return {
    value: typeof field.value === "string" ? field.value : "",
    set: field.onChange as (text: string) => void,
    rest: { onBlur: field.onBlur, inputRef: field.ref },
  };
}
