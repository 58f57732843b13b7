/** Waiting for a long act: how far it has come, and a way to stop it. */
import { writeNumber } from "#core/numbers";
import { useEffect, useState } from "react";
import { useHref } from "react-router";
import { Button } from "../ui/fields/form.tsx";

const ASK_MS = 300;

interface Going {
  done: number;
  of: number;
}

/** @param token of the sheet that was sent @param what is done, for the sentence */
export function Waiting({ token, what }: { token: string; what: string }) {
  const at = useHref(`/progress/${token}`);
  const [going, setGoing] = useState<Going | null>(null);
  const [stopping, setStopping] = useState(false);
  useEffect(() => {
    const ask = (): void =>
      void fetch(at)
        .then(async (r) => (r.ok ? setGoing((await r.json()) as Going | null) : undefined))
        // Only looking: what is waited for says itself if it fails.
        .catch(() => undefined);
    const again = setInterval(ask, ASK_MS);
    return () => clearInterval(again);
  }, [at]);
  if (!going || going.of === 0) return null;
  const done = Math.round(going.done);
  return (
    <p className="mb-4 flex flex-wrap items-center gap-4">
      <progress
        className="h-3 w-64 appearance-none overflow-hidden rounded border border-rule-strong bg-paper-deep [&::-moz-progress-bar]:bg-amber-glass [&::-webkit-progress-bar]:bg-paper-deep [&::-webkit-progress-value]:bg-amber-glass"
        max={going.of}
        value={done}
        aria-label={what}
      />
      <span>
        {what}: {writeNumber(done, 0, 0)} of {writeNumber(going.of, 0, 0)}
      </span>
      <Button
        small
        disabled={stopping}
        onClick={() => {
          setStopping(true);
          void fetch(at, { method: "POST", headers: { "Content-Type": "application/json" }, body: "{}" });
        }}
      >
        {stopping ? "Stopping …" : "Stop"}
      </Button>
    </p>
  );
}
