/**
 * The text of a file whose alphabet nobody says: UTF-8 where it is that, UTF-16 as spreadsheets save "Unicode text", and the code pages of older
 * programs as a detector finds them. What can't be read whole is refused, never half-garbled.
 */
import { analyse } from "chardet";
import { done, refuse, type Outcome } from "#core/outcome";

/** Larger than twenty thousand long lines in two bytes a character. */
export const MOST_BYTES = 20_000_000;
export const TOO_LARGE = refuse("tooLarge", "That file is over 20 MB: no list of goods is. Choose another, or split it.");
/** The detector looks at the beginning; the whole of a long file tells no more. */
const LOOKED_AT = 64_000;
/** Sure enough of another alphabet than the western one, which short lists look like in most. */
const SURE = 60;

const decode = (bytes: Uint8Array, as: string): string | null => {
  try {
    const text = new TextDecoder(as, { fatal: true }).decode(bytes);
    return text.includes("\ufffd") ? null : text;
  } catch {
    return null;
  }
};

/** UTF-16 without a mark: letters of a table have a zero in every second byte. */
function wide(bytes: Uint8Array): string | null {
  const head = bytes.subarray(0, LOOKED_AT);
  if (head.length < 2) return null;
  const zeros = [0, 0];
  head.forEach((b, i) => (zeros[i % 2]! += b === 0 ? 1 : 0));
  const most = head.length / 2;
  if (zeros[1]! > most * 0.4 && zeros[0]! < most * 0.1) return "utf-16le";
  return zeros[0]! > most * 0.4 && zeros[1]! < most * 0.1 ? "utf-16be" : null;
}

/**
 * @returns problems `tooLarge`, `notText`
 * @example textOf(Uint8Array.of(0x53, 0x68, 0xe9, 0x61)) // "Shéa", of a file saved in Windows-1252
 */
export function textOf(bytes: Uint8Array): Outcome<string> {
  if (bytes.length > MOST_BYTES) return TOO_LARGE;
  const marked = bytes[0] === 0xff && bytes[1] === 0xfe ? "utf-16le" : bytes[0] === 0xfe && bytes[1] === 0xff ? "utf-16be" : wide(bytes);
  const guessed = (): string => {
    const [best] = analyse(bytes.subarray(0, LOOKED_AT));
    return best && best.confidence >= SURE && !/^(ISO-8859-1|UTF|ASCII)/.test(best.name) ? best.name : "windows-1252";
  };
  const text = marked ? decode(bytes, marked) : (decode(bytes, "utf-8") ?? decode(bytes, guessed()) ?? decode(bytes, "windows-1252"));
  return text === null
    ? refuse("notText", "That file can't be read as text. In your spreadsheet, save it as CSV in UTF-8 and choose that file.")
    : done(text);
}
