/** Word for word: what the opening stock sheet says of its lines, and the state of the first steps. */
import { it } from "vitest";
import { nextStep, STEP_IDS, stepsOf, type Begun } from "#core/settings/firstSteps";
import { libraryByName } from "#core/material/library";
import { readOpening, type OpeningTexts } from "#core/stock/openingSheet";
import { workshopOf } from "#core/workshop";
import { expectWording } from "./expectWording.ts";

const line = (over: Partial<OpeningTexts>): OpeningTexts => ({
  material: "Jojoba oil",
  amount: "500 g",
  cost: "",
  known: "paid",
  bought: "",
  supplierLot: "",
  bestBefore: "",
  ...over,
});
const TODAY = "2026-05-04";

it("a line of opening stock", () =>
  expectWording(
    "shelf/opening",
    (
      [
        ["as bought", { cost: "12.50", bought: "2026-05-04", supplierLot: " L-7 ", bestBefore: "2027-01-31" }],
        ["a guess", { cost: "9", known: "guessed" }],
        ["nobody knows", { known: "guessed" }],
        ["by volume", { amount: "1 L" }],
        ["counted", { material: "Round label, 50 mm", amount: "100" }],
        ["only its name", { amount: "" }],
        ["nothing of it", { amount: "0 g" }],
        ["a cost and no amount", { amount: "", cost: "3" }],
        ["no name", { material: " " }],
        ["no such thing", { material: "Moon dust" }],
        ["no unit", { amount: "500" }],
        ["no money", { cost: "much" }],
        ["tomorrow", { bought: "2026-05-05" }],
        ["no day", { bestBefore: "soon" }],
        ["all of it wrong", { amount: "some", cost: "much", bought: "then", bestBefore: "soon" }],
      ] as const
    ).map(([asked, over]) => {
      const { lines, problems } = readOpening([line(over)], libraryByName, TODAY);
      const read = lines[0] && { ...lines[0], material: lines[0].material.name };
      return [asked, problems.length > 0 ? problems : read] as const;
    }),
  ));

it("the first steps", () => {
  const none: Begun = { materials: false, containers: false, opening: false, recipe: false, batch: false, price: false };
  const all = Object.fromEntries(Object.keys(none).map((k) => [k, true])) as Begun;
  const said = (passed: string[], begun: Begun) => {
    const steps = stepsOf({ passed, away: false }, begun);
    return [
      steps.map((s) => `${s.id} ${s.state}`).join(", "),
      `next: ${nextStep(steps)}`,
      `after materials: ${nextStep(steps, "materials")}`,
    ];
  };
  return expectWording("workroom/firstSteps", [
    ["nothing yet", said([], none)],
    ["named, the scale passed over", said(["name", "work"], none)],
    ["a step passed over stays open to be found", said(["materials"], none)],
    ["what is there is done, passed over or not", said(["recipe"], { ...none, recipe: true, containers: true })],
    ["all of it in the books", said([...STEP_IDS], all)],
    ["all but what only the maker can say", said([], all)],
    [
      "addresses",
      ["/", "/own", "/own/", "/own/shelf", "/owner", "/demo.data", "/demo/_root.data", "/shelf/own"].map((p) => `${p} ${workshopOf(p)}`),
    ],
  ]);
});
