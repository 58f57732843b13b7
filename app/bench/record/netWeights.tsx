/** What was weighed of one size, and whether it holds what its label says. */
import { judgeNet, NET_RULES, type NetRule } from "#core/batch/finishing/netWeight";
import type { Mg } from "#core/measure/exact";
import { grams } from "#core/measure/write";
import type { Sample } from "#db/bench/weighing/samples";

interface Props {
  rule: NetRule;
  declared: Mg;
  /** How many there are of it. */
  filled: number;
  samples: readonly Sample[];
  /** Strikes one out, as long as that can be done. */
  strike?: (id: number) => void;
}

export function NetWeights({ rule, declared, filled, samples, strike }: Props) {
  const standing = samples.filter((s) => s.struckAt === null);
  const verdict = judgeNet(
    rule,
    declared,
    standing.map((s) => s.net),
    filled,
  );
  const { say, source, error } = NET_RULES[rule];
  const tone = verdict?.passes === false ? "text-berry" : verdict?.passes ? "text-sage" : "text-honey";
  return (
    <div>
      {verdict && (
        <div role="status" className={`font-semibold ${tone}`}>
          {verdict.says.map((s) => (
            <p key={s}>{s}</p>
          ))}
        </div>
      )}
      <ol className="mt-1.5 flex flex-wrap gap-1.5" aria-label={`Net weights of ${grams(declared)}`}>
        {samples.map((s) => {
          const at = standing.indexOf(s);
          const short = at >= 0 && verdict?.short.includes(at);
          const looks = s.struckAt
            ? "border-rule text-pine-soft line-through"
            : short
              ? "border-berry bg-berry-wash text-berry"
              : "border-rule-strong";
          return (
            <li key={s.id} className={`weight flex items-center gap-1 rounded border px-2 py-0.5 ${looks}`}>
              {grams(s.net, 1)}
              {short && <span className="sr-only"> too light</span>}
              {strike && !s.struckAt && (
                <button
                  type="button"
                  className="pressable px-1 no-underline!"
                  aria-label={`Strike out ${grams(s.net, 1)}`}
                  onClick={() => strike(s.id)}
                >
                  ×
                </button>
              )}
            </li>
          );
        })}
      </ol>
      {verdict && (
        <p className="mt-1.5 text-small text-pine-soft">
          By the rule of the {say} ({source}): {error} of {grams(verdict.error)}, so none below {grams(verdict.least)}; {verdict.weighed} of{" "}
          {verdict.wanted} weighed. What is lawful where you sell is for local rules.
        </p>
      )}
    </div>
  );
}
