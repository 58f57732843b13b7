/**
 * Writing numbers. Thousands are parted by a thin space, which is no decimal mark in any country, so that a figure copied off a
 * screen into a field is that figure (SI Brochure, 9th edition, 5.4.4, quoted from memory: groups of three
 * by a thin space, neither dots nor commas).
 * Formatters are cached: making one costs more than using it a thousand times.
 */
/** What parts thousands: a narrow space at which no line breaks. */
export const THIN = "\u202f";
const formats = new Map<string, Intl.NumberFormat>();

/** A number with between so many decimals. @example writeNumber(1050.25, 0, 1) // "1 050.3" */
export function writeNumber(n: number, least: number, most: number): string {
  const key = `${least} ${most}`;
  let format = formats.get(key);
  if (!format) {
    format = new Intl.NumberFormat("en-GB", { minimumFractionDigits: least, maximumFractionDigits: most });
    formats.set(key, format);
  }
  return format.format(n).replaceAll(",", THIN);
}

/** A figure for a field, where thousands are not parted. @example forField("1 050.3 g") // "1050.3 g" */
export const forField = (written: string): string => written.replaceAll(THIN, "");
