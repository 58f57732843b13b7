/** A material added where it is missed: its name and kind, and of a container what it holds; everything else can be said later. */
import { KIND_IDS, KINDS, type KindId } from "#core/material/kinds";
import { Dialog } from "radix-ui";
import { useEffect, useState, type KeyboardEvent } from "react";
import { useFetcher } from "react-router";
import type { Reply } from "../forms/sheet.server.ts";
import { Button, Choice, Problem, Text } from "../ui/fields/form.tsx";
import { Modal } from "../ui/sheet/modal.tsx";

interface Props {
  name: string;
  kinds?: readonly KindId[];
  /** With the name it was added by; null when it was left. */
  done: (name: string | null) => void;
}

const HOLDING: readonly KindId[] = ["container", "mould"];

/** Words in a name that give its kind away. */
const TELLS: readonly (readonly [RegExp, KindId])[] = [
  [/\bessential oil\b/i, "essentialOil"],
  [/\bfragrance\b/i, "fragrance"],
  [/\bwax\b|wax$/i, "wax"],
  [/\bbutter\b/i, "softButter"],
  [/\binfused\b/i, "infusedOil"],
  [/\boil\b/i, "oil"],
  [/\bdried\b|\bleaf\b|\bflowers?\b|\bpetals\b|\broot\b/i, "herb"],
  [/\bpowder\b|\bclay\b|\bstarch\b/i, "powder"],
  [/\bhoney\b|\bhydrosol\b|\bgel\b|\bwater\b|\bglycerine?\b/i, "watery"],
  [/\bmica\b|\boxide\b/i, "colour"],
  [/\blid\b|\bcap\b/i, "closure"],
  [/\blabels?\b/i, "label"],
  [/\bmould\b|\bmold\b/i, "mould"],
  [/\btin\b|\bjar\b|\bpot\b|\btube\b|\bbottle\b/i, "container"],
  [/\bbox\b/i, "box"],
  [/\bribbon\b|\btissue\b|\bwrap\b|\bbag\b|\bcard\b/i, "wrap"],
];
const likelyKind = (name: string, among: readonly KindId[]): KindId | "" =>
  TELLS.find(([tells, k]) => among.includes(k) && tells.test(name))?.[1] ?? (among.length === 1 ? among[0]! : "");
const withCapital = (name: string): string => name.slice(0, 1).toLocaleUpperCase() + name.slice(1);

export function AddMaterial({ name: typed, kinds = KIND_IDS, done }: Props) {
  const [name, setName] = useState(() => withCapital(typed));
  const [kind, setKind] = useState(() => likelyKind(typed, kinds));
  const [brimMl, setBrim] = useState("");
  const [emptyG, setEmpty] = useState("");
  const [token] = useState(() => crypto.randomUUID());
  const add = useFetcher<Reply | { added: string } | null>();
  const added = add.data && "added" in add.data ? add.data.added : null;
  const problems = add.data && "problems" in add.data ? add.data.problems : [];
  const at = (field: string): string | undefined => problems.find((p) => p.field === field)?.say;
  useEffect(() => {
    if (added !== null) done(added);
    // Told once.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [added]);
  const send = (): void =>
    void add.submit({ name, kind, brimMl, emptyG, token }, { method: "post", action: "/names/material", encType: "application/json" });
  // The sheet underneath must not hear of it.
  const onKeyDown = (e: KeyboardEvent): void => {
    e.stopPropagation();
    if (e.key === "Enter" && (e.target as HTMLElement).tagName === "INPUT") {
      e.preventDefault();
      send();
    }
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && done(null)}>
      <Modal
        title="Add to the shelf"
        about="Its name and kind will do for now; what it weighs and how long it keeps can be said on its own sheet."
      >
        <div className="space-y-3" onKeyDown={onKeyDown}>
          <Problem say={at("")} />
          <Text label="Name" value={name} autoFocus onChange={(e) => setName(e.target.value)} problem={at("name")} />
          <Choice
            label="Kind"
            value={kind}
            onChange={(e) => setKind(e.target.value as KindId)}
            options={[...(kind === "" ? [["", "— choose —"] as const] : []), ...kinds.map((k) => [k, KINDS[k].label] as const)]}
            problem={at("kind")}
          />
          {kind !== "" && HOLDING.includes(kind) && (
            <div className="grid gap-3 sm:grid-cols-2">
              <Text
                data-amount
                label="Holds to the brim, mL"
                value={brimMl}
                onChange={(e) => setBrim(e.target.value)}
                problem={at("brimMl")}
              />
              <Text data-amount label="Weighs empty, g" value={emptyG} onChange={(e) => setEmpty(e.target.value)} problem={at("emptyG")} />
            </div>
          )}
          <Button main disabled={add.state !== "idle"} onClick={send}>
            Add it
          </Button>
        </div>
      </Modal>
    </Dialog.Root>
  );
}
