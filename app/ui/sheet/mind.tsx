/** Cautions of something made: its allergens, and whom it isn't for. It warns, and never clears. */
import { MINDED_FROM, mindedLines, type Minded } from "#core/material/minded";
import { wordList } from "#core/words";

export function Mind({ of: minded }: { of: Minded }) {
  const rows = mindedLines(minded);
  return (
    <>
      {rows.length === 0 ? (
        <p className="text-pine-soft">None that Zelbin knows of.</p>
      ) : (
        <dl className="grid gap-x-5 gap-y-2 sm:grid-cols-[13rem_1fr]">
          {rows.map(({ head, of, say }) => (
            <div key={head} className="sm:col-span-2 sm:grid sm:grid-cols-subgrid">
              <dt className="font-semibold first-letter:uppercase">{head}</dt>
              <dd>
                {wordList(of)}. <span className="text-pine-soft">{say}</span>
              </dd>
            </div>
          ))}
        </dl>
      )}
      <p className="mt-2 text-fine text-pine-soft">{MINDED_FROM}</p>
    </>
  );
}
