/** The presses under a list that is read a part at a time: the server writes its files, of everything that was asked for. */
import { useHref } from "react-router";

function File({ to, say }: { to: string; say: string }) {
  return (
    <a href={useHref(to)} download className="pressable">
      {say}
    </a>
  );
}

/** @param files where each is, and what its press says */
export function SaveAs({ files }: { files: readonly (readonly [to: string, say: string])[] }) {
  return (
    <p className="no-print mt-3 flex flex-wrap items-baseline justify-end gap-x-5 text-small">
      {files.map(([to, say]) => (
        <File key={to} to={to} say={say} />
      ))}
    </p>
  );
}
