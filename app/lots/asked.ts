/** What is looked for among lots, as the address says it. */
export const lotAsked = (request: Request): string => (new URL(request.url).searchParams.get("number") ?? "").trim().slice(0, 80);
