/** The print button of every record, and the same as a file. */
import { useHref } from "react-router";
import { Button } from "../fields/form.tsx";

const Pdf = ({ at }: { at: string }) => (
  <a href={useHref(at)} download className="act">
    Save as PDF
  </a>
);

/** @param pdf where the server writes it as a file; absent where it is printed alone @param main whether it is what the page is for */
export const Print = ({ children = "Print", pdf, main = false }: { children?: string; pdf?: string | undefined; main?: boolean }) => (
  <>
    <Button main={main} onClick={() => window.print()}>
      {children}
    </Button>
    {pdf && <Pdf at={pdf} />}
  </>
);
