/**
 * A recall: from what a supplier's notice is about to every tin that holds it, where each of them is, and who can be told.
 *
 * What went out is told apart by how it can be reached: people whose names stand on an order get a letter, a stall's customers only a notice
 * where they bought, and what was handed out goes by memory. What a count found missing can't be found. Common practice, no source; that
 * product, lots, reason, what to do and how to answer belong in what people are told: 21 CFR 7.49 (c) (from memory).
 */
import { groupBy } from "../collect.ts";
import { among, REASONS, TURNED, type Reason } from "../ledger/reasons.ts";
import type { Where } from "../ledger/whereabouts.ts";
import { counted, wordList } from "../words.ts";

/** A lot's account: what came in, and where all of it is. `came` is the sum of the rest. */
export interface Account extends Record<Where, number> {
  came: number;
  here: number;
  /** In other lots by now, or in a jar. */
  on: number;
}

/** So much in or out of a lot for a reason. */
export interface Moved {
  qty: number;
  reason: Reason;
  /** At a market day. */
  atStall: boolean;
  /** In an order, or back out of one. */
  inOrder?: boolean;
}

/** Where something that went out for a reason is. @example whereIs({ reason: "tester", qty: -1, atStall: true }) // "stall" */
export function whereIs({ reason, qty, atStall, inOrder = false }: Moved): Where | "came" | "on" {
  if (among(TURNED, reason) && qty > 0) return "came";
  if (reason === "cameBack" && inOrder) return "named";
  const { where } = REASONS[reason];
  return where === "handed" && atStall ? "stall" : where;
}

const NOTHING: Account = { came: 0, here: 0, on: 0, named: 0, stall: 0, handed: 0, ended: 0, lost: 0 };

/**
 * A lot's account by its movements in effect. More found at counts than missing is as if it had come.
 * @example accountOf([{ qty: 12, reason: "filled", atStall: false }, { qty: -5, reason: "sold", atStall: true }]) // { came: 12, here: 7, on: 0, named: 0, stall: 5, handed: 0, ended: 0, lost: 0 }
 */
export function accountOf(moved: readonly Moved[]): Account {
  const a = { ...NOTHING };
  for (const m of moved) {
    const where = whereIs(m);
    a.here += m.qty;
    if (where === "came") a.came += m.qty;
    else a[where] -= m.qty;
  }
  // Whose came back nobody wrote down: of what was handed out, else of a stall's, else of somebody's known by name.
  for (const next of ["stall", "named"] as const) {
    const owed = Math.min(Math.max(0, -a.handed), Math.max(0, a[next]));
    a[next] -= owed;
    a.handed += owed;
  }
  if (a.lost < 0) {
    a.came -= a.lost;
    a.lost = 0;
  }
  return a;
}

/** Several lots' accounts in one. */
export function together(accounts: readonly Account[]): Account {
  const sum = { ...NOTHING };
  for (const a of accounts) for (const k of Object.keys(sum) as (keyof Account)[]) sum[k] += a[k];
  return sum;
}

/** Everyone a recall tells, and how far it has come. */
export interface Told {
  people: number;
  markets: number;
  told: number;
  back: number;
}

/**
 * What a recall came to, as it is written down when it is closed.
 * @example sayCame({ came: 12, here: 7, on: 0, named: 0, stall: 5, handed: 0, ended: 0, lost: 0 }, { people: 0, markets: 1, told: 1, back: 2 }) // "12 units: 7 here, 5 sold or given at a stall. 1 of 1 told, 2 units back."
 */
export function sayCame(a: Account, { people, markets, told, back }: Told): string {
  const parts = [
    a.here > 0 && `${a.here} here`,
    a.named > 0 && `${a.named} in orders`,
    a.stall > 0 && `${a.stall} sold or given at a stall`,
    a.handed > 0 && `${a.handed} handed out`,
    a.ended > 0 && `${a.ended} thrown away or sent back`,
    a.lost > 0 && `${a.lost} not to be found`,
  ].filter(Boolean);
  const units = `${counted(a.came, "unit")}${parts.length > 0 ? `: ${parts.join(", ")}` : ""}.`;
  const all = people + markets;
  return all === 0 ? units : `${units} ${told} of ${all} told${back > 0 ? `, ${counted(back, "unit")} back` : ""}.`;
}

