/** A time of day by the reader's clock: the server's may differ, so it is filled in once the page runs. */
import { useEffect, useState } from "react";

export function TimeOfDay({ at }: { at: Date | string }) {
  const [text, say] = useState("");
  const iso = new Date(at).toISOString();
  useEffect(() => say(new Date(iso).toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit" })), [iso]);
  return (
    <time dateTime={iso} className="weight w-16 flex-none text-small text-pine-soft">
      {text || "…"}
    </time>
  );
}
