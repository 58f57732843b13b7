/** The rest of a pouring: what was left in the jug, what becomes of it, and how long it all took. */
import type { UseFormRegister } from "react-hook-form";
import { problemAt } from "../../ui/fields/problems.ts";
import { Choice, Text } from "../../ui/fields/form.tsx";

interface Rest {
  leftover: string;
  leftoverTo: string;
  minutes: string;
}

export function PouredRest({ form }: { form: unknown }) {
  const sheet = form as { register: UseFormRegister<Rest>; watch: (name: "minutes") => string; formState: { errors: object } };
  const minutes = sheet.watch("minutes").trim();
  return (
    <div className="mt-4 grid gap-4 sm:grid-cols-3">
      <Text
        data-amount
        label="Left in the jug"
        placeholder="none"
        className="[&_input]:text-right [&_input]:text-large"
        {...sheet.register("leftover")}
        problem={problemAt(sheet.formState.errors, "leftover")}
      />
      <Choice
        label="What becomes of it"
        options={[
          ["gone", "testers, or thrown away"],
          ["kept", "a spare mould: on the shelf as a base"],
        ]}
        {...sheet.register("leftoverTo")}
      />
      <Text
        data-amount
        label="Minutes of work"
        hint={minutes === "0" ? "No work is counted then: what one costs is without it." : "As planned, until you say otherwise."}
        className="[&_input]:text-right [&_input]:text-large"
        {...sheet.register("minutes")}
        problem={problemAt(sheet.formState.errors, "minutes")}
      />
    </div>
  );
}
