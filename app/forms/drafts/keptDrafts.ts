/** What is unfinished on the page at hand, as the workroom read it; each sheet finds its own. */
import { createContext, useContext } from "react";

/** A sheet of more than this is a file, not something typed, and isn't saved as a draft. */
export const MOST_CHARACTERS = 300_000;

export interface KeptDraft {
  sheet: string;
  token: string;
  seen: number | null;
  /** What was typed, the sheet it was typed on, and what its names mean. */
  values: { mine?: unknown; base?: unknown; means?: unknown };
  /** How long ago it was typed, in words. */
  ago: string;
}

export const DraftsContext = createContext<{ path: string; drafts: readonly KeptDraft[] }>({ path: "", drafts: [] });
export const useKeptDraft = (sheet: string | null): KeptDraft | undefined =>
  useContext(DraftsContext).drafts.find((d) => d.sheet === sheet);
export const useDraftPath = (): string => useContext(DraftsContext).path;
/** What is unfinished of the sheets laid over a page: the first whose name begins so, with what follows. @example useDraftOfDialog("count ") // "12" */
export function useDraftOfDialog(...names: readonly string[]): { name: string; of: number } | null {
  for (const { sheet } of useContext(DraftsContext).drafts) {
    const name = names.find((n) => sheet.startsWith(n));
    if (name !== undefined) return { name, of: Number(sheet.slice(name.length)) };
  }
  return null;
}
