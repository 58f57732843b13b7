/** The scale and the thermometer as a page sees them: what they show now, and whether they are there at all. */
import type { Sample } from "#core/batch/weighing/cooling";
import type { HeatReading, ScaleReading } from "#core/device/lines";
import { isObject } from "#core/objects";
import type { State } from "#devices/wire";
import { useCallback, useEffect, useState } from "react";
import { useHref } from "react-router";

/** What each shows; null while it is unplugged. */
export interface Shows {
  scale: State<ScaleReading>;
  thermometer: State<HeatReading>;
}

export interface Devices extends Shows {
  /** Warmths so far, some seconds apart. */
  warmths: readonly Sample[];
  tell: (device: "scale" | "thermometer", line: string) => Promise<boolean>;
}

const APART_MS = 4000;
const KEPT = 600;

/** @param first as they were when the page was read */
export function useDevices(first: Shows): Devices {
  const [scale, setScale] = useState(first.scale);
  const [thermometer, setThermometer] = useState(first.thermometer);
  const [warmths, setWarmths] = useState<readonly Sample[]>([]);
  const from = useHref("/devices/stream");
  const to = useHref("/devices/tell");
  useEffect(() => {
    const source = new EventSource(from);
    source.onmessage = (e: MessageEvent<string>) => {
      const said = JSON.parse(e.data) as
        { of: "scale"; state: State<ScaleReading> } | { of: "thermometer"; state: State<HeatReading>; past?: Sample[] };
      if (said.of === "scale") {
        setScale(said.state);
        return;
      }
      setThermometer(said.state);
      if (said.past) setWarmths(said.past);
      const celsius = said.state?.reading?.celsius;
      if (celsius === null || celsius === undefined) return;
      const at = Date.now();
      setWarmths((all) => (at - (all.at(-1)?.at ?? 0) < APART_MS ? all : [...all.slice(-KEPT), { at, celsius }]));
    };
    // The server is gone, and with it what it heard; the browser tries again by itself.
    source.onerror = () => {
      setScale(null);
      setThermometer(null);
    };
    return () => source.close();
  }, [from]);
  const tell = useCallback(
    async (device: "scale" | "thermometer", line: string): Promise<boolean> => {
      try {
        const answer = await fetch(to, {
          method: "POST",
          headers: { "Content-Type": "application/json" },
          body: JSON.stringify({ device, line }),
        });
        const said: unknown = await answer.json();
        return isObject(said) && said.done === true;
      } catch {
        return false;
      }
    },
    [to],
  );
  return { scale, thermometer, warmths, tell };
}
