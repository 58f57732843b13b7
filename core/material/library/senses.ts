/**
 * What a hand and a nose know of the library's materials: how long a scent lasts, how a fat feels on the skin, and whether it smells of
 * itself. From memory and common practice, no source; the maker's own word goes before each.
 */
import type { ScentNote, SkinFeel, Smell } from "../senses.ts";

const NOTES: Readonly<Record<Exclude<ScentNote, "">, string>> = {
  top: "tea-tree peppermint spearmint eucalyptus lemon orange bitter-orange grapefruit bergamot bergamot-fcf lime lime-distilled lemongrass petitgrain mandarin",
  middle:
    "lavender rosemary ylang geranium clove-bud cinnamon-bark cinnamon-leaf juniper pine cypress clary-sage chamomile-roman thyme neroli fir black-pepper",
  base: "patchouli cedarwood cedarwood-virginian frankincense vetiver",
};

const FEELS: Readonly<Record<Exclude<SkinFeel, "">, string>> = {
  light:
    "sunflower safflower safflower-oleic grapeseed almond apricot peach plum jojoba hazelnut argan meadowfoam camellia fractionated-coconut rosehip evening-primrose borage blackcurrant raspberry squalane babassu coffee pomegranate prickly-pear watermelon carrot jojoba-esters",
  medium:
    "sunflower-oleic sesame soybean rapeseed rice-bran corn cottonseed macadamia moringa baobab marula hemp flax oat walnut pumpkin mango kokum sal murumuru tucuma coconut-virgin coconut-refined palm-kernel cupuacu candelilla rice-wax sunflower-wax berry-wax japan-wax cetyl-alcohol stearic-acid palm bacuri hemp-butter almond-butter black-cumin emu",
  rich: "olive peanut avocado castor sea-buckthorn neem tamanu shea-unrefined shea-refined cocoa-raw cocoa-deodorised illipe tallow-beef avocado-butter lanolin lard beeswax-yellow beeswax-white carnauba soy-wax castor-wax microcrystalline ozokerite ucuuba tallow-lamb",
};

const SMELLS: Readonly<Record<Exclude<Smell, "">, string>> = {
  none: "sunflower sunflower-oleic safflower safflower-oleic grapeseed soybean rapeseed rice-bran corn cottonseed almond apricot jojoba castor moringa meadowfoam camellia fractionated-coconut evening-primrose squalane beeswax-white candelilla carnauba rice-wax sunflower-wax soy-wax castor-wax cocoa-deodorised mango kokum sal shea-refined coconut-refined babassu palm-kernel avocado-butter microcrystalline ozokerite jojoba-esters cetyl-alcohol stearic-acid palm hemp-butter almond-butter emu",
  faint:
    "olive peanut peach avocado hazelnut macadamia argan baobab marula rosehip borage blackcurrant raspberry oat walnut berry-wax illipe tucuma murumuru cupuacu japan-wax ucuuba pomegranate prickly-pear watermelon carrot",
  strong:
    "sesame plum hemp flax sea-buckthorn pumpkin neem tamanu beeswax-yellow cocoa-raw tallow-beef shea-unrefined coconut-virgin lanolin lard bacuri tallow-lamb coffee black-cumin",
};

const byKey = <W extends string>(said: Readonly<Record<W, string>>): ReadonlyMap<string, W> =>
  new Map((Object.keys(said) as W[]).flatMap((word) => said[word].split(" ").map((key): [string, W] => [key, word])));
const [notes, feels, smells] = [byKey(NOTES), byKey(FEELS), byKey(SMELLS)];

/** @param key of the library @example sensesOf("eo-cedarwood").scentNote // "base" */
export const sensesOf = (key: string): { scentNote: ScentNote; feel: SkinFeel; smell: Smell } => ({
  scentNote: notes.get(key.replace(/^eo-/, "")) ?? "",
  feel: feels.get(key) ?? "",
  smell: smells.get(key) ?? "",
});
