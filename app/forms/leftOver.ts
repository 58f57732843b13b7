/** Where a tab keeps what it has sent beside the router and nobody has answered yet. */
export const OUTBOX = "outbox";

/** Whether a page before this one, in this tab, left something unanswered; for a page that is just opened. */
export const isLeftOver = (): boolean => (sessionStorage.getItem(OUTBOX) ?? "[]") !== "[]";
