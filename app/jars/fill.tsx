/** Planning a jar and filling it. */
import { mayFill } from "#core/infusion/warnings";
import type { Cut } from "#core/infusion/absorption";
import type { MethodId } from "#core/infusion/methods";
import { lastSteeped } from "#db/jars/giving";
import { fillJar } from "#db/jars/fill";
import { anyMaterial, materialOfLot } from "#db/shelf/materials";
import { today } from "#db/clock";
import { array, object } from "yup";
import { db } from "../server/workshop.server.ts";
import { noteText } from "../forms/fields.ts";
import { idOf } from "../forms/ids.ts";
import { runAct, readSheet, refuseSheet } from "../forms/sheet.server.ts";
import { FillSheet } from "./fillSheet.tsx";
import { namesOn, planOf } from "./jarPlan.ts";
import { jarStuffOf } from "#db/jars/jarStuff";
import type { Route } from "./+types/fill";

export const meta: Route.MetaFunction = () => [{ title: "Fill a jar · Zelbin" }];

/** What the sheet opens with. */
interface Start {
  name: string;
  method: MethodId;
  rows: { role: "herb" | "carrier"; material: string; lot: string; cut: Cut }[];
}

export async function loader({ request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams;
  // A second infusion starts from a bottle, a plan from a herb's sheet from that herb.
  const lotId = idOf(asked.get("lot"));
  const ofLot = lotId ? await materialOfLot(db(), lotId) : null;
  // An oil that runs short is steeped as it was last time.
  const last = asked.has("makes") ? await lastSteeped(db(), idOf(asked.get("makes"))) : null;
  const one = ofLot?.id ?? idOf(asked.get("material"));
  const [of, herbs] = await Promise.all([jarStuffOf(db(), last ? last.parts.map((p) => p.material.id) : [one]), anyMaterial(db(), "herb")]);
  const rows: Start["rows"] = last
    ? last.parts.map(({ role, cut, material }) => ({ role, material: material.name, lot: "", cut: cut ?? "cut" }))
    : of.map((m) => ({
        role: m.kind === "herb" ? "herb" : "carrier",
        material: m.name,
        lot: m.lots.some((l) => l.id === lotId) ? String(lotId) : "",
        cut: "cut",
      }));
  // How long one's own way took is not known here.
  const start: Start = { name: last?.name ?? "", method: last?.method && last.method !== "own" ? last.method : "shelf", rows };
  return {
    stuff: of,
    /** There is no herb at all yet. */
    bare: !herbs,
    start,
    today: today(),
    token: crypto.randomUUID(),
  };
}

const schema = object({
  name: noteText(80),
  method: noteText(20),
  methodName: noteText(80),
  ownDays: noteText(20),
  ownHours: noteText(20),
  day: noteText(20),
  wished: noteText(20),
  by: noteText(20),
  oil: noteText(40),
  ratio: noteText(20),
  herbCups: noteText(40),
  share: noteText(20),
  vessel: noteText(60),
  holds: noteText(40),
  why: noteText(300),
  note: noteText(),
  herbs: array()
    .of(object({ material: noteText(120), lot: noteText(20), cut: noteText(20), parts: noteText(20) }))
    .required(),
  carriers: array()
    .of(object({ material: noteText(120), lot: noteText(20), parts: noteText(20) }))
    .required(),
});

export async function action({ request }: Route.ActionArgs) {
  const sheet = await readSheet(request, schema);
  if (!sheet.ok) return sheet.reply;
  const v = sheet.value;
  const meant = sheet.meant("jar");
  const names = namesOn(v);
  const ids = names.flatMap((name) => meant(name) ?? []);
  const plan = planOf(v, await jarStuffOf(db(), ids, names), today(), meant);
  const may = mayFill(plan.warnings, v.why);
  const problems = may.ok ? plan.problems : [...plan.problems, { field: "why", say: `${may.warning.why} ${may.warning.instead}` }];
  if (problems.length > 0 || !plan.amounts || plan.expected === null)
    return refuseSheet(problems.length ? problems : [{ field: "", say: "The jar can't be worked out yet." }]);
  const { amounts: a, expected } = plan;
  return runAct(() =>
    fillJar(
      db(),
      {
        name: plan.name,
        method: plan.method,
        methodName: plan.method === "own" ? v.methodName : "",
        vessel: v.vessel,
        vesselMl: plan.vesselMl,
        fillMl: a.fillMl,
        looseMl: a.looseMl,
        day: plan.day,
        ready: plan.ready,
        wished: plan.wished,
        heatMinutes: plan.heated ? Math.round(plan.times.best * 60) : null,
        why: v.why,
        note: v.note,
        expected,
        parts: plan.parts.map((p) => ({ role: p.role, materialId: p.material.id, lotId: p.lot.id, cut: p.cut, qty: p.qty! })),
      },
      sheet.doing,
    ),
  );
}

export default function Fill({ loaderData }: Route.ComponentProps) {
  return <FillSheet {...loaderData} />;
}
