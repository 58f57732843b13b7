/** What stands unfinished on the page at hand, as the workroom read it; each sheet finds its own. */
import { createContext, useContext } from "react";

export interface KeptDraft {
  sheet: string;
  token: string;
  seen: number | null;
  /** What was typed, and the sheet it was typed on. */
  values: { mine?: unknown; base?: unknown };
  /** How long ago it was typed, in words. */
  ago: string;
}

export const DraftsContext = createContext<{ path: string; drafts: readonly KeptDraft[] }>({ path: "", drafts: [] });
export const useKeptDraft = (sheet: string | null): KeptDraft | undefined =>
  useContext(DraftsContext).drafts.find((d) => d.sheet === sheet);
export const useDraftPath = (): string => useContext(DraftsContext).path;
