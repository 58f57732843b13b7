/** Keeps the focused field at its place on the screen while what is above it comes, goes or grows. */
import { useEffect, type RefObject } from "react";

/**
 * Scrolls by as much as the field with the cursor was moved by something other than a scroll, before it is painted anywhere else. Browsers hold
 * on to a place by themselves only sometimes, or not at all.
 * @param page the element the fields are in; fields laid over it or fixed beside it don't move with it
 */
export function useScrollAnchor(page: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const within = page.current;
    if (!within) return;
    let at: { field: Element; top: number } | null = null;
    const look = (): void => {
      const field = document.activeElement;
      const typedInto = field?.matches("input, select, textarea") && within.contains(field) && !field.closest(".reckoner");
      at = field && typedInto ? { field, top: field.getBoundingClientRect().top } : null;
    };
    const moved = new ResizeObserver(() => {
      const was = at;
      look();
      // One that nobody sees needs no holding.
      if (!was || was.field !== at?.field || was.top < 0 || was.top > window.innerHeight) return;
      window.scrollBy({ top: at.top - was.top, behavior: "instant" });
      look();
    });
    moved.observe(within);
    document.addEventListener("focusin", look);
    document.addEventListener("scroll", look, { passive: true });
    return () => {
      moved.disconnect();
      document.removeEventListener("focusin", look);
      document.removeEventListener("scroll", look);
    };
  }, [page]);
}
