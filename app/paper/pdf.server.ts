/** Answers that are a paper as PDF. */
import { money } from "#core/measure/money";
import type { Settings } from "#core/settings/settings";
import { sayDay, type Day } from "#core/when";
import { today } from "#db/clock";
import { cachedSettings } from "#db/settings/settings";
import { db } from "../server/workshop.server.ts";
import type { Paper } from "./paper.ts";

/** How a paper writes money, days and hours: as the workshop's screens do. */
export interface Said {
  settings: Settings;
  money: (m: number) => string;
  day: (day: Day | null) => string;
  /** By the server's clock: a paper has no reader's. */
  time: (at: Date | string) => string;
}

const saidBy = (settings: Settings): Said => ({
  settings,
  money: (m) => money(m, settings.currency),
  day: (day) => (day === null ? "—" : sayDay(day, today(), settings.dates === "mdy")),
  time: (at) => new Date(at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" }),
});

/**
 * A paper as a file to keep, to print or to send.
 * @param write the paper, given how it says things
 * @example export const loader = async (at: Route.LoaderArgs) => pdfFile(orderPaper(await page(at)))
 */
export async function pdfFile(write: (said: Said) => Paper): Promise<Response> {
  const settings = await cachedSettings(db());
  const said = saidBy(settings);
  const paper = write(said);
  // The library that draws is loaded when the first paper is asked for, not at every start.
  const { drawPaper } = await import("./draw.ts");
  const bytes = await drawPaper(paper, { size: settings.paper, workshop: settings.workshop, on: said.day(today()) });
  return new Response(new Uint8Array(bytes), {
    headers: {
      "content-type": "application/pdf",
      "content-disposition": `attachment; filename="${paper.file.replace(/[^A-Za-z0-9._-]+/g, "-")}.pdf"`,
    },
  });
}
