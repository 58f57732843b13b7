/** The most rows a list reads at once: more than five years of anything but lots and movements, which are read in pages. */
export const LISTED_AT_MOST = 5_000;
