/** The page of plain words in every archive, for a reader without Zelbin. */

export const README = `This file is everything one workshop has written down with Zelbin: its materials, recipes, batches, stock, sales and
all that was ever done. Any program that opens zip files, text and tables can read it.

  manifest.json     what this archive is, when the books were so, and each part with its length and digest (SHA-256)
  manifest.sha256   the digest of manifest.json, to be checked with: sha256sum -c manifest.sha256
  records/*.jsonl   a file for each kind of record, a row to a line, as JSON
  tables/*.csv      the same rows as tables, for a spreadsheet
  files/*           scans and photos, as they were taken; a row of records/attachment.jsonl names each

How to read a row

  Every row has its number in "id". A name that ends in _id is the number of a row of another kind: "material_id": 12 is
  the row of records/material.jsonl with "id": 12.
  Weights are whole milligrams: 60000 is 60 g. What is counted in pieces has pieces in the same place; the material's
  kind tells which. Money is in millionths: 9500000 is 9.50 in the workshop's currency (records/settings.jsonl). Names
  that end in _bp are hundredths of a per cent, in _ppm millionths, in _mg milligrams, in _ml millilitres.
  Days are written year-month-day; moments of time are in UTC.

What hangs on what

  records/act.jsonl       everything that was ever done, in its order; "undoes" is the act that one took back
  records/movement.jsonl  the ledger: every amount ("qty") and value that went into a lot or out of it, and by which act.
                          A lot's "on_hand" and "value" are the sums of its movements
  records/lot.jsonl       what is or was on the shelf and in the cabinet, each with its number

The whole of it is described in docs/formats.md of Zelbin.
`;
