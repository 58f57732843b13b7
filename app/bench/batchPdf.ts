/** A batch as PDF: its weigh sheet while it is on the bench, its record once it is poured or written off. */
import { pdfFile } from "../paper/pdf.server.ts";
import { loader as page } from "./batch.tsx";
import { recordPaper, spoiledPaper } from "./record/recordPaper.ts";
import { weighPaper } from "./sheet/weighPaper.ts";
import type { Route } from "./+types/batchPdf";

export async function loader(at: Route.LoaderArgs) {
  const data = await page(at as never);
  const { sheet, result, plan, checks, minded, events, samples, lost } = data;
  const made = { events, samples, netRule: sheet.batch.netRule ?? data.netRule };
  return pdfFile((said) => {
    if (sheet.batch.spoiledActId !== null) return spoiledPaper({ sheet, made, lost }, said);
    return result ? recordPaper({ sheet, made, result, plan, checks, minded }, said) : weighPaper(data, said);
  });
}
