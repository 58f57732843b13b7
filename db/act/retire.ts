/** Putting a record away, or back: one act for every kind of record that can be. It is offered nowhere any more, and its history stays. */
import type { ActKind, SubjectKind } from "#core/act/kinds";
import { boolean, object } from "yup";
import type { Tx } from "../client.ts";
import { defineAct, type About } from "./define.ts";
import { undoId } from "./left.ts";
import { requireNoLaterActs } from "../ledger/effective.ts";

interface Retiring<K extends ActKind> {
  kind: K;
  subject: SubjectKind;
  /** Where one is read, before its number. */
  at: string;
  /** The act that deletes one. */
  deletes: ActKind;
  /** Holds one for this act. @throws Refused when it has gone */
  held: (tx: Tx, id: number) => Promise<{ called: string; retired: boolean; about: readonly About[] }>;
  set: (tx: Tx, id: number, retired: boolean) => Promise<unknown>;
  /** What the book says of one that is back. @example (name) => `Brought ${name} back` */
  back: (name: string) => string;
  /** What else prevents taking it back. @throws Refused */
  before?: (tx: Tx, id: number, undoes: number) => Promise<void>;
}

/** @example export const retireMaterial = defineRetire({ kind: "retire", subject: "material", at: "/shelf/", … }) */
export const defineRetire = <const K extends ActKind>({ kind, subject, at, deletes, held, set, back, before }: Retiring<K>) =>
  defineAct({
    kind,
    run: async (tx, { id, retired }: { id: number; retired: boolean }) => {
      const was = await held(tx, id);
      await set(tx, id, retired);
      return {
        path: `${at}${id}`,
        summary: retired ? `Put ${was.called} away` : back(was.called),
        about: was.about,
        leaves: { id, was: was.retired },
      };
    },
    leaves: object({ id: undoId(), was: boolean().required() }),
    back: async (tx, { id, was }, { undoes }) => {
      await requireNoLaterActs(tx, { kind: subject, id }, undoes, [kind, deletes], "It was put away, back, or deleted since.");
      await before?.(tx, id, undoes);
      await set(tx, id, was);
    },
  });
