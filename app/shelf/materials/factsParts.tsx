/** Parts of a material's facts: what it weighs, how it keeps, what a container holds, what to mind. */
import { CAUTIONS, CAUTION_IDS } from "#core/material/cautions";
import { roundCapacityMl } from "#core/material/container";
import type { Kind } from "#core/material/kinds";
import { isFelt, SCENT_NOTES, SKIN_FEELS, SMELLS } from "#core/material/senses";
import { FORMS } from "#core/measure/mass";
import { readPlain } from "#core/measure/read";
import { writeNumber } from "#core/numbers";
import { isScent } from "#core/scent/dilution";
import { FindText } from "../../names/combo.tsx";
import { LIDS } from "../../names/finds.ts";
import { Choice, Text } from "../../ui/fields/form.tsx";
import { Part } from "../../ui/sheet/sheet.tsx";
import type { FactsSheet } from "./factsText.ts";

const RIGHT = "[&_input]:text-right";

export function Densities({ sheet, kind }: { sheet: FactsSheet; kind: Kind }) {
  const { errors } = sheet.formState;
  return (
    <Part title="What it weighs">
      <p className="mb-3 text-pine-soft">
        Cups and spoons become grams through these. A cup of pellets holds about half the wax of a cup of melted wax, so each form has its
        own. The figures put in for you are typical ones, from memory; weigh a level cup of yours to be sure.
      </p>
      <div className="grid gap-4 sm:grid-cols-4">
        {kind.forms.map((f) => (
          <Text
            data-amount="decimal"
            key={f}
            label={`${FORMS[f][0]!.toUpperCase()}${FORMS[f].slice(1)}, g per mL`}
            className={RIGHT}
            {...sheet.register(`densities.${f}`)}
            problem={errors.densities?.[f]?.message}
          />
        ))}
        {kind.forms.includes("liquid") && (
          <Text
            data-amount="decimal"
            label="Drops per mL"
            placeholder="such as 20"
            hint="A pipette gives about 20, an orifice bottle 25 to 35."
            className={RIGHT}
            {...sheet.register("dropsPerMl")}
            problem={errors.dropsPerMl?.message}
          />
        )}
        <Text
          data-amount
          label="One piece weighs"
          placeholder="such as 0.35 g"
          hint="For capsules and the like."
          className={RIGHT}
          {...sheet.register("piece")}
          problem={errors.piece?.message}
        />
        {!kind.forms.includes("dried") && !kind.forms.includes("powder") && (
          <>
            <Text
              data-amount="decimal"
              label="Melts from, °C"
              className={RIGHT}
              {...sheet.register("meltFrom")}
              problem={errors.meltFrom?.message}
            />
            <Text data-amount="decimal" label="to, °C" className={RIGHT} {...sheet.register("meltTo")} problem={errors.meltTo?.message} />
          </>
        )}
      </div>
    </Part>
  );
}

/** The place of a scent in a blend; the feel and smell of what a product is made of. */
export function Senses({ sheet }: { sheet: FactsSheet }) {
  const { kind } = sheet.values;
  const scent = isScent({ kind });
  if (!scent && !isFelt({ kind })) return null;
  return (
    <Part title={scent ? "In a blend" : "To hand and nose"}>
      <div className="grid gap-4 sm:grid-cols-3">
        {scent ? (
          <Choice label="Top, middle or base" options={Object.entries(SCENT_NOTES)} {...sheet.register("scentNote")} />
        ) : (
          <>
            <Choice label="On the skin" options={Object.entries(SKIN_FEELS)} {...sheet.register("feel")} />
            <Choice label="Smells" options={Object.entries(SMELLS)} {...sheet.register("smell")} />
          </>
        )}
      </div>
    </Part>
  );
}

