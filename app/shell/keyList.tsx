/** What each key does, as a list. */
const LIST: readonly (readonly [string, string])[] = [
  ["=", "Open the reckon bar"],
  ["1 … 9", "Go to a station, from Today to Gifts"],
  ["0", "Go to Lots"],
  ["n", "The first act of this screen: receive, write, set out …"],
  ["/", "Find on this screen"],
  ["Enter", "In a table of lines: next row, a new one after the last"],
  ["↓", "In a field for names: what there is to choose from"],
  ["Alt ↓", "In a field for a day: the calendar"],
  ["Ctrl V", "In a table of lines: paste rows from a spreadsheet"],
  ["?", "These keys"],
];

export default function KeyList() {
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
      {LIST.map(([key, does]) => (
        <div key={key} className="contents">
          <dt className="weight font-semibold">{key}</dt>
          <dd>{does}</dd>
        </div>
      ))}
    </dl>
  );
}
