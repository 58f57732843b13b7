/** A month to choose a day from, drawn as a page of the workroom's own. */
import type { Day } from "#core/when";
import { DayPicker } from "react-day-picker";

interface Props {
  day: Day | null;
  today: Day;
  sundayFirst: boolean;
  choose: (day: Day) => void;
}

const dateOf = (day: Day): Date => new Date(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10)));
const two = (n: number): string => String(n).padStart(2, "0");
const dayOf = (d: Date): Day => `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}`;

const STEP = "grid h-9 w-9 cursor-pointer place-items-center rounded hover:bg-honey-wash [&_svg]:h-4 [&_svg]:w-4 [&_svg]:fill-current";

export default function Calendar({ day, today, sundayFirst, choose }: Props) {
  const selected = day === null ? undefined : dateOf(day);
  return (
    <DayPicker
      mode="single"
      autoFocus
      selected={selected}
      defaultMonth={selected ?? dateOf(today)}
      today={dateOf(today)}
      weekStartsOn={sundayFirst ? 0 : 1}
      onDayClick={(d) => choose(dayOf(d))}
      classNames={{
        root: "text-small",
        months: "relative",
        month_caption: "flex h-9 items-center pl-1 font-display text-lead",
        nav: "absolute top-0 right-0 flex",
        button_previous: STEP,
        button_next: STEP,
        month_grid: "mt-1 border-collapse",
        weekday: "h-8 w-9 text-center text-tiny font-semibold text-pine-soft",
        day: "p-0 text-center",
        day_button: "h-9 w-9 cursor-pointer rounded tabular-nums hover:bg-honey-wash",
        outside: "text-pine-soft",
        today: "font-bold text-amber underline underline-offset-4",
        selected: "[&_button]:bg-amber [&_button]:text-white",
      }}
    />
  );
}
