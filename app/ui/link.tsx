/**
 * A way to another page of the workshop. The router's own link works out its address and its handlers for itself, ten times a plain anchor's
 * work, and lists have hundreds of them: here one listener follows them all.
 */
import { useEffect, type ComponentProps } from "react";
import { createPath, useLocation, useNavigate, type Path } from "react-router";
import { useWorkshop } from "./workshop.ts";

interface Props extends Omit<ComponentProps<"a">, "href"> {
  /** From the workshop's own root ("/shelf/3"), or from this very page ("?board=oil"). */
  to: string;
  /** Asked of the server as a whole, which is what a file is. */
  reloadDocument?: boolean;
}

/** @example <Link to="/shelf" className="act">Shelf</Link> */
export function Link({ to, reloadDocument = false, ...anchor }: Props) {
  const { home } = useWorkshop();
  const href = to === "/" ? home || "/" : to.startsWith("/") ? home + to : to;
  // The router looks for this mark, and reads ahead how the page is made.
  return <a {...anchor} href={href} data-discover={reloadDocument ? undefined : "true"} />;
}

/** Where an anchor leads within a workshop that stands at `home`; null where it leads elsewhere, or to another tab. */
function pathOf(anchor: HTMLAnchorElement, home: string): Path | null {
  if (anchor.dataset.discover !== "true" || anchor.origin !== window.location.origin || (anchor.target !== "" && anchor.target !== "_self"))
    return null;
  const { pathname, search, hash } = anchor;
  if (pathname !== home && !pathname.startsWith(`${home}/`)) return null;
  return { pathname: pathname.slice(home.length) || "/", search, hash };
}

/** Follows every `Link` without a new document. A press with another button or a key held is the browser's own. */
export function useClientNavigation(home: string): void {
  const go = useNavigate();
  const here = createPath(useLocation());
  useEffect(() => {
    const follow = (e: MouseEvent): void => {
      if (e.defaultPrevented || e.button !== 0 || e.metaKey || e.ctrlKey || e.shiftKey || e.altKey) return;
      const anchor = e.target instanceof Element ? e.target.closest("a") : null;
      const path = anchor && pathOf(anchor, home);
      if (!path) return;
      e.preventDefault();
      void go(path, { replace: createPath(path) === here });
    };
    document.addEventListener("click", follow);
    return () => document.removeEventListener("click", follow);
  }, [go, here, home]);
}
