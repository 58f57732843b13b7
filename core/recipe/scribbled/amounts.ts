/**
 * Finding the amount in a scribbled line: at its start ("2 1/2 cups olive oil"), at its end ("Olive oil, 60 %"), with "about" before it, as
 * a range, in two pieces ("1 cup plus 2 tbsp") or said twice ("1 cup (216 g)"). What is found is written so that a field reads it the same.
 */
import { UNITS, type UnitId } from "../../measure/units.ts";

const VULGAR = "½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞";
const NUMBER = String.raw`(?:\d+\s+\d+\s*[/⁄]\s*\d+|\d+\s*[/⁄]\s*\d+|\d+\s*[${VULGAR}]|[${VULGAR}]|\d[\d.,]*\d|\d)`;
const ABOUT = String.raw`(?:(?:about|approx(?:imately)?\.?|around|roughly|circa|ca\.?|c\.|some(?=\s*\d)|~|≈)\s*)`;
const TO = String.raw`\s*(?:-|–|—|to|or)\s*`;
/** Words people write for a number. */
const SAID: readonly (readonly [RegExp, string])[] = [
  [/^(?:one\s+)?(?:a\s+)?half(?:\s+an?|\s+of\s+an?)?\s+(?=\p{L})/iu, "1/2 "],
  [/^(?:a|one)?\s*quarter(?:\s+of)?(?:\s+an?)?\s+(?=\p{L})/iu, "1/4 "],
  [/^(?:an?|one)\s+(?=\p{L})/iu, "1 "],
  [/^three\s+quarters(?:\s+of)?(?:\s+an?)?\s+(?=\p{L})/iu, "3/4 "],
  [/^two\s+thirds(?:\s+of)?(?:\s+an?)?\s+(?=\p{L})/iu, "2/3 "],
  [/^(?:a|one)?\s*third(?:\s+of)?(?:\s+an?)?\s+(?=\p{L})/iu, "1/3 "],
  [/^two\s+(?=\p{L})/iu, "2 "],
  [/^three\s+(?=\p{L})/iu, "3 "],
  [/^four\s+(?=\p{L})/iu, "4 "],
  [/^five\s+(?=\p{L})/iu, "5 "],
  [/^six\s+(?=\p{L})/iu, "6 "],
  [/^eight\s+(?=\p{L})/iu, "8 "],
  [/^ten\s+(?=\p{L})/iu, "10 "],
  [/^(?:an?\s+)?dozen\s+(?=\p{L})/iu, "12 "],
];

/** How full a measure was, before the amount: "a good quarter cup", "scant 1/4 cup". */
const FULL = /^(?:an?\s+)?(good|scant|generous|heaped|heaping|rounded|bare|full|level|levelled|leveled)\s+(?=[\p{L}\d½⅓⅔¼¾⅛])/iu;
/** Of these the measure is what it says. */
const EXACT = /full|level/i;

/** Amounts nobody can weigh. */
const VAGUE =
  /^(?:an?\s+)?(?:some(?!\s*\d)|pinch|dash|handful|bit|splash|dollop|knob|few(?:\s+drops)?|couple(?:\s+of)?(?:\s+drops)?|little|glug)(?:e?s)?\b(?:\s+of\b)?/i;
const VAGUE_AFTER = /[,(–-]?\s*(?:to taste|as needed|as desired|optional|as you like|for colou?r|until it smells right)\s*\)?$/i;

interface UnitWord {
  word: string;
  id: UnitId;
}
const ALSO: readonly UnitWord[] = [
  { word: "tablespoonfuls", id: "tbsp" },
  { word: "teaspoonfuls", id: "tsp" },
  { word: "dropperfuls", id: "dropper" },
  { word: "dropperful", id: "dropper" },
  { word: "capsules", id: "pc" },
  { word: "capsule", id: "pc" },
  { word: "caps", id: "pc" },
  { word: "parts by weight", id: "part" },
  { word: "oz by weight", id: "oz" },
  { word: "oz weight", id: "oz" },
  { word: "fl. oz.", id: "floz" },
  { word: "fl.oz.", id: "floz" },
  { word: "fluid oz", id: "floz" },
];
const WORDS: readonly UnitWord[] = [
  ...ALSO,
  ...(Object.keys(UNITS) as UnitId[]).flatMap((id) => UNITS[id].words.map((word) => ({ word, id }))),
].sort((a, b) => b.word.length - a.word.length);

/** The unit a text begins with, and what comes after it. */
function unitAt(text: string): { id: UnitId; rest: string } | null {
  const t = text.replace(/^\s*/, "");
  if (/^T\b\.?/.test(t)) return { id: "tbsp", rest: t.replace(/^T\.?\s*/, "") };
  if (/^t\b\.?/.test(t)) return { id: "tsp", rest: t.replace(/^t\.?\s*/, "") };
  const low = t.toLowerCase();
  for (const { word, id } of WORDS) {
    if (!low.startsWith(word)) continue;
    const after = t.slice(word.length);
    if (/^[\p{L}\d]/u.test(after)) continue;
    return { id, rest: after.replace(/^\.(?=\s|,|$)/, "").trimStart() };
  }
  return null;
}

