/** The bench, one step at a time: what there is to do down the side, and the one at hand large enough to be read from across the table. */
import { Link } from "react-router";
import { isWhipped } from "#core/batch/planning/whip";
import { readSteps } from "#core/recipe/method";
import { wordList } from "#core/words";
import { useEffect, useRef, useState } from "react";
import { useKey } from "../../ui/frame/useKey.ts";
import { Caution, Heading } from "../../ui/sheet/sheet.tsx";
import { useDevices } from "../../devices/useDevices.ts";
import type { AtBenchLoaded } from "./loaded.ts";
import { backToStep, STEP_ID } from "./focus.ts";
import { Happened } from "./happened.tsx";
import { MethodStep } from "./method/methodStep.tsx";
import { LadleStep } from "./parts/ladleStep.tsx";
import { PartsStep } from "./parts/partsStep.tsx";
import { PourStep } from "./pourStep.tsx";
import { PotStep } from "./weighing/potStep.tsx";
import { isMore } from "./weighing/pot.ts";
import { SpoonStep } from "./method/spoonStep.tsx";
import { useAwake } from "./useAwake.ts";
import { WhipStep } from "./method/whipStep.tsx";
import { WeighStep } from "./weighing/weighStep.tsx";

type Step =
  | { is: "pot"; name: string; done: boolean }
  | { is: "weigh"; name: string; done: boolean; line: number }
  | { is: "method"; name: string; done: boolean; at: number; text: string }
  | { is: "spoon"; name: string; done: boolean }
  | { is: "parts"; name: string; done: boolean }
  | { is: "ladle"; name: string; done: boolean; sizeId: number }
  | { is: "whip"; name: string; done: boolean }
  | { is: "pour"; name: string; done: boolean };

/** The title of a weighing: an addition to the pot says so, and what goes into a part names the part. */
const calledAt = ({ takes, sizes }: AtBenchLoaded, line: number): string => {
  const { material, sizeId } = takes[line]!;
  if (sizeId !== null) return `${material}, into ${sizes.find((s) => s.id === sizeId)!.label}`;
  return isMore(takes, line) ? `… and more ${material}` : material;
};

/** Everything there is to do, in order. */
function stepsOf(page: AtBenchLoaded): Step[] {
  const { batch, takes, recipe, events, sizes, parts } = page;
  const whipped = isWhipped(recipe);
  const weigh = takes.map((t, line) => ({ is: "weigh" as const, name: calledAt(page, line), done: t.weighed !== null, line }));
  const done = new Set(events.flatMap((e) => (e.kind === "step" && e.struckAt === null && e.step !== null ? [e.step] : [])));
  return [
    { is: "pot", name: "The empty pot", done: batch.vessel !== null || takes.some((t) => t.weighed !== null) },
    ...weigh.filter((w) => takes[w.line]!.sizeId === null),
    ...readSteps(recipe.method).map(({ text }, at) => ({ is: "method" as const, name: text, done: done.has(at), at, text })),
    { is: "spoon", name: "A drop on a cold spoon", done: events.some((e) => e.kind === "test" && e.struckAt === null) },
    { is: "parts", name: "In parts, if you like", done: sizes.some((s) => s.partOf !== null) },
    // Nobody has to weigh what is ladled out: once something is stirred into it, it isn't asked for any more.
    ...parts.flatMap(({ sizeId, label, ladled }) => {
      const own = weigh.filter((w) => takes[w.line]!.sizeId === sizeId);
      const done = ladled !== null || own.some((w) => w.done);
      return [{ is: "ladle" as const, name: `Ladle out for ${label}`, done, sizeId }, ...own];
    }),
    ...(whipped
      ? [{ is: "whip" as const, name: "Chill and whip", done: events.some((e) => e.kind === "cupAfter" && e.struckAt === null) }]
      : []),
    { is: "pour", name: whipped ? "Fill and count" : "Pour and count", done: false },
  ];
}

/** A step's key, the same however many steps are before it: lines are added while a batch is made. */
function keysOf(steps: readonly Step[], takes: AtBenchLoaded["takes"]): string[] {
  const seen = new Map<string, number>();
  return steps.map((s) => {
    const t = s.is === "weigh" ? takes[s.line]! : null;
    const of = s.is === "method" ? s.at : s.is === "ladle" ? s.sizeId : "";
    const key = t ? `weigh ${t.position} ${t.lotId}` : `${s.is} ${of}`;
    const nth = seen.get(key) ?? 0;
    seen.set(key, nth + 1);
    return `${key} ${nth}`;
  });
}

