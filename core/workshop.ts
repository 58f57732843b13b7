/** The two workshops of a house: the invented one to try things on, and one's own. */

/** What each is called, and where its pages are. */
export const WORKSHOPS = {
  demo: { say: "Demo", about: "an invented workshop to try things on", home: "/demo" },
  own: { say: "Yours", about: "your own workshop", home: "/own" },
} as const;
export type WorkshopKind = keyof typeof WORKSHOPS;
export const WORKSHOP_KINDS = Object.keys(WORKSHOPS) as WorkshopKind[];

/**
 * The workshop an address belongs to.
 * @example workshopOf("/own/shelf/3") // "own"
 * @example workshopOf("/ownership") // null
 */
export const workshopOf = (pathname: string): WorkshopKind | null => {
  const first = pathname.split("/")[1];
  return WORKSHOP_KINDS.find((k) => WORKSHOPS[k].home === `/${first}`) ?? null;
};
