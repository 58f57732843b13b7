/** Outlook of a product in the cabinet: how fast it sells, what will pass its day, and whether it can take a summer stall's heat. */
import { agesUnsold, sayPace } from "#core/cabinet/pace";
import { counted } from "#core/words";
import type { Day } from "#core/when";
import type { CabinetLot } from "#db/cabinet/cabinet";

interface Props {
  lots: readonly CabinetLot[];
  /** Units a day; null where it is too early to say. */
  pace: number | null;
  /** Why it isn't for a summer stall. */
  summer: string | null;
  today: Day;
}

export function Outlook({ lots, pace, summer, today }: Props) {
  const left = pace === null ? 0 : agesUnsold(lots, pace, today);
  return (
    <span className="block font-sans text-fine font-normal text-pine-soft">
      {pace === null ? "Too early to say how fast it sells" : sayPace(pace)}
      {left > 0 && (
        <strong className="text-honey">
          {" "}
          · at this pace {counted(left, "unit")} {left === 1 ? "passes its" : "pass their"} day before {left === 1 ? "it is" : "they are"}{" "}
          sold
        </strong>
      )}
      {summer && <> · not for a summer stall: {summer}</>}
    </span>
  );
}
