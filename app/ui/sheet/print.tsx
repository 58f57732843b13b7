/** The print button of every record. */
import { Button } from "../fields/form.tsx";

export const Print = ({ children = "Print" }: { children?: string }) => <Button onClick={() => window.print()}>{children}</Button>;
