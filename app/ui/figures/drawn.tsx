/**
 * A chart drawn once the page is shown: the charts' package is fetched then, and the server has no part in it. Its figures are in a table
 * as well.
 */
import { Suspense, useEffect, useState, type CSSProperties, type ReactNode } from "react";

interface Props {
  /** In pixels, reserved from the start so that nothing moves when it comes. */
  height: number;
  /** On a phone, where names take several lines, or less is shown at once. */
  onPhone?: number;
  className?: string;
  children: ReactNode;
}

export function Drawn({ height, onPhone = height, className = "", children }: Props) {
  const [drawn, draw] = useState(false);
  useEffect(() => draw(true), []);
  return (
    <div
      className={`h-(--desk) max-sm:h-(--phone) ${className}`}
      style={{ "--desk": `${height}px`, "--phone": `${onPhone}px` } as CSSProperties}
    >
      {drawn && <Suspense>{children}</Suspense>}
    </div>
  );
}

/** The table of a picture, where it isn't wanted at first sight. */
export function AsTable({ children }: { children: ReactNode }) {
  return (
    <details className="mt-1">
      <summary className="pressable text-small">The same as a table</summary>
      {children}
    </details>
  );
}
