/** A left foot-sole seen from below the glass, heel at the bottom, in a 24 × 40 box. */
export const SOLE_PATH =
  'M12 1C17 1 20 5 20 11C20 16 17.6 18 17.6 23C17.6 27 19 29 19 33C19 37 16.5 39 12.5 39C8.5 39 6.5 36.5 6.5 32.5C6.5 28 7.6 25 6.6 20C5.6 16 4 14 4 10C4 5 7 1 12 1Z'
