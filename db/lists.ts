/** The most rows a list reads at once: more than five years of anything but lots and movements, which have pages of their own. */
export const LISTED_AT_MOST = 5_000;