export function AtBench(page: AtBenchLoaded) {
  const { batch, recipe, sizes } = page;
  const steps = stepsOf(page);
  const keys = keysOf(steps, page.takes);
  // The step that was chosen, or the one that was just done: then it is the first after it that is left, and what was passed over comes last.
  const [chosen, choose] = useState<{ at: string; done: boolean } | null>(null);
  const was = chosen === null ? -1 : keys.indexOf(chosen.at);
  // Nobody has to pour in parts: that is gone to, and never comes by itself.
  const left = steps.flatMap((s, i) => (s.done || i === was || s.is === "parts" ? [] : [i]));
  const at = chosen !== null && !chosen.done && was >= 0 ? was : (left.find((i) => i > was && i < steps.length - 1) ?? left[0]!);
  const step = steps[at]!;
  const devices = useDevices(page.shows);
  useAwake();
  const go = (to: number): void => choose({ at: keys[Math.max(0, Math.min(steps.length - 1, to))]!, done: false });
  // What was saved leads on, unless a hand has gone elsewhere while it was.
  const next = (): void => choose((now) => (now === chosen ? { at: keys[at]!, done: true } : now));
  // Another step is another place for the keys; the page itself takes nobody's.
  const key = keys[at];
  const before = useRef(key);
  useEffect(() => {
    if (before.current !== key) backToStep();
    before.current = key;
  }, [key]);
  useKey("ArrowRight", () => go(at + 1));
  useKey("ArrowLeft", () => go(at - 1));
  const common = { page, devices, next };
  return (
    <>
      <Heading
        title={recipe.name}
        about={`At the bench: ${wordList(sizes.flatMap((s) => (s.planned > 0 ? [`${s.planned} × ${s.label}`] : [])))}, by version ${recipe.n}.`}
      >
        <Link to={`/bench/${batch.id}`} className="act">
          The whole sheet
        </Link>
      </Heading>
      <div className="grid items-start gap-6 lg:grid-cols-[15rem_minmax(0,1fr)]">
        <nav aria-label="Steps" className="no-print max-lg:order-2">
          <ol className="divide-y divide-rule border-y border-rule">
            {steps.map((s, i) => (
              <li key={keys[i]}>
                <button
                  type="button"
                  aria-current={i === at ? "step" : undefined}
                  className="flex min-h-11 w-full items-center gap-2.5 px-1.5 py-1 text-left hover:bg-honey-wash aria-[current]:bg-honey-wash aria-[current]:font-semibold"
                  onClick={() => go(i)}
                >
                  <Tick done={s.done} />
                  <span className="line-clamp-2 text-small leading-snug">{s.name}</span>
                </button>
              </li>
            ))}
          </ol>
        </nav>
        <div className="min-w-0">
          <section
            id={STEP_ID}
            tabIndex={-1}
            aria-label="The step at hand"
            className="sheet rounded-md outline-none border border-rule bg-sheet px-5 py-5 shadow-sheet sm:px-8 sm:py-6"
          >
            <p className="mb-2 flex items-center justify-between text-pine-soft">
              <span>
                Step {at + 1} of {steps.length}
              </span>
              <span className="flex gap-2">
                <button type="button" className="act act-small" aria-label="The step before" disabled={at === 0} onClick={() => go(at - 1)}>
                  ←
                </button>
                <button
                  type="button"
                  className="act act-small"
                  aria-label="The step after"
                  disabled={at === steps.length - 1}
                  onClick={() => go(at + 1)}
                >
                  →
                </button>
              </span>
            </p>
            {step.is === "pot" && <PotStep {...common} />}
            {step.is === "weigh" && <WeighStep key={keys[at]} {...common} line={step.line} />}
            {step.is === "method" && <MethodStep key={step.at} {...common} at={step.at} text={step.text} done={step.done} />}
            {step.is === "spoon" && <SpoonStep page={page} next={next} done={step.done} />}
            {step.is === "ladle" && <LadleStep key={step.sizeId} {...common} sizeId={step.sizeId} />}
            {step.is === "parts" && <PartsStep page={page} next={next} />}
            {step.is === "whip" && <WhipStep page={page} devices={devices} next={next} done={step.done} />}
            {step.is === "pour" && (
              <PourStep
                page={page}
                devices={devices}
                open={steps.filter((s) => !s.done && s.is !== "pour" && s.is !== "parts").map((s) => s.name)}
                inParts={() => go(steps.findIndex((s) => s.is === "parts"))}
              />
            )}
          </section>
          <Happened page={page} />
          <div className="mt-5">
            <Caution>Never leave hot wax or put it over a flame. Dry tools: a drop of water spoils the batch.</Caution>
          </div>
        </div>
      </div>
    </>
  );
}

function Tick({ done }: { done: boolean }) {
  return (
    <span
      className={`grid h-5 w-5 flex-none place-items-center rounded-full border-[1.5px] ${done ? "border-sage bg-sage text-sheet" : "border-rule-strong"}`}
    >
      {done && (
        <svg aria-hidden="true" viewBox="0 0 12 12" className="h-3 w-3" fill="none" stroke="currentColor" strokeWidth="2.2">
          <path d="m2.5 6.5 2.5 2.5 4.5-5.5" />
        </svg>
      )}
      <span className="sr-only">{done ? "done" : "to do"}</span>
    </span>
  );
}
