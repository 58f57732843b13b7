/** Which part of the shelf is asked for: all of it while it is small, a board of it, or what a search finds. */
import { finder } from "#core/find";
import { KIND_IDS, type KindId } from "#core/material/kinds";
import { today } from "#db/clock";
import { onShelf, shelfBoards, type Board, type OnShelf } from "#db/shelf/overview";
import { db } from "../server/workshop.server.ts";

/** Up to so many materials the whole shelf is shown open. */
const OPEN_SHELF = 60;

interface Asked {
  boards: Board[];
  /** Small enough to be shown open. */
  whole: boolean;
  board: KindId | null;
  find: string;
}

export async function askedOfShelf(request: Request): Promise<Asked> {
  const asked = new URL(request.url).searchParams;
  const boards = await shelfBoards(db(), today());
  return {
    boards,
    whole: boards.reduce((a, b) => a + b.materials, 0) <= OPEN_SHELF,
    board: KIND_IDS.find((k) => k === asked.get("board")) ?? null,
    find: (asked.get("find") ?? "").trim().slice(0, 80),
  };
}

/** The materials of what is asked for; none of a big shelf with all its boards closed. */
export const askedMaterials = async ({ whole, board, find }: Asked, most: number): Promise<OnShelf[]> => {
  if (whole) {
    const all = await onShelf(db(), today(), {}, most);
    // As the page finds while it is typed: a slip, or words in another order, find it too.
    return find ? finder(all, (m) => m)(find) : all;
  }
  if (find) return onShelf(db(), today(), { find }, most);
  return board ? onShelf(db(), today(), { kind: board }, most) : [];
};

/** The materials for a file: with all boards of a big shelf closed it is the whole shelf that is looked at. */
export async function askedForFile(request: Request, most: number): Promise<OnShelf[]> {
  const asked = await askedOfShelf(request);
  return asked.find || asked.board ? askedMaterials(asked, most) : onShelf(db(), today(), {}, most);
}
