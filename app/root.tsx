/** The HTML document of every screen. */
import {
  type GetScrollRestorationKeyFunction,
  isRouteErrorResponse,
  Link,
  Links,
  type LinksFunction,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
} from "react-router";
import { useContext, useEffect } from "react";
import { NonceContext } from "./server/nonce.ts";
import { serveWorkshop } from "./server/workshop.server.ts";
import type { Route } from "./+types/root";
import serif from "@fontsource/young-serif/files/young-serif-latin-400-normal.woff2?url";
import mono from "@fontsource-variable/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-wght-normal.woff2?url";
import sans from "@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url";
import styles from "./app.css?url";

/** The faces that every page is written in are on their way before the style sheet asks for them: no word is set twice. */
const face = (href: string) => ({ rel: "preload", href, as: "font", type: "font/woff2", crossOrigin: "anonymous" }) as const;

export const links: LinksFunction = () => [
  face(sans),
  face(serif),
  face(mono),
  { rel: "stylesheet", href: styles },
  { rel: "icon", href: "/mark.svg", type: "image/svg+xml" },
];

/** Lists are come back to where they were left, whichever way; any other page begins at its top. */
const LISTS = new Set(["/shelf", "/shelf/receipts", "/jars", "/recipes", "/bench", "/cabinet", "/prices", "/markets", "/gifts", "/people"]);
const placeOf: GetScrollRestorationKeyFunction = ({ pathname, search, key }) => (LISTS.has(pathname) ? pathname + search : key);

export const middleware = [serveWorkshop];

export const meta: Route.MetaFunction = () => [{ title: "Zelbin" }];

export function Layout({ children }: { children: React.ReactNode }) {
  const nonce = useContext(NonceContext);
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1, interactive-widget=resizes-content" />
        {/* A page comes in one piece from this very machine: drawn before its last row is read, its tables would move as they grow. */}
        <link rel="expect" href="#whole" blocking="render" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration getKey={placeOf} nonce={nonce} />
        <Scripts nonce={nonce} />
        <i id="whole" hidden />
      </body>
    </html>
  );
}

export default function Root() {
  return <Outlet />;
}

const AGAIN_MS = 3000;

/** The database is away or has no room: the page is asked for again by itself. */
function OutOfOrder({ say }: { say: string }) {
  useEffect(() => {
    const again = setTimeout(() => window.location.reload(), AGAIN_MS);
    return () => clearTimeout(again);
  }, []);
  return (
    <main className="mx-auto max-w-xl px-6 py-16">
      <h1 className="text-page">One moment</h1>
      <p className="mt-3" role="status">
        {say} This page is asked for again by itself.
      </p>
    </main>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  if (isRouteErrorResponse(error) && (error.status === 503 || error.status === 507)) return <OutOfOrder say={String(error.data)} />;
  const missing = isRouteErrorResponse(error) && error.status === 404;
  return (
    <main className="mx-auto max-w-xl px-6 py-16">
      <h1 className="text-page">{missing ? "There is nothing here" : "Something went wrong"}</h1>
      <p className="mt-3">
        {missing
          ? "The page may have been moved, or the address mistyped."
          : "What you entered before is safe. Go back and try again; if it keeps happening, stop Zelbin with Ctrl-C and start it again."}
      </p>
      <Link reloadDocument className="act mt-6" to="/">
        Back to Today
      </Link>
    </main>
  );
}
