/** Harvests and jars of the demo workshop, done through the commands a maker's presses call. */
import { expectedBack, OIL_RETAINED } from "#core/infusion/absorption";
import { METHODS, readyDays } from "#core/infusion/methods";
import { mg, type Mg } from "#core/measure/exact";
import { addDays } from "#core/when";
import { planTakes, stockOnHand } from "#core/stock/shelf";
import { fillJar, tend } from "#db/jars/fill";
import { spoilJar, strainJar } from "#db/jars/strain";
import { lotsOfMaterials } from "#db/ledger/lots";
import { finishHarvest, pick, weighHarvest } from "#db/shelf/harvests";
import { HARVESTS, JARS } from "./jars.ts";
import { MATERIALS, type MaterialKey } from "./materials.ts";
import { idIn, type DemoEvent, type World } from "./world.ts";

const g = (grams: number): Mg => mg(grams * 1000);

/** Each harvest as its picking, its weighings and its end. */
export const harvestEvents = (w: World): DemoEvent[] =>
  HARVESTS.flatMap((h) => {
    let harvestId = 0;
    const on = (after: number) => addDays(w.today, after - h.daysAgo);
    const { dried } = h;
    return [
      {
        daysAgo: h.daysAgo,
        run: async () => {
          harvestId = idIn(
            await pick(
              w.db,
              {
                materialId: w.materials[h.herb],
                picked: on(0),
                place: h.place,
                fresh: g(h.fresh),
                method: h.method,
                celsius: h.celsius ?? null,
                minutes: h.minutes,
                note: "",
              },
              { day: on(0) },
            ),
          );
        },
      },
      ...h.checks.map(([after, weight]) => ({
        daysAgo: h.daysAgo - after,
        run: () =>
          weighHarvest(w.db, { harvestId, day: on(after), weight: g(weight), celsius: h.celsius ?? null, note: "" }, { day: on(after) }),
      })),
      ...(dried
        ? [
            {
              daysAgo: h.daysAgo - dried.daysAfter,
              run: () =>
                finishHarvest(
                  w.db,
                  { harvestId, dry: g(dried.grams), snaps: dried.snaps, minutes: h.minutes, valuedBy: dried.valuedBy, market: null },
                  { day: on(dried.daysAfter) },
                ),
            },
          ]
        : []),
    ];
  });

/** Use-first parts of a jar; a draw over two lots becomes two parts. */
async function partsFor(
  w: World,
  role: "herb" | "carrier",
  key: MaterialKey,
  grams: number,
  day: string,
  cut: (typeof JARS)[number]["cut"] | null,
) {
  const materialId = w.materials[key];
  const [plan] = planTakes([{ of: materialId, amount: g(grams) }], stockOnHand(await lotsOfMaterials(w.db, [materialId]), day));
  if (plan!.short > 0) throw new Error(`demo data: ${plan!.short} mg short of ${MATERIALS[key].name} on ${day}`);
  return plan!.takes.map((t) => ({ role, materialId, lotId: t.lotId, cut, qty: mg(t.amount) }));
}

/** Each jar as its filling, its shakes, and its straining or its end. */
export const jarEvents = (w: World): DemoEvent[] =>
  JARS.flatMap((j) => {
    let jarId = 0;
    const day = addDays(w.today, -j.daysAgo);
    const { strained, spoiled } = j;
    const events: DemoEvent[] = [
      {
        daysAgo: j.daysAgo,
        run: async () => {
          const heated = METHODS[j.method].heat === "gentle";
          jarId = idIn(
            await fillJar(
              w.db,
              {
                name: j.oil ? MATERIALS[j.oil].name : j.name!,
                method: j.method,
                methodName: "",
                vessel: j.vessel,
                vesselMl: j.vesselMl,
                fillMl: j.oilGrams / 0.915 + j.herbGrams / 1.4,
                looseMl: null,
                day,
                ready: readyDays(day, METHODS[j.method].times),
                wished: null,
                heatMinutes: heated ? METHODS[j.method].times.best * 60 : null,
                why: "",
                note: j.note ?? "",
                expected: expectedBack(g(j.oilGrams), [{ herb: g(j.herbGrams), perGram: OIL_RETAINED[j.cut] }], false),
                parts: [
                  ...(await partsFor(w, "herb", j.herb, j.herbGrams, day, j.cut)),
                  ...(await partsFor(w, "carrier", j.carrier, j.oilGrams, day, null)),
                ],
              },
              { day },
            ),
          );
        },
      },
      ...(j.shaken ?? []).map((daysAgo) => ({
        daysAgo,
        run: () => tend(w.db, { jarIds: [jarId], kind: "shaken" }, { day: addDays(w.today, -daysAgo) }),
      })),
    ];
    if (strained)
      events.push({
        daysAgo: j.daysAgo - strained.daysAfter,
        run: () =>
          strainJar(
            w.db,
            {
              jarId,
              back: g(strained.back),
              secondBack: null,
              sediment: g(strained.sediment ?? 0),
              herbOut: null,
              pressed: strained.pressed ?? false,
              bottles: strained.bottles.map(g),
            },
            { day: addDays(day, strained.daysAfter) },
          ),
      });
    if (spoiled)
      events.push({
        daysAgo: j.daysAgo - spoiled.daysAfter,
        run: () => spoilJar(w.db, { jarId, why: spoiled.why }, { day: addDays(day, spoiled.daysAfter) }),
      });
    return events;
  });
