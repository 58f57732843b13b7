/** The document every screen stands in. */
import { isRouteErrorResponse, Link, Links, type LinksFunction, Meta, Outlet, Scripts, ScrollRestoration } from "react-router";
import type { Route } from "./+types/root";
import styles from "./app.css?url";

export const links: LinksFunction = () => [
  { rel: "stylesheet", href: styles },
  { rel: "icon", href: "/mark.svg", type: "image/svg+xml" },
];

export const meta: Route.MetaFunction = () => [{ title: "Zelbin" }];

export function Layout({ children }: { children: React.ReactNode }) {
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration />
        <Scripts />
      </body>
    </html>
  );
}

export default function Root() {
  return <Outlet />;
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const missing = isRouteErrorResponse(error) && error.status === 404;
  return (
    <main className="mx-auto max-w-xl px-6 py-16">
      <h1 className="text-3xl">{missing ? "There is nothing here" : "Something went wrong"}</h1>
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
