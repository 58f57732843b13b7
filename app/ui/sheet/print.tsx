/** The press that prints what stands on the screen: every record has it. */
import { Button } from "../fields/form.tsx";

export const Print = ({ children = "Print" }: { children?: string }) => <Button onClick={() => window.print()}>{children}</Button>;