export function Keeping({ sheet, ingredient, kept }: { sheet: FactsSheet; ingredient: boolean; kept: [string, string][] }) {
  const { errors } = sheet.formState;
  return (
    <Part title="How it keeps">
      <div className="grid gap-4 sm:grid-cols-3">
        <Text
          data-amount
          label="Unopened, months"
          className={RIGHT}
          {...sheet.register("keepsSealed")}
          problem={errors.keepsSealed?.message}
        />
        <Text
          data-amount
          label="Once opened, months"
          className={RIGHT}
          {...sheet.register("keepsOpened")}
          problem={errors.keepsOpened?.message}
        />
        <Choice label="Storage" options={kept} {...sheet.register("kept")} />
        {ingredient && (
          <>
            <Choice
              label="Vegan"
              options={[
                ["", "not said"],
                ["yes", "yes"],
                ["no", "no"],
              ]}
              {...sheet.register("vegan")}
            />
            <Choice
              label="Refined"
              options={[
                ["", "not said"],
                ["unrefined", "unrefined"],
                ["refined", "refined"],
              ]}
              {...sheet.register("refined")}
            />
          </>
        )}
      </div>
    </Part>
  );
}

const positive = (t: string): number | null => {
  const n = readPlain(t);
  return n.ok && n.value > 0 ? n.value : null;
};

export function ContainerFacts({ sheet }: { sheet: FactsSheet }) {
  const { errors } = sheet.formState;
  const [inner, fill] = [positive(sheet.values.inner), positive(sheet.values.fill)];
  const ml = inner !== null && fill !== null ? roundCapacityMl(inner, fill) : null;
  return (
    <Part title="What it holds">
      <p className="mb-3 text-pine-soft">
        A tin is often known only by its outer size. Measure its inner diameter and how high you fill it, and its capacity follows; or weigh
        it full of water: a gram is a mL.
      </p>
      <div className="grid gap-4 sm:grid-cols-4">
        <Text
          data-amount="decimal"
          label="Inner diameter, mm"
          className={RIGHT}
          {...sheet.register("inner")}
          problem={errors.inner?.message}
        />
        <Text
          data-amount="decimal"
          label="Filled to a height of, mm"
          className={RIGHT}
          {...sheet.register("fill")}
          problem={errors.fill?.message}
        />
        <div className="self-end pb-2 sm:col-span-2">
          {ml !== null && (
            <p role="status">
              So it holds <strong>{writeNumber(ml, 0, 1)} mL</strong>, about {writeNumber(ml * 0.9, 0, 0)} g of melted balm.
            </p>
          )}
        </div>
        <Text
          data-amount
          label="Usable, measured"
          placeholder="such as 80 mL"
          className={RIGHT}
          {...sheet.register("usable")}
          problem={errors.usable?.message}
        />
        <Text
          data-amount
          label="To the brim"
          placeholder="such as 86 mL"
          className={RIGHT}
          {...sheet.register("brim")}
          problem={errors.brim?.message}
        />
        <Text
          data-amount
          label="Empty, it weighs"
          placeholder="such as 14 g"
          className={RIGHT}
          {...sheet.register("empty")}
          problem={errors.empty?.message}
        />
        <Text label="Made of" placeholder="such as aluminium, lacquered" {...sheet.register("madeOf")} problem={errors.madeOf?.message} />
        <FindText
          control={sheet.control}
          name="lid"
          finds={LIDS}
          label="The lid that fits"
          className="sm:col-span-2"
          problem={errors.lid?.message}
        />
      </div>
    </Part>
  );
}

export function Cautions({ sheet }: { sheet: FactsSheet }) {
  return (
    <fieldset>
      <legend className="mb-1 text-small font-semibold">Cautions</legend>
      <div className="grid gap-x-6 gap-y-1.5 sm:grid-cols-2">
        {CAUTION_IDS.map((c) => (
          <label key={c} className="flex items-baseline gap-2">
            <input
              type="checkbox"
              value={c}
              defaultChecked={sheet.values.cautions.includes(c)}
              className="h-4 w-4 flex-none accent-amber"
              {...sheet.register("cautions")}
            />
            <span>
              <span className="font-semibold">{CAUTIONS[c].label}</span>{" "}
              <span className="text-small text-pine-soft">{CAUTIONS[c].say}</span>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
