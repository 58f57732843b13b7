/** Where one's own books are kept, to be read and copied; a long path breaks where it must. */
export const BooksIn = ({ where }: { where: string }) => <span className="weight [overflow-wrap:anywhere] select-all">{where}</span>;
