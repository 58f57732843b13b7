/**
 * Words in a product's name that turn a cosmetic into a medicine, a sunscreen or a pesticide in the eyes of the law: a first list, which warns and
 * never clears. Common practice, no source; which words are whose depends on the place, and local rules come first.
 */

export interface Claim {
  /** As it was written. */
  word: string;
  why: string;
}

const MEDICINE = "it promises to act on the body or an illness, which makes it a medicine in most places";
const SUN = "a protection claim needs testing and, in many places, a licence; zinc oxide in a balm is no sunscreen";
const PEST = "it promises to keep insects or germs away, which makes it a pesticide or a biocide in many places";

/** What each of them is about, by whole words. */
const CLAIMS: readonly (readonly [RegExp, string])[] = [
  [/\bheal(?:s|ing|er)?\b/iu, MEDICINE],
  [/\btreat(?:s|ing|ment|ments)?\b(?! yourself)/iu, MEDICINE],
  [/\bcur(?:es?|ing|ative)\b/iu, MEDICINE],
  [/\b(?:remedy|remedies|medic(?:ine|inal|ated)|therap(?:y|eutic)|clinical(?:ly)?)\b/iu, MEDICINE],
  [
    /\b(?:eczema|psoriasis|dermatitis|rosacea|acne|athlete['’]?s foot|ringworm|cold sores?|h(?:a)?emorrhoids?|arthritis|rash(?:es)?|burns?|wounds?|infections?)\b/iu,
    MEDICINE,
  ],
  [/\b(?:pain|ache)(?: ?-?(?:relief|killer|free))\b|\b(?:reliev(?:es?|ing)|soothes?) (?:pain|aches?|joints?|muscles?)\b/iu, MEDICINE],
  [/\banti[- ]?(?:inflammatory|itch|fungal|histamine|septic)\b/iu, MEDICINE],
  [/\banti[- ]?(?:bacterial|microbial|viral)\b|\b(?:kills|fights) (?:germs|bacteria)\b/iu, PEST],
  [/\b(?:insect|bug|mosquito|midge|tick|flea)s?[- ](?:repellent|away|off|spray|bar|balm)\b|\brepels?\b/iu, PEST],
  [/\bspf ?\d*\b|\bsun[- ]?(?:screen|block|protection|protective)\b|\buv[- ]?(?:protection|filter)\b/iu, SUN],
];

/**
 * The words of a name that claim more than a cosmetic may, in the order they are in it.
 * @example claimsIn("Healing balm SPF 15").map((c) => c.word) // ["Healing", "SPF 15"]
 * @example claimsIn("Heather and honey balm") // []
 */
export const claimsIn = (name: string): Claim[] =>
  CLAIMS.flatMap(([words, why]) => {
    const found = words.exec(name);
    return found ? [{ at: found.index, word: found[0].trim(), why }] : [];
  })
    .sort((a, b) => a.at - b.at)
    .map(({ word, why }) => ({ word, why }));

/** The warning beside a name; null where there is none. @example sayClaims("Salve for eczema") !== null // true */
export function sayClaims(name: string): string | null {
  const [first] = claimsIn(name);
  return first
    ? `“${first.word}” in a name: ${first.why}. Call it by what it is or how it feels, and look at the rules where you sell.`
    : null;
}
