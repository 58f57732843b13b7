/**
 * A recipe as it was found: pasted or from a file, read line by line beside what was written, asked about where it could mean two things, and
 * then put into the sheet. Nothing of the sheet changes until that is pressed.
 */
import { fileOf, readRecipeFile } from "#core/recipe/portable";
import { factsIn } from "#core/material/facts";
import { mg, sum, type Mg } from "#core/measure/exact";
import { FORMS, massOf } from "#core/measure/mass";
import { parseAmount } from "#core/measure/parse";
import { weightText } from "#core/measure/read";
import { grams } from "#core/measure/write";
import { weightOfSizes, type FilledSize } from "#core/recipe/scribbled/sizes";
import { isKeyOf } from "#core/objects";
import { counted, wordList } from "#core/words";
import { Dialog } from "radix-ui";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import { useHref } from "react-router";
import { Area, Button, Problem } from "../../ui/fields/form.tsx";
import { Modal } from "../../ui/sheet/modal.tsx";
import { BLANK_LINE, BLANK_SIZE, type RecipeTexts } from "../recipeTexts.ts";
import { fromPortable } from "./portableTexts.ts";
import { openAsks, ReadLine, type Line, type Open } from "./readLine.tsx";
import type { ReadThrough } from "./scribbled.ts";

interface Props {
  /** The sheet as it is now. */
  now: () => RecipeTexts;
  put: (texts: RecipeTexts) => void;
  /** What was pasted, remembered while this is closed. */
  text: string;
  setText: (text: string) => void;
  /** It was pasted where one name goes, and is read as soon as this opens. */
  readNow: boolean;
}

const begin = (l: Line): Open => ({ line: l.line, answered: [], out: false });

/** What a line weighs; null in parts and per cent, and where it can't be told yet. */
function weightOf({ line }: Open, { materials }: ReadThrough): Mg | null {
  const m = materials[line.material];
  const amount = parseAmount(line.entered);
  if (!m || !amount.ok) return null;
  const weight = massOf(amount.value, factsIn(m, isKeyOf(FORMS, line.form) ? line.form : undefined));
  return weight.ok ? weight.value : null;
}

/** What all it fills holds, where it says so and nothing else says how much is made. */
function makesOf(t: RecipeTexts, sizes: readonly FilledSize[], lines: readonly Open["line"][]): string {
  const inShares = lines.some((l) => /part|%/.test(l.entered));
  const all = inShares && t.makes === "" ? weightOfSizes(sizes) : null;
  return all === null ? t.makes : weightText(mg(all));
}