/** How long it took, in two steps at most. @example sayElapsed(130_000) // "2 min 10 s" */
export function sayElapsed(ms: number): string {
  const seconds = Math.max(0, Math.floor(ms / 1000));
  const [d, h, m, s] = [Math.floor(seconds / 86_400), Math.floor(seconds / 3600) % 24, Math.floor(seconds / 60) % 60, seconds % 60];
  const parts = d > 0 ? [counted(d, "day"), h && `${h} h`] : h > 0 ? [`${h} h`, m && `${m} min`] : [m && `${m} min`, `${s} s`];
  return parts.filter(Boolean).join(" ");
}

/** Some of one lot that somebody has. */
export interface Had {
  units: number;
  /** Of finished units the product and its size; of a material what it is. */
  what: string;
  number: string;
  /** When they got it, in words. */
  when: string;
}

/** What a recall is about, as people are told. */
export interface Notice {
  workshop: string;
  maker: string;
  /** How the workshop is reached; may be empty. */
  reachUs: string;
  /** When it is written, in words. */
  written: string;
  reason: string;
  /** What to do with it, and how to answer. */
  toDo: string;
  /** Told to try how it would go. */
  rehearsal: boolean;
}

const signed = ({ maker, workshop }: Notice): string => [maker, workshop].filter(Boolean).join(", ");
const had = (all: readonly Had[]): string[] => all.map((h) => `${h.units} × ${h.what}, lot ${h.number}, of ${h.when}`);
/** Each lot once, with all the days it was sold on. */
const sold = (all: readonly Had[]): string[] =>
  [...groupBy(all, (h) => `${h.what}, lot ${h.number}`)].map(
    ([what, times]) => `${what}, sold on ${wordList([...new Set(times.map((t) => t.when))])}`,
  );
/** Who writes, and when. */
const head = ({ workshop, reachUs, written }: Notice): string => [workshop, reachUs, "", written].filter((l, i) => l || i === 2).join("\n");
/** Where there is no address yet, room to write one by hand. */
const answer = ({ reachUs }: Notice): string => (reachUs ? reachUs.split(/\s*\n\s*/).join(", ") : "_".repeat(40));

/**
 * A letter to somebody known by name; plain text, paragraphs apart by an empty line.
 * @example letterTo("Ada", [], { workshop: "Alder Lane", maker: "Mo", reachUs: "", written: "", reason: "It smells odd.", toDo: "", rehearsal: false }).split("\n")[0] // "Alder Lane"
 */
export const letterTo = (name: string, all: readonly Had[], n: Notice): string =>
  [
    ...(n.rehearsal ? ["REHEARSAL — nothing is wrong with what you have."] : []),
    head(n),
    "RECALL: please stop using this",
    `Dear ${name},`,
    "We are recalling something you have from us:",
    had(all).join("\n"),
    "The lot number is on the label. If you gave any of it to somebody else, please pass this on to them.",
    `Why: ${n.reason}`,
    `What to do: ${n.toDo}`,
    `How to answer: tell us how many you still have, even if it is none. ${answer(n)}`,
    `With our apologies,\n${signed(n)}`,
  ].join("\n\n");

/** A notice to hang up or read out where things were sold to people nobody knows by name. */
export const noticeFor = (market: string, all: readonly Had[], n: Notice): string =>
  [
    ...(n.rehearsal ? ["REHEARSAL — nothing is wrong with what was sold."] : []),
    head(n),
    "RECALL: please stop using this",
    `To everybody who bought from ${n.workshop} at ${market}`,
    `We are recalling what was sold there:`,
    sold(all).join("\n"),
    "The lot number is on the label.",
    `Why: ${n.reason}`,
    `What to do: ${n.toDo}`,
    `How to answer: ${answer(n)}`,
    signed(n),
  ].join("\n\n");

/** Why something left by hand, for the list one works from. @example sayReason("tester", "the choir") // "tester, the choir" */
export const sayReason = (reason: Reason, note: string): string => [REASONS[reason].say, note].filter(Boolean).join(", ");
