/**
 * Names in an ingredient list, by country: the library has the European Union's, and here are those that the United States call otherwise. One
 * list is written in the names of one of them, never mixed. From memory.
 */
const IN_THE_US: Readonly<Record<string, string>> = {
  "beeswax-yellow": "Beeswax",
  "beeswax-white": "Beeswax",
  microcrystalline: "Microcrystalline Wax",
  "tallow-beef": "Tallow",
  "tallow-lamb": "Mutton Tallow",
  lard: "Lard",
  emu: "Emu Oil",
  honey: "Honey",
  water: "Water",
  mica: "Mica",
  "titanium-dioxide": "Titanium Dioxide",
  "iron-red": "Iron Oxides",
  "iron-yellow": "Iron Oxides",
  "rose-clay": "Kaolin, Iron Oxides",
  "lip-flavour": "Flavor",
};

/**
 * What the United States call it, where that is another name.
 * @param key of the library
 * @example usName("beeswax-white") // "Beeswax"
 * @example usName("olive") // null
 */
export const usName = (key: string | null): string | null => (key === null ? null : (IN_THE_US[key] ?? null));

/** Both names, said with their countries where they differ. @example inciText("Mel", "honey") // "Mel (EU), Honey (US)" */
export function inciText(inci: string, key: string | null): string {
  const us = usName(key);
  return us === null || inci === "" || inci.toLowerCase() === us.toLowerCase() ? inci : `${inci} (EU), ${us} (US)`;
}
