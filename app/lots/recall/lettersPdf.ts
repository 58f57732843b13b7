/** A recall's letters as PDF, each from its page. */
import type { Part } from "../../paper/paper.ts";
import { pdfFile } from "../../paper/pdf.server.ts";
import { loader as page } from "./letters.tsx";
import { headsLetter } from "./headsLetter.ts";
import type { Route } from "./+types/lettersPdf";

export async function loader(at: Route.LoaderArgs) {
  const { id, letters } = await page(at as never);
  if (letters.length === 0) throw new Response("Nobody to write to", { status: 404 });
  return pdfFile(() => ({
    title: `Recall ${id}: letters`,
    headed: false,
    file: `recall-${id}-letters`,
    parts: letters.flatMap((l, i): Part[] => [
      ...(i > 0 ? [{ page: true } as const] : []),
      ...l.text.split("\n\n").map((p): Part => (headsLetter(p) ? { text: p, as: "title" } : { text: p })),
    ]),
  }));
}