export interface FoundAmount {
  /** As a field takes it, one for each reading; more than one is a range. */
  readings: string[];
  unit: UnitId | null;
  /** The word that says it isn't exact; null where none does. */
  about: string | null;
  /** A second saying of the same amount, in brackets: "216 g". */
  also: string | null;
  /** What is left of the line. */
  rest: string;
}

export type Found = FoundAmount | { vague: string; rest: string } | null;

const write = (number: string, unit: UnitId | null): string =>
  `${number
    .replace(/\s*[/⁄]\s*/, "/")
    .replace(/\s+/g, " ")
    .trim()}${unit === null ? "" : ` ${UNITS[unit].label}`}`;

const START = new RegExp(String.raw`^(${ABOUT})?(${NUMBER})(?:${TO}(${ABOUT}?)(${NUMBER}))?(?![\d])\s*-?\s*`, "iu");

/** How a spoon was filled. */
const HEAP = /^(?:level(?:led)?|heaped|heaping|scant|generous|good|bare|rounded|flat)\s+/i;

/** An amount at the start of a text, in as many pieces as it has. */
function atStart(text: string): FoundAmount | null {
  const m = START.exec(text);
  if (!m) return null;
  const [whole, about, , , high] = m;
  const low = m[2]!;
  const heap = HEAP.exec(text.slice(whole.length))?.[0] ?? "";
  const after = text.slice(whole.length + heap.length);
  const found = unitAt(after);
  const unit = found?.id ?? null;
  let rest = found?.rest ?? after;
  const readings = (high === undefined ? [low] : [low, high]).map((n) => write(n, unit));
  // "1 lb 4 oz", "1 cup plus 2 tbsp": pieces of one amount.
  const more = /^(?:\+|plus|and)?\s*(?=[\d½⅓⅔¼¾⅛])/i.exec(rest);
  if (unit !== null && more && high === undefined) {
    const next = atStart(rest.slice(more[0].length));
    if (next?.unit && next.unit !== "percent" && next.readings.length === 1 && UNITS[next.unit].kind === UNITS[unit].kind) {
      readings[0] = `${readings[0]!} ${next.readings[0]!}`;
      rest = next.rest;
    }
  }
  let also: string | null = null;
  const bracket = /^[,/]?\s*\(\s*([^)]*)\)\s*/.exec(rest) ?? /^\/\s*([\d.,]+\s*(?:g|kg|ml|oz)\b)\s*/i.exec(rest);
  const inside = bracket && atStart(bracket[1]!.replace(/^(?:or|=)\s*/i, ""));
  if (bracket && inside?.unit && inside.readings.length === 1 && inside.rest.trim() === "") {
    also = inside.readings[0]!;
    rest = rest.slice(bracket[0].length);
  }
  return {
    readings,
    unit,
    about: about?.trim() ?? (/heap|scant|generous|good|bare|rounded/i.test(heap) ? heap.trim() : null),
    also,
    rest: rest.replace(/^of\s+/i, "").trim(),
  };
}

/** An amount at the end of a line: after a dash, a colon, dots or a comma, or simply there, with its unit. */
function atEnd(text: string): FoundAmount | null {
  const m = new RegExp(String.raw`^(.*?\p{L}.*?)[\s,:=.…–—|\t-]+(${ABOUT}?${NUMBER}(?:${TO}${NUMBER})?.*)$`, "iu").exec(text);
  if (!m) return null;
  const found = atStart(m[2]!);
  // Nothing but a remark in brackets may come after it.
  if (!found?.unit || !/^(?:\([^)]*\)|[,.;]?)?$/.test(found.rest)) return null;
  return { ...found, rest: `${m[1]!.trim()}${found.rest.startsWith("(") ? ` ${found.rest}` : ""}` };
}

/** The number a line begins with, said in words. */
const inFigures = (text: string): string => SAID.reduce((t, [pattern, n]) => (t === text ? t.replace(pattern, n) : t), text);

/**
 * The amount of a line and what is left of it; `vague` for one nobody can weigh; null where there is none.
 * @example findAmount("1 ½ cups olive oil").readings // ["1 ½ cup"]
 * @example findAmount("Olive oil - 60 %").rest // "Olive oil"
 * @example findAmount("20-30 drops lavender").readings // ["20 drop", "30 drop"]
 * @example findAmount("a pinch of mica").vague // "a pinch of"
 */
export function findAmount(line: string): Found {
  const text = line.trim();
  const after = VAGUE_AFTER.exec(text);
  const vague = VAGUE.exec(text);
  if (vague) return { vague: vague[0].trim(), rest: text.slice(vague[0].length).trim() };
  const full = FULL.exec(text);
  if (full) {
    const rest = inFigures(text.slice(full[0].length));
    // "A scant cup" is one; "a good olive oil" is no amount.
    const found = atStart(/^[\d½⅓⅔¼¾⅛]/.test(rest) ? rest : `1 ${rest}`);
    if (found?.unit) return { ...found, about: EXACT.test(full[1]!) ? found.about : full[1]! };
  }
  const said = inFigures(text);
  const start = atStart(said);
  if (start && (start.unit !== null || said === text)) return start;
  if (start && unitAt(start.rest)) return start;
  const end = atEnd(text);
  if (end) return end;
  return after ? { vague: after[0].replace(/^[,(–\s-]+|\)$/g, ""), rest: text.slice(0, after.index).trim() } : null;
}
