/** Settings are the worse ones when they are better with less than this chance. */
export const worseBelow = 0.3
