/** The two workshops of a house: the invented one to try things on, and one's own; and a backup of that to be looked at. */

/** What each is called, and where its pages are. */
export const WORKSHOPS = {
  demo: { say: "Demo", about: "an invented workshop to try things on", home: "/demo" },
  own: { say: "Yours", about: "your own workshop", home: "/own" },
} as const;
export type WorkshopKind = keyof typeof WORKSHOPS;

/** Whose pages are served: both, and a backup that is only looked at. It is a copy of one's own that nothing can be written to. */
export const SERVED = { ...WORKSHOPS, look: { say: "Looking", about: "a backup, opened to look at", home: "/look" } } as const;
export type ServedKind = keyof typeof SERVED;
export const SERVED_KINDS = Object.keys(SERVED) as ServedKind[];

/** The answer to every act there. */
export const ONLY_LOOKED_AT = "This is a backup, opened to look at: nothing can be changed here. Go back to your own books to do that.";

/**
 * The workshop an address belongs to.
 * @example workshopOf("/own/shelf/3") // "own"
 * @example workshopOf("/ownership") // null
 */
export const workshopOf = (pathname: string): ServedKind | null => {
  const first = pathname.split("/")[1];
  return SERVED_KINDS.find((k) => SERVED[k].home === `/${first}`) ?? null;
};
