/** Pouring a part of the pot as something else: what it is called, how many of it, and what is stirred in. */
import { shareText } from "#core/batch/planning/parts";
import { grams } from "#core/measure/write";
import { wordList } from "#core/words";
import { useFieldArray, useForm } from "react-hook-form";
import { FindText } from "../../../names/combo.tsx";
import { INGREDIENTS } from "../../../names/finds.ts";
import { Claims } from "../../../ui/fields/claims.tsx";
import { Button, Problem, Text } from "../../../ui/fields/form.tsx";
import { PickBox } from "../../../ui/fields/pick.tsx";
import type { AtBenchLoaded } from "../loaded.ts";
import { TooMuchOf } from "./tooMuchOf.tsx";
import { useDid } from "../useDid.ts";

interface Typed {
  sizeId: string;
  name: string;
  units: string;
  additions: { material: string; measure: string }[];
}

/** What parts were called before, with what was stirred in. */
function beforeOf({ variants, sizes }: AtBenchLoaded): Pick<Typed, "name" | "additions">[] {
  const found = new Map<string, Typed["additions"]>();
  const taken = new Set<number>();
  for (const v of variants) {
    const key = v.name.toLowerCase();
    if (sizes.some((s) => s.partOf !== null && s.label.toLowerCase().endsWith(`, ${key}`))) continue;
    // Of two sizes of one name the first says what it is.
    const first = [...found.keys()].find((k) => k.toLowerCase() === key);
    if (first === undefined) {
      found.set(v.name, []);
      taken.add(v.productId);
    }
    if (taken.has(v.productId)) found.get(first ?? v.name)!.push({ material: v.material, measure: shareText(v.ppm) });
  }
  return [...found].map(([name, additions]) => ({ name, additions }));
}

export function PartsStep({ page, next }: { page: AtBenchLoaded; next: () => void }) {
  const { batch, sizes, parts } = page;
  const did = useDid(batch.id);
  const plain = sizes.filter((s) => s.partOf === null && s.planned > 0);
  const before = beforeOf(page);
  const empty: Typed = { sizeId: String(plain[0]?.id ?? ""), name: "", units: "", additions: [{ material: "", measure: "" }] };
  const form = useForm<Typed>({ defaultValues: empty });
  const { fields, append, remove } = useFieldArray({ control: form.control, name: "additions" });
  const size = plain.find((s) => String(s.id) === form.watch("sizeId")) ?? plain[0];
  const again = (name: string, additions: Typed["additions"]): void => {
    form.setValue("name", name);
    form.setValue("additions", additions);
    form.setFocus("units");
  };
  return (
    <>
      <h2 className="font-display text-display leading-tight">Part of it as something else</h2>
      <p className="mt-1 text-pine-soft">
        One base, and a colour, a scent or a mineral stirred into some of it. What you don’t part off is poured as it is.
      </p>
      {parts.length > 0 && (
        <ul className="mt-4 divide-y divide-rule border-y border-rule">
          {parts.map((p) => (
            <li key={p.sizeId} className="grid gap-y-1 py-2.5">
              <p className="flex flex-wrap items-baseline gap-x-4">
                <strong className="font-display text-large">
                  {p.units} × {p.label}
                </strong>
                <span className="min-w-0 flex-1 basis-56">
                  <span className="weight">{grams(p.ladled ?? p.base, 1)}</span> of the base and{" "}
                  {wordList(p.additions.map((a) => `${grams(a.weighed ?? a.planned, 1)} of ${a.material}`))}
                </span>
                <Button small disabled={did.busy} onClick={() => did.keep({ intent: "join", id: p.sizeId })}>
                  Pour it as it is
                </Button>
              </p>
              <TooMuchOf part={p} />
            </li>
          ))}
        </ul>
      )}
      {size ? (
        <form
          className="mt-5"
          onSubmit={(e) =>
            void form.handleSubmit(({ sizeId, additions, ...typed }) => {
              // Rows that were left empty aren't sent; of none the first says what is missing.
              const rows = additions.filter((a) => a.material || a.measure);
              const sent = rows.length > 0 ? rows : additions.slice(0, 1);
              form.setValue("additions", sent);
              did.keep({ intent: "part", ...typed, sizeId: sizeId || String(size.id), additions: sent }, () => {
                form.reset(empty);
                next();
              });
            })(e)
          }
        >
          {before.length > 0 && (
            <p className="mb-3 flex flex-wrap items-baseline gap-x-3 gap-y-1">
              <span className="text-pine-soft">As before:</span>
              {before.map((b) => (
                <button key={b.name} type="button" className="pressable" onClick={() => again(b.name, b.additions)}>
                  {b.name} ({wordList(b.additions.map((a) => `${a.measure} ${a.material}`))})
                </button>
              ))}
            </p>
          )}
          <div className="grid items-start gap-4 sm:grid-cols-[1fr_8rem_1fr]">
            <div>
              <Text
                label="What it is called"
                placeholder="such as rose clay"
                {...form.register("name")}
                problem={did.problemAt("name")}
                hint="Written after the size on its lot."
              />
              <Claims name={form.watch("name")} />
            </div>
            <Text
              data-amount
              label="How many"
              placeholder={`of ${size.planned}`}
              className="[&_input]:text-right"
              {...form.register("units")}
              problem={did.problemAt("units")}
            />
            {plain.length > 1 && (
              <label className="grid gap-1">
                <span>Instead of</span>
                <PickBox
                  aria-label="Instead of"
                  className="field"
                  value={String(size.id)}
                  onValue={(v) => form.setValue("sizeId", v)}
                  options={plain.map((s) => ({ value: String(s.id), name: s.label, aside: String(s.planned) }))}
                />
              </label>
            )}
          </div>
          <fieldset className="mt-4">
            <legend className="font-display text-lead">Stirred in</legend>
            {fields.map((f, i) => (
              <div key={f.id} className="mt-2 grid items-start gap-x-4 gap-y-2 sm:grid-cols-[1fr_10rem_auto]">
                <FindText
                  label={i === 0 ? "Material" : <span className="sr-only">Material {i + 1}</span>}
                  control={form.control}
                  name={`additions.${i}.material`}
                  finds={INGREDIENTS}
                  problem={did.problemAt(`additions.${i}.material`)}
                />
                <Text
                  data-amount
                  label={i === 0 ? "How much" : <span className="sr-only">How much {i + 1}</span>}
                  placeholder="such as 2 % or 6 g"
                  className="[&_input]:text-right"
                  {...form.register(`additions.${i}.measure`)}
                  problem={did.problemAt(`additions.${i}.measure`)}
                />
                {fields.length > 1 && (
                  <button type="button" className="pressable self-center" onClick={() => remove(i)}>
                    Remove
                  </button>
                )}
              </div>
            ))}
            <button type="button" className="pressable mt-2" onClick={() => append({ material: "", measure: "" })}>
              Add another
            </button>
          </fieldset>
          <div className="mt-4 flex flex-wrap gap-2">
            <Button type="submit" main className="text-large" disabled={did.busy}>
              Part it off
            </Button>
            <Button className="text-large" onClick={next}>
              {parts.length > 0 ? "The rest as it is" : "All of it as it is"}
            </Button>
          </div>
        </form>
      ) : (
        <Button main className="mt-5 text-large" onClick={next}>
          All of it is parted off; go on
        </Button>
      )}
      <Problem say={did.problemAt("") ?? did.problemAt("size")} />
    </>
  );
}
