/** What is set large at the head of a recall's letter. */
export const headsLetter = (paragraph: string): boolean => /^(RECALL|REHEARSAL)/.test(paragraph);
