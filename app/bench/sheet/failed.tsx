/** Where a batch ends that failed: with what went wrong, which is worth knowing the next time. */
import { tokenFor, useSheet, type Opened } from "../../forms/useSheet.ts";
import { Button, Text } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";

/** So that this sheet's act has its own token, apart from the weigh sheet's. */
const APART = 77;

export function Failed({ opened, before }: { opened: Opened; before: () => Promise<unknown> }) {
  const sheet = useSheet({ why: "" }, { ...opened, token: tokenFor(opened.token, APART) });
  return (
    <Part title="If it failed" screenOnly>
      <div className="flex flex-wrap items-start gap-2">
        <Text
          label="What went wrong"
          hint="What was weighed is written off with what it cost. Nothing weighed yet? Clear it off the bench."
          className="min-w-0 flex-1 basis-72"
          {...sheet.register("why")}
          problem={sheet.formState.errors.why?.message ?? sheet.problem ?? undefined}
        />
        <Button className="mt-6" disabled={sheet.busy} onClick={() => void before().then(() => sheet.send("spoil")())}>
          Write it off
        </Button>
      </div>
    </Part>
  );
}
