/** Where a page was left: which of its boards was open is so again when it is come back to, for as long as the tab is open. */
import { useEffect } from "react";
import { useHref, useLocation, useNavigate } from "react-router";

/** @param param of the address, which says what is open; an empty one says that nothing is */
export function useRemembered(param: string): void {
  const { pathname, search } = useLocation();
  const go = useNavigate();
  const key = `open ${useHref(pathname)}`;
  useEffect(() => {
    if (new URLSearchParams(search).has(param)) {
      sessionStorage.setItem(key, search);
      return;
    }
    const was = sessionStorage.getItem(key);
    if (search === "" && was !== null && was !== `?${param}=`) void go(was, { replace: true, preventScrollReset: true });
  }, [search, key, param, go]);
}
