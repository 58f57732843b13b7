/**
 * A recipe as it was found: pasted or from a file, read line by line beside what was written, asked about where it could mean two things, and
 * then put into the sheet. Nothing of the sheet changes until that is pressed.
 */
import { fileOf, readRecipeFile } from "#core/recipe/portable";
import type { Ask, Scribbled } from "#core/recipe/scribbled/read";
import { counted } from "#core/words";
import { Dialog } from "radix-ui";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { useHref } from "react-router";
import { Area, Button, Problem } from "../../ui/fields/form.tsx";
import { Modal } from "../../ui/sheet/modal.tsx";
import { BLANK_LINE, type RecipeTexts } from "../recipeTexts.ts";
import { fromPortable } from "./portableTexts.ts";
import type { ReadThrough } from "./scribbled.ts";

interface Props {
  /** The sheet as it stands. */
  now: () => RecipeTexts;
  put: (texts: RecipeTexts) => void;
  /** What was pasted, kept while this is closed. */
  text: string;
  setText: (text: string) => void;
  /** It was pasted where one name goes, and is read as soon as this opens. */
  readNow: boolean;
}

type Line = Extract<Scribbled, { as: "line" }>;
type Texts = Line["line"];
/** A line on its way: what it says now, what of it was answered, and whether it is left out. */
interface Open {
  line: Texts;
  answered: readonly Ask["field"][];
  out: boolean;
}
const begin = (l: Line): Open => ({ line: l.line, answered: [], out: false });
const openAsks = (l: Line, o: Open): Ask[] => (o.out ? [] : l.asks.filter((a) => !o.answered.includes(a.field)));

export default function PasteRecipe({ now, put, text, setText, readNow, close }: Props & { close: () => void }) {
  const to = useHref("/recipes/scribbled");
  const [busy, setBusy] = useState(false);
  const [problem, say] = useState<string | null>(null);
  const [read, setRead] = useState<ReadThrough | null>(null);
  const [opens, setOpens] = useState<readonly Open[]>([]);
  const lines = read?.lines.filter((l): l is Line => l.as === "line") ?? [];
  const steps = read?.lines.filter((l) => l.as === "step") ?? [];

  const takeFile = (): void => {
    const file = readRecipeFile(text);
    if (!file.ok) {
      say(file.problem.say);
      return;
    }
    put(fromPortable(file.value, now()));
    close();
  };
  const readIt = async (): Promise<void> => {
    say(text.trim() === "" ? "Paste or type a recipe first." : null);
    if (text.trim() === "") return;
    if (fileOf(text)) {
      takeFile();
      return;
    }
    setBusy(true);
    try {
      const r = await fetch(to, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ text }) });
      const answer = (await r.json()) as ReadThrough & { problems?: { say: string }[] };
      if (answer.problems) say(answer.problems[0]?.say ?? "That could not be read.");
      else {
        setRead(answer);
        setOpens(answer.lines.flatMap((l) => (l.as === "line" ? [begin(l)] : [])));
      }
    } catch {
      say("The server doesn't answer. What you pasted is still here; try again in a moment.");
    } finally {
      setBusy(false);
    }
  };
  // Once, and whatever becomes of the text afterwards.
  const begun = useRef(!readNow);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    void readIt();
  });
  const change = (i: number, by: Partial<Open>): void => setOpens((all) => all.map((o, n) => (n === i ? { ...o, ...by } : o)));
  // A title above it all becomes the name of a recipe that has none.
  const [title] = read?.lines ?? [];
  const named = title?.as === "heading" && !title.text.endsWith(":") && now().name === "" ? title : null;
  const left = lines.filter((l, i) => openAsks(l, opens[i]!).length > 0).length;
  const take = lines.flatMap((_, i) => (opens[i]!.out ? [] : [opens[i]!.line]));

  const putIn = (where: "instead" | "below"): void => {
    if (left > 0) {
      say(`${counted(left, "line")} ${left === 1 ? "is" : "are"} still to be answered, or to be left out.`);
      return;
    }
    const t = now();
    const stand = where === "below" ? t.lines.filter((l) => l.material !== "" || l.entered !== "") : [];
    const method = [t.method, ...steps.map((s) => s.text)].filter((s) => s !== "").join("\n");
    const name = named ? named.text.replace(/^#+\s*/, "").slice(0, 80) : t.name;
    put({ ...t, name, method, lines: [...stand, ...take, ...(stand.length + take.length === 0 ? [BLANK_LINE] : [])] });
    close();
  };
  const stands = now().lines.some((l) => l.material !== "" || l.entered !== "");
  // The sheet underneath must not hear of it.
  const quiet = (e: KeyboardEvent): void => e.stopPropagation();
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Modal
        wide
        title="Paste a recipe"
        about={
          read
            ? undefined
            : "The way you found it or scribbled it: cups, ounces, parts, per cent, steps among them. You see what each line is read as before anything is put in."
        }
      >
        <div className="space-y-3" onKeyDown={quiet}>
          {!read ? (
            <>
              <Area
                label="The recipe"
                rows={11}
                autoFocus
                value={text}
                onChange={(e) => setText(e.target.value)}
                placeholder={"1/4 cup grated beeswax, packed\n1 cup calendula oil\n20-30 drops lavender\nMelt the wax over hot water …"}
              />
              <Problem say={problem} />
              <div className="flex flex-wrap items-center gap-3">
                <Button main disabled={busy} onClick={() => void readIt()}>
                  {busy ? "Reading …" : "Read it"}
                </Button>
                <label className="text-[0.92rem]">
                  or a file, JSON or CSV:{" "}
                  <input
                    type="file"
                    accept=".json,.csv,.txt,application/json,text/csv,text/plain"
                    onChange={(e) => void e.target.files?.[0]?.text().then(setText)}
                  />
                </label>
              </div>
            </>
          ) : (
            <>
              <ul className="divide-y divide-rule border-y border-rule">
                {read.lines.map((l, n) =>
                  l.as === "line" ? (
                    <ReadLine key={n} of={l} open={opens[lines.indexOf(l)]!} change={(by) => change(lines.indexOf(l), by)} />
                  ) : (
                    <li key={n} className="flex flex-wrap items-baseline justify-between gap-x-4 py-1.5 text-pine-soft">
                      <span>{l.text}</span>
                      <span className="text-[0.88rem]">
                        {l.as === "step" ? "goes to the method" : l === named ? "becomes its name" : "a heading, left out"}
                      </span>
                    </li>
                  ),
                )}
                {read.lines.length === 0 && <li className="py-2">There is no line in it.</li>}
              </ul>
              {read.left > 0 && (
                <p className="font-semibold text-honey">
                  {counted(read.left, "line")} after these were not read: that is more than a recipe has. Paste the rest by itself.
                </p>
              )}
              <Problem say={problem} />
              <div className="flex flex-wrap gap-2">
                <Button main onClick={() => putIn("instead")}>
                  {stands ? "Put in, instead of what stands there" : "Put it in the recipe"}
                </Button>
                {stands && <Button onClick={() => putIn("below")}>Put below it</Button>}
                <Button onClick={() => setRead(null)}>Back to the text</Button>
              </div>
            </>
          )}
        </div>
      </Modal>
    </Dialog.Root>
  );
}

