/** Messages about a sheet as a whole, and its submit button with the reason when it can't be sent. */
import type { FieldProblem } from "#core/refused";
import { counted } from "#core/words";
import type { ReactNode } from "react";
import type { FieldErrors, UseFormReturn } from "react-hook-form";
import type { Reply } from "./sheet.server.ts";
import { pathsOf, problemAt } from "../ui/fields/problems.ts";
import { Button, Problem } from "../ui/fields/form.tsx";
import { EditConflictChoices } from "./meanwhile.tsx";

interface Saying {
  problem: string | null;
  see: FieldProblem["see"];
  keptAgo: string | null;
  startAfresh: () => void;
  changed: Reply["changed"] | null;
  base: object;
  getValues: () => object;
  settle: (chosen: never) => void;
}

/** Taken up again, what is wrong with it, and what another window did meanwhile. @param names what the sheet calls its fields; none for a new record */
export function SheetSays({ sheet, names }: { sheet: Saying; names?: Readonly<Record<string, string>> }) {
  return (
    <>
      {sheet.keptAgo !== null && (
        <p role="note" className="no-print mb-4 flex flex-wrap items-center gap-x-4 gap-y-1 rounded bg-honey-wash px-3 py-1.5 text-honey">
          <span>
            Taken up where you left it <strong>{sheet.keptAgo}</strong>; it isn’t saved yet.
          </span>
          <button type="button" className="pressable" onClick={sheet.startAfresh}>
            Throw it away
          </button>
        </p>
      )}
      <Problem say={sheet.problem} see={sheet.see} />
      {names && <EditConflictChoices sheet={sheet} names={names} />}
    </>
  );
}

/** Beside the button that was pressed: that nothing was saved, and why; pressing it goes to the first field to mend. */
export function HeldBack({ sheet }: { sheet: Pick<Sending, "formState" | "setFocus"> }) {
  const [first, ...more] = pathsOf(sheet.formState.errors);
  if (!first) return null;
  return (
    <button
      type="button"
      className="basis-full cursor-pointer text-right [contain:inline-size] text-small font-semibold text-berry"
      onClick={() => (sheet.setFocus as UseFormReturn["setFocus"])(first)}
    >
      Not saved: {problemAt(sheet.formState.errors, first)}
      {more.length > 0 && ` And ${counted(more.length, "more thing")}.`}
    </button>
  );
}

type Sending = { busy: boolean; formState: { errors: FieldErrors }; setFocus: unknown };

interface SendProps {
  sheet: Sending;
  children: ReactNode;
  /** What its own press does, where that is more than saving the sheet: Enter in a field doesn't do it then. */
  press?: () => void;
}

/** The button that sends the sheet. */
export function Send({ sheet, children, press }: SendProps) {
  return (
    <>
      <Button type={press ? "button" : "submit"} main disabled={sheet.busy} onClick={press}>
        {children}
      </Button>
      <HeldBack sheet={sheet} />
    </>
  );
}
