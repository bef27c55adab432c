/** Usual factor of damping per click closed. */
export const usualRatioPerClick = { low: 1.12, high: 1.1 }
