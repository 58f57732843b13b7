/** Typing a weight always works, whatever the scale says. */
import { readWeighed } from "#core/measure/read";
import type { Mg } from "#core/measure/exact";
import { useState } from "react";
import { Button, Text } from "../../../ui/fields/form.tsx";

export function ByHand({ label, busy, kept }: { label: string; busy: boolean; kept: (weight: Mg) => void }) {
  const [text, type] = useState("");
  const [problem, say] = useState<string>();
  return (
    <form
      className="mt-5 flex flex-wrap items-start gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const read = readWeighed(text);
        say(read.ok ? undefined : read.problem.say);
        if (read.ok) kept(read.value);
      }}
    >
      <Text
        data-amount
        label={label}
        placeholder="by hand&nbsp;"
        className="w-52 [&_input]:text-right [&_input]:font-mono [&_input]:text-large"
        value={text}
        onChange={(e) => type(e.target.value)}
        problem={problem}
      />
      <Button type="submit" className="mt-6" disabled={busy || text.trim() === ""}>
        Use what I typed
      </Button>
    </form>
  );
}
