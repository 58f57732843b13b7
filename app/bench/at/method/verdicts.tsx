/** One of several words for how something is, large enough for greasy fingers. */
export function Verdicts<V extends string>({
  label,
  words,
  chosen,
  choose,
}: {
  label: string;
  words: Readonly<Record<V, string>>;
  chosen: V | null;
  choose: (v: V) => void;
}) {
  return (
    <div role="group" aria-label={label} className="mt-3 flex flex-wrap gap-2">
      {(Object.keys(words) as V[]).map((v) => (
        <button
          key={v}
          type="button"
          aria-pressed={chosen === v}
          className={`act text-[1.15rem] ${chosen === v ? "border-amber! bg-honey-wash font-semibold" : ""}`}
          onClick={() => choose(v)}
        >
          {words[v]}
        </button>
      ))}
    </div>
  );
}
