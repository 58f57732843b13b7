/**
 * The manifest of an archive: what the file is, when the books were so, and every part of it with its length and digest. The format is described in
 * docs/formats.md.
 */
import { array, number, object, string, ValidationError, type InferType } from "yup";
import { done, refuse, type Outcome } from "../outcome.ts";

/** Of the archive as a file. The records in it are of the step of the database that the manifest names. */
export const ARCHIVE_FORMAT = 1;

/** Parts that every archive has. */
export const README_PART = "README.txt";
export const MANIFEST_PART = "manifest.json";
/** The manifest's own digest, as `sha256sum` writes it. */
export const SEAL_PART = "manifest.sha256";

/** A line of JSON for each row. @example recordsPart("lot") // "records/lot.jsonl" */
export const recordsPart = (kind: string): string => `records/${kind}.jsonl`;
/** The same rows as a table. @example tablePart("lot") // "tables/lot.csv" */
export const tablePart = (kind: string): string => `tables/${kind}.csv`;
/** Where the files are that rows name: scans and photos. */
export const FILES = "files/";

const whole = () => number().strict().integer().min(0).required();
const line = (most: number) => string().strict().max(most);
const schema = object({
  archive: line(40).required().oneOf(["Zelbin"]),
  format: whole(),
  /** The Zelbin that wrote it. */
  zelbin: line(40).required(),
  /** The last step its database had taken. */
  step: line(120).required(),
  /** What the workshop is called, and since when it has books. */
  workshop: line(200).defined(),
  begun: line(40).required(),
  /** When the newest act in it was done: the moment the books were so. */
  asOf: line(40).required(),
  /** The newest acts, newest first, to know it by. */
  newest: array()
    .of(
      object({ id: whole(), day: line(10).required(), what: line(1000).defined() })
        .noUnknown()
        .required(),
    )
    .max(5)
    .required(),
  /** The number that the next row of each kind gets. */
  nextIds: object().required(),
  parts: array()
    .of(
      object({
        name: line(200).required(),
        bytes: whole(),
        /** Of a part with a row to a line. */
        rows: number().strict().integer().min(0).optional(),
        sha256: line(64)
          .required()
          .matches(/^[0-9a-f]{64}$/),
      })
        .noUnknown()
        .required(),
    )
    .max(1_000_000)
    .required(),
}).noUnknown();

export type Manifest = Omit<InferType<typeof schema>, "nextIds"> & { nextIds: Record<string, number> };
export type ArchivePart = Manifest["parts"][number];

/** The manifest as text. */
export const writeManifest = (manifest: Manifest): string => `${JSON.stringify(manifest, null, 2)}\n`;

const NEWER = "This archive was written by a newer Zelbin than this one. Bring this one up to date, then open it again.";

/** Whether a number is one that a row may have next. */
const isNext = (n: unknown): n is number => typeof n === "number" && Number.isSafeInteger(n) && n > 0;

/**
 * @param steps every step this Zelbin knows, in their order
 * @returns the manifest; refused, in words, where it is none, or a newer Zelbin's
 */
export function readManifest(text: string, steps: readonly string[]): Outcome<Manifest> {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    return refuse("noJson", `${MANIFEST_PART} can't be read: it is no JSON.`);
  }
  try {
    const { format, step, ...rest } = schema.validateSync(read, { strict: true });
    if (format !== ARCHIVE_FORMAT || !steps.includes(step)) return refuse("newer", NEWER);
    const wrong = Object.entries(rest.nextIds).find(([, n]) => !isNext(n));
    if (wrong) return refuse("badManifest", `${MANIFEST_PART} can't be read: nextIds.${wrong[0]} must be a number above 0.`);
    return done({ format, step, ...rest, nextIds: rest.nextIds });
  } catch (e) {
    if (e instanceof ValidationError) return refuse("badManifest", `${MANIFEST_PART} can't be read: ${e.message}.`);
    throw e;
  }
}

/** Of an archive, how many rows of each kind are in it. */
export const rowsByKind = (manifest: Manifest): ReadonlyMap<string, number> =>
  new Map(
    manifest.parts.flatMap((p): [string, number][] => {
      const kind = /^records\/(\w+)\.jsonl$/.exec(p.name)?.[1];
      return kind !== undefined && p.rows !== undefined ? [[kind, p.rows]] : [];
    }),
  );
