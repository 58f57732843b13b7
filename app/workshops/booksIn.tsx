/** Where one's own books are stored, to be read and copied; a long path breaks where it must. */
import type { Where } from "#db/workshops/workshops";

export const BooksIn = ({ where: { what, name } }: { where: Where }) => (
  <>
    {what} <span className="weight [overflow-wrap:anywhere] select-all">{name}</span>
  </>
);
