/** Shows a saved scan or photo, as a picture or a link to it. */
import type { ReactNode } from "react";
import { Link, useHref } from "react-router";

export const KeptPicture = ({ id, alt, className }: { id: number; alt: string; className: string }) => (
  <img src={useHref(`/files/${id}`)} alt={alt} loading="lazy" className={`rounded border border-rule object-cover ${className}`} />
);

/** Opens it whole, beside the page. */
export const KeptFileLink = ({ id, className, children }: { id: number; className: string; children: ReactNode }) => (
  <Link reloadDocument to={`/files/${id}`} target="_blank" rel="noreferrer" className={className}>
    {children}
  </Link>
);
