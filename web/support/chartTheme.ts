/** A colour of styles/tokens.scss as charts need it: a value, not a variable. */
export const token = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim()
