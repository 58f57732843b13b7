/** How long something has gone on, ticking. */
import { sayElapsed } from "#core/lot/recall";
import { useEffect, useState } from "react";

/** @param from milliseconds that had gone by when the page was read */
export function Ticking({ from }: { from: number }) {
  const [more, set] = useState(0);
  useEffect(() => {
    const since = performance.now();
    const tick = setInterval(() => set(performance.now() - since), 1000);
    return () => clearInterval(tick);
  }, [from]);
  return <span role="timer">{sayElapsed(from + more)}</span>;
}