export default function PasteRecipe({ now, put, text, setText, readNow, close }: Props & { close: () => void }) {
  const to = useHref("/recipes/scribbled");
  const [busy, setBusy] = useState(false);
  const [problem, say] = useState<string | null>(null);
  const [read, setRead] = useState<ReadThrough | null>(null);
  const [opens, setOpens] = useState<readonly Open[]>([]);
  /** Keys of the library that were put on the shelf from here, and the token of the next ones. */
  const [added, setAdded] = useState<readonly string[]>([]);
  const [token, setToken] = useState(() => crypto.randomUUID());
  const names = useHref("/names/material");
  const lines = read?.lines.filter((l): l is Line => l.as === "line") ?? [];
  // What says what it fills says how it is poured as well.
  const steps = read?.lines.filter((l) => l.as === "step" || (l.as === "sizes" && /^(?:fill|pour|divide)/i.test(l.text))) ?? [];

  const takeFile = (): void => {
    const file = readRecipeFile(text);
    if (!file.ok) {
      say(file.problem.say);
      return;
    }
    put(fromPortable(file.value, now()));
    close();
  };
  /** @returns what the server answers; null where it says what is wrong, or nothing */
  const ask = async <T extends object>(address: string, body: object): Promise<T | null> => {
    setBusy(true);
    say(null);
    try {
      const r = await fetch(address, { method: "POST", headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) });
      const answer = (await r.json()) as T & { problems?: { say: string }[] };
      if (!answer.problems) return answer;
      say(answer.problems[0]?.say ?? "That could not be read.");
    } catch {
      say("The server doesn't answer. What you pasted is still here; try again in a moment.");
    } finally {
      setBusy(false);
    }
    return null;
  };
  const readIt = async (): Promise<void> => {
    say(text.trim() === "" ? "Paste or type a recipe first." : null);
    if (text.trim() === "") return;
    if (fileOf(text)) {
      takeFile();
      return;
    }
    const answer = await ask<ReadThrough>(to, { text });
    if (!answer) return;
    setRead(answer);
    setAdded([]);
    setOpens(answer.lines.flatMap((l) => (l.as === "line" ? [begin(l)] : [])));
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
  const isNamed = title?.as === "title" || (title?.as === "heading" && !title.text.endsWith(":"));
  const named = isNamed && now().name === "" ? title : null;
  const left = lines.filter((l, i) => openAsks(l, opens[i]!).length > 0).length;
  const take = opens.filter((o) => !o.out);
  const weights = opens.map((o) => (read && !o.out ? weightOf(o, read) : null));
  const weighed = weights.filter((w) => w !== null);
  // Those of the library that a line is by now.
  const wanted = [...new Set(take.map((o) => o.line.material))].flatMap((name) => {
    const key = read?.materials[name]?.library;
    return key && !added.includes(key) ? [{ name, key }] : [];
  });
  const sizes = read?.lines.flatMap((l) => (l.as === "sizes" ? l.sizes : [])) ?? [];
  const takes = weightOfSizes(sizes);
  const sizeless = now().sizes.every((z) => z.container === "" && z.fill === "");

  const putOnShelf = async (): Promise<void> => {
    const keys = wanted.map((w) => w.key);
    if (!(await ask(names, { keys, token }))) return;
    setAdded((all) => [...all, ...keys]);
    setToken(crypto.randomUUID());
  };
  const putIn = (where: "instead" | "below"): void => {
    if (left > 0) {
      say(`${counted(left, "line")} ${left === 1 ? "is" : "are"} still to be answered, or to be left out.`);
      return;
    }
    if (wanted.length > 0) {
      say(`${wordList(wanted.map((w) => w.name))} ${wanted.length === 1 ? "is" : "are"} still to be put on the shelf, or to be left out.`);
      return;
    }
    const t = now();
    const stand = where === "below" ? t.lines.filter((l) => l.material !== "" || l.entered !== "") : [];
    const method = [t.method, ...steps.map((s) => s.text)].filter((s) => s !== "").join("\n");
    const filled = sizeless && sizes.length > 0 ? sizes.map(({ fill }) => ({ ...BLANK_SIZE, fill })) : t.sizes;
    const lines = [...stand, ...take.map((o) => o.line)];
    const name = named ? named.text.replace(/^#+\s*/, "").slice(0, 80) : t.name;
    put({ ...t, name, method, sizes: filled, makes: makesOf(t, sizes, lines), lines: lines.length > 0 ? lines : [BLANK_LINE] });
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
                <label className="text-small">
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
                    <ReadLine
                      key={n}
                      of={l}
                      open={opens[lines.indexOf(l)]!}
                      weight={weights[lines.indexOf(l)] ?? null}
                      change={(by) => change(lines.indexOf(l), by)}
                    />
                  ) : (
                    <li key={n} className="flex flex-wrap items-baseline justify-between gap-x-4 py-1.5 text-pine-soft">
                      <span>{l.text}</span>
                      <span className="text-fine">
                        {l.as === "sizes"
                          ? `fills ${wordList(l.sizes.map((z) => `${z.units} × ${z.fill}`))}${sizeless ? ", and becomes its sizes" : ""}`
                          : l.as === "step"
                            ? "goes to the method"
                            : l === named
                              ? "becomes its name"
                              : "a heading, left out"}
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
              {weighed.length > 0 && (
                <p>
                  <strong>{grams(sum(weighed))}</strong> in {weighed.length === take.length ? "all" : `${weighed.length} of`}{" "}
                  {counted(take.length, "line")}
                  {sizes.length > 0 && takes !== null && `; what it fills takes ${grams(mg(takes))}`}.
                </p>
              )}
              {wanted.length > 0 && (
                <div className="flex flex-wrap items-center justify-between gap-3 rounded bg-honey-wash px-4 py-2">
                  <p>
                    Not on the shelf yet, but in the library: <strong>{wordList(wanted.map((w) => w.name))}</strong>.
                  </p>
                  <Button small disabled={busy} onClick={() => void putOnShelf()}>
                    {wanted.length === 1 ? "Put it on the shelf" : `Put all ${wanted.length} on the shelf`}
                  </Button>
                </div>
              )}
              <Problem say={problem} />
              <div className="flex flex-wrap gap-2">
                <Button main onClick={() => putIn("instead")}>
                  {stands ? "Put in, instead of what is there" : "Put it in the recipe"}
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
