/** What waits, in words: what it is, where it is done, and what can be done with a press right here. */
import { daysBetween, type Day } from "#core/when";
import type { Waiting } from "#db/today/today";
import type { ReactNode } from "react";
import type { SaidStep } from "../gifts/stepSentences.server.ts";
import { showBase, When } from "../ui/figures/amounts.tsx";

/** Something that waits, with its steps in words. */
export type Waits = Omit<Waiting, "steps"> & { steps?: readonly SaidStep[] };

/** Done on the spot. */
export type Press = { does: "pack"; id: number } | { does: "takeOff"; number: string } | { does: "shake"; jars: readonly number[] };

export interface WorkItemText {
  to: string;
  what: ReactNode;
  /** What is done where it leads. */
  do: string;
  press?: { say: string; of: string; act: Press };
  /** What is to be begun first. */
  steps?: readonly SaidStep[] | undefined;
}

/** A waiting thing as a sentence, and the act that settles it. */
export function say(w: Waits, today: Day): WorkItemText {
  const amount = w.amount !== null && w.measured ? showBase(w.amount, w.measured) : "";
  const units = `${w.amount} ${w.amount === 1 ? "unit" : "units"}`;
  const lot = w.number ? <span className="weight text-part">{w.number}</span> : null;
  const inLot = w.station === "cabinet" ? units : amount;
  const when = <When day={w.day} />;
  const late = w.day !== null && daysBetween(today, w.day) < 0 && <strong className="text-berry"> — late</strong>;
  const order = (
    <>
      Order for {w.name}, {units}, due {when}
      {late}
    </>
  );
  const jar = (
    <>
      {w.name} {lot}
    </>
  );
  switch (w.kind) {
    case "open":
      return {
        to: `/bench/${w.id}`,
        what: (
          <>
            {w.name}, {units} set out {when}
          </>
        ),
        do: "Go on weighing",
      };
    case "outSetting":
    case "outUnchecked":
      return {
        to: `/bench/${w.id}`,
        what: (
          <>
            {w.name}: {units} of lot {lot} went out {w.kind === "outSetting" ? "still setting" : "unchecked"}
          </>
        ),
        do: "Check it",
      };
    case "recall":
      return {
        to: `/lots/recalls/${w.id}`,
        what: (
          <>
            {w.name}, begun {when}
          </>
        ),
        do: "Go on with it",
      };
    case "toPack":
      return {
        to: `/gifts/${w.id}`,
        what: order,
        do: "Look at it",
        press: { say: "Packed", of: `Packed: order for ${w.name}`, act: { does: "pack", id: w.id } },
      };
    case "toMake":
      return { to: `/gifts/${w.id}`, what: order, do: "Look at it", steps: w.steps };
    case "held":
      return {
        to: `/lots/${w.number}`,
        what: (
          <>
            {w.name}, {inLot} in lot {lot}, on hold
          </>
        ),
        do: "Decide",
      };
    case "toClose":
      return {
        to: `/markets/${w.id}`,
        what: (
          <>
            {w.name} on {when} isn't closed
          </>
        ),
        do: "Count the stall",
      };
    case "comingUp":
      return {
        to: `/markets/${w.id}`,
        what: (
          <>
            {w.name} on {when}, in {daysBetween(today, w.day!)} days
          </>
        ),
        do: "See what goes along",
      };
    case "expired":
      return {
        to: `/lots/${w.number}`,
        what: (
          <>
            {w.name}, {inLot} in lot {lot}, was best before {when}
          </>
        ),
        do: "Look at it",
        press: { say: "Thrown away", of: `Thrown away: ${w.number}`, act: { does: "takeOff", number: w.number! } },
      };
    case "soon":
      return {
        to: w.station === "cabinet" ? `/lots/${w.number}` : `/shelf/${w.id}`,
        what: (
          <>
            {w.name}, {inLot} in lot {lot}, best before {when}
          </>
        ),
        do: w.station === "cabinet" ? "Sell it first" : "Use it first",
      };
    case "drying":
      return {
        to: `/shelf/harvests/${w.id}`,
        what: (
          <>
            {w.name}, {amount} picked {when}, is drying
          </>
        ),
        do: "Weigh it",
      };
    case "shake":
      return {
        to: "/jars",
        what: jar,
        do: "Look at it",
        press: { say: "Shaken", of: `Shaken: ${w.name}`, act: { does: "shake", jars: [w.id] } },
      };
    case "ready":
      return {
        to: `/jars/${w.id}#strain`,
        what: (
          <>
            {jar}, at its best since {when}
          </>
        ),
        do: "Strain it",
      };
    case "late":
      return { to: `/jars/${w.id}#strain`, what: <>{jar}, steeping too long</>, do: "Strain it now" };
    case "low":
      return {
        to: `/shelf/receive?material=${w.id}`,
        what: (
          <>
            {w.name}: {w.amount ? `${amount} left` : "none left"}
          </>
        ),
        do: "Receive more",
      };
    case "unpriced":
      return { to: `/prices/${w.id}`, what: <>{w.name} has no price</>, do: "Price it" };
  }
}

/** Jars that want shaking are one walk along the wall. */
export function oneWalk(jars: readonly Waits[]): WorkItemText {
  return {
    to: "/jars",
    what: (
      <>
        Shake {jars.length} jars: <span className="text-pine-soft">{jars.map((j) => j.name).join(", ")}</span>
      </>
    ),
    do: "Look at them",
    press: { say: "All shaken", of: `All ${jars.length} jars shaken`, act: { does: "shake", jars: jars.map((j) => j.id) } },
  };
}
