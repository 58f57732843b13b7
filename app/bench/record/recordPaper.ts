/** A batch's record on paper: what was weighed, filled and lost, what went otherwise than planned, how it was made, checked, and what is to be minded. */
import { deviations } from "#core/batch/finishing/deviations";
import { amiss, VERDICTS } from "#core/batch/finishing/check";
import { judgeNet } from "#core/batch/finishing/netWeight";
import type { PourResult } from "#core/batch/finishing/result";
import { stuckTo, WEIGHED_BY } from "#core/batch/weighing/events";
import { FINE } from "#core/batch/weighing/weighingFixes";
import { MINDED_FROM, mindedLines, type Minded } from "#core/material/minded";
import { grams, gramsIn } from "#core/measure/write";
import { wordList } from "#core/words";
import type { Check } from "#db/bench/finishing/check";
import type { Plan } from "#db/bench/planning/plan";
import type { BatchSheet } from "#db/bench/read";
import type { Cell, Paper, Part, Table } from "../../paper/paper.ts";
import type { Said } from "../../paper/pdf.server.ts";
import { percent } from "../../ui/figures/amounts.tsx";
import { sayEvent } from "../eventLine.tsx";
import { rowsAgainstPlan } from "./againstPlan.tsx";
import { onItsDay } from "./onItsDay.ts";
import type { HowMade } from "./recordMade.tsx";

interface Recorded {
  sheet: BatchSheet;
  made: HowMade;
}

const weighedIn = ({ batch, takes, sizes, lots }: BatchSheet, { time }: Said): Table => ({
  columns: [
    { head: "Material" },
    { head: "Lot", as: "lot" },
    { head: "Planned", as: "weight" },
    { head: "Weighed", as: "weight" },
    { head: "When" },
    { head: "Off by", as: "weight" },
  ],
  groups: [
    {
      rows: takes.map((t): Cell[] => {
        const into = sizes.find((s) => s.id === t.sizeId);
        const off = (t.weighed ?? 0) - t.planned;
        return [
          { text: t.material, note: into && `into ${into.label}` },
          lots.find((l) => l.id === t.lotId)?.number ?? "",
          gramsIn(1)(t.planned),
          gramsIn(1)(t.weighed ?? 0),
          t.weighedBy ? [onItsDay(batch.day, t.weighedAt) && time(t.weighedAt!), WEIGHED_BY[t.weighedBy]].filter(Boolean).join(" ") : "",
          Math.abs(off) < 50 ? "" : `${off > 0 ? "+" : "−"}${gramsIn(1)(Math.abs(off))}`,
        ];
      }),
    },
  ],
});

/** What happened at the bench, and what was weighed of the filled ones. */
function production({ sheet: { batch, sizes }, made: { events, samples, netRule } }: Recorded, { time }: Said): Part[] {
  const stuck = stuckTo(batch.vessel, events);
  const ladled = sizes.flatMap((s) => (s.ladled === null ? [] : [`${grams(s.ladled)} for ${s.label}`]));
  const parts: Part[] = [];
  if (batch.vessel !== null)
    parts.push({
      text: `The empty pot weighed ${grams(batch.vessel)}${stuck === null ? "" : `; ${grams(stuck)} stuck to it and what stood in it`}.`,
    });
  if (ladled.length > 0) parts.push({ text: `Ladled out of the pot: ${wordList(ladled)}.` });
  if (events.length > 0)
    parts.push({
      columns: [{ head: "When" }, { head: "What" }, { head: "Who" }],
      groups: [{ rows: events.map((e): Cell[] => [time(e.at), { text: sayEvent(e), note: e.struckAt ? "struck out" : "" }, e.who]) }],
    });
  const nets = sizes.flatMap((s): Part[] => {
    const counted = samples.filter((x) => x.sizeId === s.id && x.struckAt === null).map((x) => x.net);
    if (counted.length === 0) return [];
    const verdict = judgeNet(netRule, s.fill, counted, s.units ?? 0);
    return [{ text: `Net weights of ${s.label}: ${counted.map((n) => grams(n, 1)).join(", ")}. ${verdict?.says.join(" ") ?? ""}` }];
  });
  return [
    ...(parts.length > 0 ? [{ heading: "Production" }, ...parts] : []),
    ...(nets.length > 0 ? [{ heading: "Net weights" }, ...nets] : []),
  ];
}

const cautions = (minded: Minded): Part[] => [
  { heading: "Cautions" },
  ...mindedLines(minded).map(({ head, of, say }): Part => ({ text: `${head}: ${wordList(of)}. ${say}` })),
  ...(mindedLines(minded).length === 0 ? [{ text: "None that Zelbin knows of." }] : []),
  { text: MINDED_FROM, as: "soft" },
];

