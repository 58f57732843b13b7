/** Choosing a file or taking a photo to keep with a record; sent as soon as it is chosen. */
import { useState } from "react";
import { useFetcher } from "react-router";
import type { Reply } from "../forms/sheet.server.ts";
import { FileButton } from "../ui/fields/fileButton.tsx";
import { Problem } from "../ui/fields/form.tsx";

/** Said before it is sent; the server has the last word. */
const MOST_MB = 12;

export function KeepFile({ to, accept, label }: { to: string; accept: string; label: string }) {
  const keep = useFetcher<Reply | null>();
  const [large, setLarge] = useState(false);
  return (
    <span>
      <FileButton
        accept={accept}
        disabled={keep.state !== "idle"}
        onFile={(file) => {
          setLarge(file.size > MOST_MB * 1_000_000);
          if (file.size > MOST_MB * 1_000_000) return;
          const body = new FormData();
          body.set("file", file);
          // Chosen once it is saved once, however often it is sent.
          body.set("token", crypto.randomUUID());
          void keep.submit(body, { method: "post", action: to, encType: "multipart/form-data" });
        }}
      >
        {keep.state === "idle" ? label : "Saving …"}
      </FileButton>
      <Problem say={large ? `That file is over ${MOST_MB} MB. Make it smaller.` : keep.data?.problems[0]?.say} />
    </span>
  );
}
