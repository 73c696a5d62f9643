/**
 * Version of the piece file. A newer one is refused with words, never read in part; an older one is carried over
 * (upgrade.ts).
 */
export const PIECE_VERSION = 3
