/** The heading of a batch's record, whatever became of it. */
import { Link } from "react-router";
import type { ReactNode } from "react";
import type { BatchSheet } from "#db/bench/read";
import { Print } from "../../ui/sheet/print.tsx";
import { Heading } from "../../ui/sheet/sheet.tsx";

export const RecordHeading = ({ batch, recipe, about }: Pick<BatchSheet, "batch" | "recipe"> & { about: ReactNode }) => (
  <Heading title={recipe.name} about={about}>
    <Print pdf={`/bench/${batch.id}/pdf`} />
    <Link to={`/bench/set-out?recipe=${recipe.id}`} className="act">
      Make it again
    </Link>
  </Heading>
);
