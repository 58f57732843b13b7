/**
 * What a scale and a thermometer on the bench say, a line at a time: plain words and figures, as they would come over a serial line.
 *
 *     hello scale 0.1 g 2000 g            its step and the most it carries, once when it is plugged in; "simulated" after it where it is a stand-in
 *     weight 41.3 g net stable            "gross" where nothing is tared; "moving" while it settles
 *     weight over                         more than it carries; "under" below nothing it can show
 *     heat 54.2 C                         or F; "heat none" with the probe out
 *     done tare, no tare                  its answer to what it was told
 *
 * A line that is none of these is noise, and passed over: a plug that wobbles says half of one.
 */
import { celsiusOf } from "../measure/heat.ts";
import { ofSteps } from "../recipe/scale.ts";
import { minus, type Mg } from "../measure/exact.ts";

/** What a scale shows. */
export type ScaleReading = { standing: "stable" | "moving"; net: boolean; weight: Mg } | { standing: "over" | "under" };
/** What a thermometer shows; null with the probe out. */
export interface HeatReading {
  celsius: number | null;
}
/** What a device says of itself. */
export interface Hello {
  kind: "scale" | "thermometer";
  simulated: boolean;
  /** Of a scale: the least it tells apart, and the most it carries. */
  step: Mg | null;
  most: Mg | null;
}
export type DeviceLine =
  | { of: "weight"; reading: ScaleReading }
  | { of: "heat"; reading: HeatReading }
  | { of: "hello"; hello: Hello }
  | { of: "answer"; to: string; done: boolean };

/** A weight as it is written, to the milligram. */
function weightIn(figure: string, unit: string): Mg {
  const [whole = "0", parts = ""] = figure.replace("-", "").split(".");
  const thousandths = Number(whole) * 1000 + Number(parts.padEnd(3, "0").slice(0, 3));
  const weight = ofSteps(thousandths, { unit: unit === "oz" ? "oz" : "g", step: 1 });
  return figure.startsWith("-") ? minus(weight) : weight;
}

const WEIGHT = /^weight (-?\d{1,7}(?:\.\d{1,3})?) (g|oz) (net|gross) (stable|moving)$/;
const HEAT = /^heat (-?\d{1,4}(?:\.\d{1,2})?) ([CF])$/;
const HELLO = /^hello (scale|thermometer)(?: (\d+(?:\.\d{1,3})?) (g|oz) (\d+(?:\.\d{1,3})?) \3)?( simulated)?$/;
const ANSWER = /^(done|no) ([a-z]+)$/;

/**
 * Reads one line; null where it is none a device says.
 * @example readLine("weight 41.3 g net stable") // { of: "weight", reading: { standing: "stable", net: true, weight: 41_300 } }
 * @example readLine("heat 129.2 F").reading.celsius // 54
 * @example readLine("wei") // null
 */
export function readLine(line: string): DeviceLine | null {
  const text = line.trim();
  if (text === "weight over" || text === "weight under")
    return { of: "weight", reading: { standing: text === "weight over" ? "over" : "under" } };
  if (text === "heat none") return { of: "heat", reading: { celsius: null } };
  const w = WEIGHT.exec(text);
  if (w) {
    const [, figure, unit, mode, standing] = w;
    const weight = weightIn(figure!, unit!);
    return { of: "weight", reading: { standing: standing === "stable" ? "stable" : "moving", net: mode === "net", weight } };
  }
  const h = HEAT.exec(text);
  // To a hundredth, as near as any probe tells.
  if (h) return { of: "heat", reading: { celsius: Math.round(celsiusOf(Number(h[1]), h[2] === "F" ? "F" : "C") * 100) / 100 } };
  const hello = HELLO.exec(text);
  if (hello) {
    const [, kind, step, unit, most, simulated] = hello;
    const of = (figure: string | undefined): Mg | null => (figure === undefined ? null : weightIn(figure, unit!));
    return {
      of: "hello",
      hello: { kind: kind === "scale" ? "scale" : "thermometer", simulated: simulated !== undefined, step: of(step), most: of(most) },
    };
  }
  const answer = ANSWER.exec(text);
  return answer ? { of: "answer", to: answer[2]!, done: answer[1] === "done" } : null;
}

/** What a scale shows, as it says it. @example writeWeight({ standing: "over" }, 1) // "weight over" */
export function writeWeight(r: ScaleReading, decimals: number): string {
  if (!("weight" in r)) return `weight ${r.standing}`;
  return `weight ${(r.weight / 1000).toFixed(decimals)} g ${r.net ? "net" : "gross"} ${r.standing}`;
}

/** @example writeHeat(54.234) // "heat 54.2 C" */
export const writeHeat = (celsius: number | null): string => (celsius === null ? "heat none" : `heat ${celsius.toFixed(1)} C`);

/** No line of a device is longer: what goes on and on is noise. */
const LONGEST = 200;

/**
 * Cuts what comes over a line into whole lines, however it was broken up on its way.
 * @example lineCutter()("weight 41.3 g net stable\r\nhea") // ["weight 41.3 g net stable"]
 */
export function lineCutter(): (piece: string) => string[] {
  let rest = "";
  return (piece) => {
    const lines = (rest + piece).split(/\r?\n/);
    rest = lines.pop() ?? "";
    if (rest.length > LONGEST) rest = "";
    return lines.filter((l) => l.trim() !== "" && l.length <= LONGEST);
  };
}
