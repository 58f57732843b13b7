/** Flash message: the act just done, told once by the next page, which offers to take it back. In a cookie, so that no address has it. */
import { createCookieSessionStorage } from "react-router";
import { home } from "../server/workshop.server.ts";
import { idOf } from "./ids.ts";

// Signed by this run of the server alone: after a restart there is nothing "just done", and the book has it anyway.
const told = createCookieSessionStorage<object, { did: string }>({
  cookie: { name: "zelbin-did", httpOnly: true, sameSite: "lax", secrets: [crypto.randomUUID()] },
});

/** The header that tells the next page of an act. */
export async function setFlash(actId: number): Promise<HeadersInit> {
  const session = await told.getSession();
  session.flash("did", String(actId));
  return { "Set-Cookie": await told.commitSession(session, { path: home() }) };
}

/** The act to tell of, if any, and the header that has it told only once. */
export async function readFlash(request: Request): Promise<{ actId: number; headers: HeadersInit } | null> {
  const session = await told.getSession(request.headers.get("Cookie"));
  const actId = idOf(session.get("did"));
  return actId === 0 ? null : { actId, headers: { "Set-Cookie": await told.commitSession(session, { path: home() }) } };
}
