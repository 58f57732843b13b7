/** Choosing a file or taking a photo to keep with a record; sent as soon as it is chosen. */
import { useId } from "react";
import { useFetcher } from "react-router";
import type { Reply } from "../forms/sheet.server.ts";
import { Problem } from "../ui/form.tsx";

export function KeepFile({ to, accept, label }: { to: string; accept: string; label: string }) {
  const id = useId();
  const keep = useFetcher<Reply | null>();
  return (
    <span>
      <label htmlFor={id} className={`act ${keep.state !== "idle" ? "opacity-55" : ""} focus-within:outline-2`}>
        {keep.state === "idle" ? label : "Keeping …"}
        <input
          id={id}
          type="file"
          accept={accept}
          className="sr-only"
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (!file) return;
            const body = new FormData();
            body.set("file", file);
            void keep.submit(body, { method: "post", action: to, encType: "multipart/form-data" });
            e.target.value = "";
          }}
        />
      </label>
      <Problem say={keep.data?.problems[0]?.say} />
    </span>
  );
}
