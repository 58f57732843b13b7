/** The calendar as an iCalendar file: saved once, or read again and again as a feed. */
import { createHash } from "node:crypto";
import { writeCalendar } from "#core/calendar/ics";
import { nameOfBooks } from "#db/calendar/calendar";
import { cachedSettings } from "#db/settings/settings";
import { db, home } from "../server/workshop.server.ts";
import { entriesAsked, kindsAsked } from "./asked.server.ts";
import type { Route } from "./+types/ics";

export async function loader({ request }: Route.LoaderArgs) {
  const [entries, books, { workshop }] = await Promise.all([entriesAsked(kindsAsked(request)), nameOfBooks(db()), cachedSettings(db())]);
  const { origin } = new URL(request.url);
  const text = writeCalendar(entries, { name: workshop, books: books ?? "none", home: origin + home().replace(/\/$/, "") });
  const etag = `"${createHash("sha256").update(text).digest("base64url").slice(0, 24)}"`;
  const headers = { etag, "cache-control": "private, no-cache" };
  if (request.headers.get("if-none-match") === etag) return new Response(null, { status: 304, headers });
  return new Response(text, {
    headers: { ...headers, "content-type": "text/calendar; charset=utf-8", "content-disposition": `inline; filename="zelbin.ics"` },
  });
}
