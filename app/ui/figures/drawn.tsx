/**
 * A picture drawn once the page stands: the charts' package is fetched then, and the server has no part in it. What it shows stands in a table
 * as well.
 */
import { Suspense, useEffect, useState, type ReactNode } from "react";

/** @param height in pixels, kept free from the start so that nothing moves when it comes */
export function Drawn({ height, children }: { height: number; children: ReactNode }) {
  const [drawn, draw] = useState(false);
  useEffect(() => draw(true), []);
  return <div style={{ height: `${height}px` }}>{drawn && <Suspense>{children}</Suspense>}</div>;
}

/** The table of a picture, where it isn't wanted at first sight. */
export function AsTable({ children }: { children: ReactNode }) {
  return (
    <details className="mt-1">
      <summary className="pressable text-[0.92rem]">The same as a table</summary>
      {children}
    </details>
  );
}
