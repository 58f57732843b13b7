/** The review of a recipe, in the Reckoner: worst first, each with its reason and a button that mends it or dismisses it. */
import type { Gravity, Judgement } from "#core/recipe/judge/judgement";
import { counted } from "#core/words";
import { useState } from "react";
import type { UseFormReturn } from "react-hook-form";
import type { RecipeTexts } from "../recipeTexts.ts";
import type { Foreseen } from "./foreseen.ts";
import type { AppliedFix } from "./suggestedFix.ts";

const LOOKS: Record<Gravity, { word: string; edge: string; ink: string }> = {
  3: { word: "Careful", edge: "border-berry", ink: "text-berry" },
  2: { word: "Look again", edge: "border-honey", ink: "text-honey" },
  1: { word: "Could be better", edge: "border-rule-strong", ink: "" },
};
/** How many are shown at once; the rest are a press away. */
const AT_ONCE = 3;

const NOTHING = { open: [], known: [] } satisfies Pick<Foreseen, "open" | "known">;

interface Props {
  foreseen: Foreseen;
  mending: AppliedFix;
  form: UseFormReturn<RecipeTexts>;
  /** Whether the sheet can be read; until then it isn't reviewed. */
  ready: boolean;
}

export function Judgements({ foreseen, mending, form, ready }: Props) {
  const { open, known } = ready ? foreseen : NOTHING;
  const [all, showAll] = useState(false);
  const answers = (): RecipeTexts["answers"] => form.getValues("answers");
  const answer = (key: string, word: string): void =>
    form.setValue("answers", [...answers().filter((a) => a.key !== key), { key, word: word.trim() || "I know" }], { shouldDirty: true });
  const ask = (key: string): void =>
    form.setValue(
      "answers",
      answers().filter((a) => a.key !== key),
      { shouldDirty: true },
    );
  if (open.length === 0 && known.length === 0 && mending.last === null) return null;
  const shown = all ? open : open.slice(0, AT_ONCE);
  return (
    <section aria-label="What a colleague would say" className="space-y-2.5 py-2">
      {open.length > 0 && <p className="figure-main text-small font-semibold lg:sr-only">{counted(open.length, "thing")} to look at</p>}
      {mending.last !== null && (
        <p aria-live="polite" className="flex items-baseline justify-between gap-3 rounded bg-sage-wash px-2.5 py-1.5 text-small text-sage">
          <span>Done: {mending.last.slice(0, 1).toLowerCase() + mending.last.slice(1)}.</span>
          <button type="button" className="pressable flex-none" onClick={mending.putBack}>
            Put it back
          </button>
        </p>
      )}
      <ul className="space-y-2.5">
        {shown.map((j) => (
          <Said key={j.key} of={j} mending={mending} answer={(word) => answer(j.key, word)} />
        ))}
      </ul>
      {open.length > AT_ONCE && (
        <button type="button" className="pressable no-print text-small" aria-expanded={all} onClick={() => showAll(!all)}>
          {all ? "Only the worst" : `${open.length - AT_ONCE} more`}
        </button>
      )}
      {known.length > 0 && (
        <details className="text-small">
          <summary className="pressable">{known.length === 1 ? "1 is known" : `${known.length} are known`}</summary>
          <ul className="mt-1 space-y-1">
            {known.map((j) => (
              <li key={j.key} className="flex items-baseline justify-between gap-3">
                <span className="min-w-0 text-pine-soft">
                  {j.say} <q className="italic">{j.word}</q>
                </span>
                <button type="button" className="pressable flex-none" onClick={() => ask(j.key)}>
                  Show it again
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function Said({ of, mending, answer }: { of: Judgement; mending: AppliedFix; answer: (word: string) => void }) {
  const [asking, ask] = useState(false);
  const [word, setWord] = useState("");
  const { edge, ink, word: grave } = LOOKS[of.gravity];
  const { mend } = of;
  return (
    <li className={`border-l-4 pl-2.5 text-small leading-snug ${edge}`}>
      <details>
        <summary className={`cursor-pointer list-none font-semibold [&::-webkit-details-marker]:hidden ${ink}`}>
          <span className="sr-only">{grave}: </span>
          {of.say} <span className="font-normal text-pine-soft underline decoration-dotted underline-offset-4">Why?</span>
        </summary>
        <p className="mt-0.5 text-small text-pine-soft">{of.why}</p>
      </details>
      <div className="no-print mt-0.5 flex flex-wrap gap-x-4">
        {mend && (
          <button type="button" className="pressable" onClick={() => mending.press(mend)}>
            {mend.say}
          </button>
        )}
        {!asking && (
          <button type="button" className="pressable text-pine-soft" aria-label={`I know: ${of.say}`} onClick={() => ask(true)}>
            I know
          </button>
        )}
      </div>
      {asking && (
        <div className="mt-1 flex gap-2">
          <input
            className="field min-w-0 py-1!"
            aria-label="A note that stays with it"
            placeholder="why it may be so"
            maxLength={200}
            autoFocus
            value={word}
            onChange={(e) => setWord(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === "Escape") ask(false);
              if (e.key !== "Enter") return;
              // Not the sheet's own Enter.
              e.preventDefault();
              answer(word);
            }}
          />
          <button type="button" className="act act-small flex-none" onClick={() => answer(word)}>
            Save
          </button>
        </div>
      )}
    </li>
  );
}
