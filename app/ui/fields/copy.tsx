/** A press that copies a text, to be put where it is needed. */
import { useState } from "react";
import { Button } from "./form.tsx";

/** @param of what it is, for a reader who sees no more than the press */
export function Copy({ text, of }: { text: string; of: string }) {
  const [copied, say] = useState(false);
  return (
    <Button
      small
      className="no-print"
      aria-label={`Copy: ${of}`}
      onClick={() => void navigator.clipboard.writeText(text).then(() => say(true))}
    >
      {copied ? "Copied" : "Copy"}
    </Button>
  );
}