const words = (heading: string, text: string): Part[] => (text ? [{ heading }, { text }] : []);

interface Poured extends Recorded {
  result: PourResult;
  plan: Plan | null;
  checks: readonly Check[];
  minded: Minded;
}

export function recordPaper({ sheet, made, result, plan, checks, minded }: Poured, said: Said): Paper {
  const { day, settings } = said;
  const { batch, recipe, sizes, takes } = sheet;
  const filled = sizes.filter((s) => s.units);
  const units = sizes.reduce((a, s) => a + (s.units ?? 0), 0);
  const off = deviations(takes, sizes, batch.scaleStep ?? FINE);
  return {
    title: recipe.name,
    file: `batch-${filled[0]?.lot?.number ?? batch.id}`,
    about: `Batch record. Poured ${day(batch.day)}, by version ${recipe.n}`,
    parts: [
      {
        columns: [
          { head: "Lot", as: "lot" },
          { head: "Size" },
          { head: "Filled", as: "figure" },
          { head: "Best before" },
          { head: "Cost of one", as: "figure" },
        ],
        groups: [
          {
            rows: filled.map((s, i): Cell[] => [
              { text: s.lot?.number ?? "", note: s.lot?.holdReason ? `On hold: ${s.lot.holdReason}` : "" },
              s.label,
              String(s.units),
              day(s.lot?.bestBefore ?? null),
              said.money(result.perUnit[i]!.total),
            ]),
          },
        ],
      },
      ...(checks.length > 0
        ? [
            { heading: "Checked" },
            {
              columns: [{ head: "Day" }, { head: "What was found" }, { head: "Who" }],
              groups: [
                {
                  rows: checks.map((c): Cell[] => [
                    day(c.day),
                    {
                      text: VERDICTS[c.verdict],
                      strong: true,
                      note: [wordList(amiss(c, units)) || "nothing amiss", `${c.labelled} of ${units} labelled`, c.note]
                        .filter(Boolean)
                        .join("; "),
                    },
                    c.who,
                  ]),
                },
              ],
            },
          ]
        : []),
      { heading: "Weighed" },
      weighedIn(sheet, said),
      {
        facts: [
          ["Yield", percent(result.yield)],
          ["Left in the jug", grams(batch.leftover ?? 0)],
          ["Lost in pot and jug", `${grams(result.lost)}, ${percent(result.lostShare)}`],
        ],
      },
      ...(plan?.result
        ? [
            { heading: "Against the plan" },
            {
              columns: [
                { head: "Of this batch" },
                { head: "Planned", as: "figure" as const },
                { head: "Was", as: "figure" as const },
                { head: "Off by", as: "figure" as const },
              ],
              groups: [
                {
                  rows: rowsAgainstPlan(sheet, { ...plan, result: plan.result }, result, settings.currency).map((r): Cell[] => [
                    r.what,
                    r.plan,
                    r.was,
                    r.off,
                  ]),
                },
              ],
            },
          ]
        : []),
      ...production({ sheet, made }, said),
      { heading: "Deviations" },
      { text: off.length === 0 ? "None: every weight within a hundredth of what was planned, and filled as planned." : off.join("\n") },
      ...cautions(minded),
      ...words("What happened", batch.note),
      ...words("Method", recipe.method),
    ],
  };
}

/** Of a batch that failed: what was in it, what went with it, and why. */
export function spoiledPaper({ sheet, made, lost }: Recorded & { lost: number }, said: Said): Paper {
  const { batch, recipe, sizes, lots } = sheet;
  return {
    title: recipe.name,
    file: `batch-${batch.id}`,
    about: `Written off; set out ${said.day(batch.day)}, by version ${recipe.n}`,
    parts: [
      { text: `It failed: ${batch.spoiledWhy}`, as: "caution" },
      {
        facts: [
          ["Gone with it", said.money(lost)],
          ["Planned", sizes.map((s) => `${s.planned} × ${s.label}`).join(", ")],
        ],
      },
      { heading: "Weighed" },
      {
        columns: [{ head: "Material" }, { head: "Lot", as: "lot" }, { head: "Weighed", as: "weight" }],
        groups: [
          {
            rows: sheet.takes
              .filter((t) => t.weighed)
              .map((t): Cell[] => [t.material, lots.find((l) => l.id === t.lotId)?.number ?? "", gramsIn(1)(t.weighed!)]),
          },
        ],
      },
      ...production({ sheet: { ...sheet, sizes: [] }, made }, said),
    ],
  };
}
