/** Choosing a file or taking a photo to keep with a record; sent as soon as it is chosen. */
import { useId, useState } from "react";
import { useFetcher } from "react-router";
import type { Reply } from "../forms/sheet.server.ts";
import { Problem } from "../ui/fields/form.tsx";

/** Said before it is sent; the server has the last word. */
const MOST_MB = 12;

export function KeepFile({ to, accept, label }: { to: string; accept: string; label: string }) {
  const id = useId();
  const keep = useFetcher<Reply | null>();
  const [large, setLarge] = useState(false);
  return (
    <span>
      <label htmlFor={id} className={`act ${keep.state !== "idle" ? "opacity-55" : ""} focus-within:outline-2`}>
        {keep.state === "idle" ? label : "Saving …"}
        <input
          id={id}
          type="file"
          accept={accept}
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (!file) return;
            setLarge(file.size > MOST_MB * 1_000_000);
            if (file.size > MOST_MB * 1_000_000) return;
            const body = new FormData();
            body.set("file", file);
            // Chosen once it is saved once, however often it is sent.
            body.set("token", crypto.randomUUID());
            void keep.submit(body, { method: "post", action: to, encType: "multipart/form-data" });
            e.target.value = "";
          }}
        />
      </label>
      <Problem say={large ? `That file is over ${MOST_MB} MB. Make it smaller.` : keep.data?.problems[0]?.say} />
    </span>
  );
}