function ReadLine({ of, open, change }: { of: Line; open: Open; change: (by: Partial<Open>) => void }) {
  const { line, out } = open;
  const answer = (field: Ask["field"], value: string): void =>
    change({ line: { ...line, [field]: value }, answered: [...open.answered, field] });
  const asks = openAsks(of, open);
  return (
    <li className={`py-2 ${asks.length > 0 ? "border-l-4 border-l-honey pl-2.5" : ""}`}>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <span className={out ? "text-pine-soft line-through" : ""}>{of.text}</span>
        <button type="button" className="pressable text-[0.88rem]" onClick={() => change({ out: !out })}>
          {out ? "Take it in again" : "Leave it out"}
        </button>
      </div>
      {!out && (
        <>
          <p className="flex flex-wrap gap-x-2 text-[0.95rem]">
            <span className="text-pine-soft">read as</span>
            <strong>{line.entered === "" ? "how much?" : line.entered}</strong>
            <strong>{line.material === "" ? "of what?" : line.material}</strong>
            {line.form !== "" && line.form !== "liquid" && <span className="text-pine-soft">{line.form}</span>}
          </p>
          {of.remarks.map((r) => (
            <p key={r} className="text-[0.9rem] text-pine-soft">
              {r}
            </p>
          ))}
          {asks.map((a) => (
            <AskedFor key={a.field} of={a} typed={line[a.field]} answer={(v) => answer(a.field, v)} />
          ))}
        </>
      )}
    </li>
  );
}

/** One question about a line: what it may mean, to be pressed, or a field where only the maker knows. */
function AskedFor({ of, typed, answer }: { of: Ask; typed: string; answer: (value: string) => void }) {
  const [own, setOwn] = useState(typed);
  return (
    <div className="mt-1" role="group" aria-label={of.say}>
      <p className="text-[0.95rem] font-semibold text-honey">{of.say}</p>
      <div className="mt-1 flex flex-wrap items-center gap-1.5">
        {of.choices.map((c) => (
          <button key={c.value} type="button" className="act act-small" onClick={() => answer(c.value)}>
            {c.say}
          </button>
        ))}
        {of.field === "entered" && (
          <>
            <input
              className="field w-32 py-1!"
              data-amount
              aria-label="Amount"
              placeholder="2 tbsp"
              value={own}
              onChange={(e) => setOwn(e.target.value)}
              onKeyDown={(e) => {
                if (e.key !== "Enter") return;
                e.preventDefault();
                if (own.trim() !== "") answer(own.trim());
              }}
            />
            <Button small onClick={() => own.trim() !== "" && answer(own.trim())}>
              That much
            </Button>
          </>
        )}
      </div>
    </div>
  );
}
