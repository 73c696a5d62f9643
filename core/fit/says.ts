import type { Feel } from './bracelet'

/** How a fit is said in a heading. */
export const FEEL_WORDS: Record<Feel, string> = {
  'will not close': 'No, it will not close',
  'tight': 'Barely: it would be tight',
  'close': 'Yes, close to the wrist',
  'easy': 'Yes, easy on the wrist',
  'loose': 'Yes, loose on the wrist',
  'too loose': 'It closes, but far too loose',
}

export const fitsWell = (feel: Feel): boolean => feel === 'close' || feel === 'easy' || feel === 'loose'
