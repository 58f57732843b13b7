/** What is too much, or of no use, of something that is dosed: where more only costs, burns, sinks or separates. Common practice and from memory. */
import { mg } from "../../measure/exact.ts";
import { sayShare } from "../../measure/write.ts";
import { mostInPot } from "../../scent/dilution.ts";
import { forScale, inGrams, type Judge, type Judged, type JudgedLine, type Judgement, type SuggestedFix } from "./judgement.ts";

interface Most {
  /** Above it, of the whole. */
  share: number;
  /** What a press brings it to. */
  to: number;
  gravity: 1 | 2 | 3;
  say: string;
  why: string;
}

/** By library entry. */
const MOST: Readonly<Record<string, Most>> = {
  "vitamin-e": {
    ...{ share: 0.02, to: 0.01, gravity: 1, say: "is more than helps" },
    why: "0.2 to 2 % slows rancidity; more only costs, and feels sticky. It is no preservative.",
  },
  "rosemary-extract": {
    ...{ share: 0.005, to: 0.002, gravity: 1, say: "is more than helps" },
    why: "0.1 to 0.5 % slows rancidity; more smells of hay and colours. It is no preservative.",
  },
  "baking-soda": {
    ...{ share: 0.05, to: 0.05, gravity: 2, say: "burns many skins" },
    why: "It is alkaline wherever there is sweat: over 5 % many get a rash. Magnesium hydroxide is milder.",
  },
  "zinc-oxide": {
    ...{ share: 0.2, to: 0.15, gravity: 1, say: "is more than stays suspended" },
    why: "It sinks while it sets, and the first tins get less than the last. It makes no sunscreen of it either: that claim takes testing.",
  },
  menthol: {
    ...{ share: 0.01, to: 0.005, gravity: 3, say: "is much" },
    why: "Over about 1 % it burns and can turn a cosmetic into a medicine in law; near a small child's nose it is dangerous at any share.",
  },
};

/** Starch and other powders: 1 to 5 % is usual in a butter, and above this it feels dry and cakes. */
const MOST_POWDER = 0.08;
/** A deodorant is made of powder, a barrier balm of zinc. */
const POWDERY: ReadonlySet<string | null> = new Set(["baking-soda", "magnesium-hydroxide", "zinc-oxide"]);
const MOST_IN_DEODORANT = 0.45;

const lowered = (of: Judged, l: JudgedLine, to: number): SuggestedFix | null => {
  if (!inGrams(of)) return null;
  const entered = forScale(mostInPot(mg(of.total - l.weight), to), of.scale, "down");
  return { say: `Make it ${entered}, about ${sayShare(to)}`, rows: [{ row: l.row, entered }] };
};

const dosed = (of: Judged): Judgement[] =>
  of.lines.flatMap((l): Judgement[] => {
    const most = l.libraryKey === null ? undefined : MOST[l.libraryKey];
    if (!most || l.share <= most.share) return [];
    const { gravity, say, why } = most;
    return [
      {
        key: `much ${l.name}`,
        gravity,
        say: `${sayShare(l.share)} ${l.name} ${say}.`,
        why,
        figure: sayShare(l.share),
        mend: lowered(of, l, most.to),
      },
    ];
  });

function powders(of: Judged): Judgement[] {
  const powder = of.lines.filter((l) => l.kind === "powder" && l.libraryKey !== "menthol").reduce((a, l) => a + l.share, 0);
  if (powder <= (of.lines.some((l) => POWDERY.has(l.libraryKey)) ? MOST_IN_DEODORANT : MOST_POWDER)) return [];
  return [
    {
      key: "much powder",
      gravity: 1,
      say: `${sayShare(powder)} powder feels dry and settles.`,
      why: "Powder doesn't dissolve: 1 to 5 % takes the greasy feel away, more feels dry and sinks while it sets.",
      figure: sayShare(powder),
      mend: null,
    },
  ];
}

/** By library entry: what isn't stirred in. */
const NOT_SO: Readonly<Record<string, { gravity: 1 | 2 | 3; say: string; why: string }>> = {
  cayenne: {
    gravity: 3,
    say: "burns wherever a grain of it lies: steep it and strain, don't stir it in",
    why: "Powder in a salve can't be dosed, and gets into eyes from fingers. Steep it in the oil, strain it through paper, wear gloves, and keep it from eyes, lips and broken skin.",
  },
  beet: {
    gravity: 1,
    say: "doesn't dissolve in oil",
    why: "Its colour is in water: in oil it stays as specks, sinks, and fades. It isn't approved as a colour everywhere either: look first.",
  },
  spirulina: {
    gravity: 1,
    say: "doesn't dissolve in oil",
    why: "Its blue-green is in water: in oil it stays as specks, sinks, and fades. It isn't approved as a colour everywhere either: look first.",
  },
};

const stirredIn = (of: Judged): Judgement[] =>
  of.lines.flatMap((l): Judgement[] => {
    const not = l.libraryKey === null ? undefined : NOT_SO[l.libraryKey];
    return not
      ? [{ key: `in ${l.name}`, gravity: not.gravity, say: `${l.name} ${not.say}.`, why: not.why, figure: sayShare(l.share), mend: null }]
      : [];
  });

export const judgeAmounts: Judge = (of) => [...stirredIn(of), ...dosed(of), ...powders(of)];
