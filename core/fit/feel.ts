import type { Fit } from '../piece/schema'
import { CUFF_SHARE, fitKindOf, type FitKind } from '../wear/kind'

export const FEELS = [
  'will not close',
  'will not pass',
  'tight',
  'close',
  'easy',
  'loose',
  'too loose',
  'short',
  'right',
  'long',
] as const

export type Feel = (typeof FEELS)[number]

/**
 * Upper bounds of room, mm, for will not close, tight, close, easy and loose; they lie halfway between the common
 * figures.
 */
type Bounds = readonly [number, number, number, number, number]

const WRIST: Bounds = [0, 3, 9.5, 16, 30]
/** As at the wrist, where −5 mm stands for close: elastic gives. */
const ELASTIC: Bounds = [-11, -8, -1.5, 5, 19]
const NECK: Bounds = [0, 5, 38, 90, 125]

const bandOf = (roomMm: number, [closes, tight, close, easy, loose]: Bounds): Feel => {
  if (roomMm < closes - 1e-9) return 'will not close'
  if (roomMm < tight) return 'tight'
  if (roomMm < close) return 'close'
  if (roomMm < easy) return 'easy'
  return roomMm <= loose ? 'loose' : 'too loose'
}

/** How a bracelet with that much room sits. */
export const feelOf = (roomMm: number): Feel => bandOf(roomMm, WRIST)

/**
 * Least and most room, mm, between which a piece of that kind sits well; null where the measure is the finished
 * length.
 */
export function roomLimits({
  kind,
  closure,
}: Pick<Fit, 'kind' | 'closure'>): { readonly least: number; readonly most: number } | null {
  if (fitKindOf(kind).eases.length === 0) return null
  const [, least, , , most] = kind === 'choker' ? NECK : closure.kind === 'elastic' ? ELASTIC : WRIST
  return { least, most }
}

/**
 * How it sits: `roomMm` is what is left round the body, `differenceMm` how far the finished length is from what was
 * wanted.
 */
export function feelFor(
  fit: Fit,
  {
    roomMm,
    differenceMm,
    passes,
    beadworkMm,
  }: { readonly roomMm: number; readonly differenceMm: number; readonly passes: boolean; readonly beadworkMm: number },
): Feel {
  const { eases, toleranceMm, bend } = fitKindOf(fit.kind)
  if (!passes) return 'will not pass'
  if (bend === 'open') {
    const share = beadworkMm / fit.bodyMm
    return share < CUFF_SHARE.least - 0.005 ? 'short' : share > CUFF_SHARE.most + 0.005 ? 'long' : 'right'
  }
  if (eases.length === 0)
    return differenceMm < -toleranceMm - 1e-9 ? 'short' : differenceMm > toleranceMm + 1e-9 ? 'long' : 'right'
  return bandOf(roomMm, fit.kind === 'choker' ? NECK : fit.closure.kind === 'elastic' ? ELASTIC : WRIST)
}

export const fitsWell = (feel: Feel): boolean =>
  feel === 'close' || feel === 'easy' || feel === 'loose' || feel === 'right'

const PLACE: Partial<Record<FitKind, string>> = { bracelet: 'the wrist', anklet: 'the ankle', choker: 'the neck' }

/** How it is said of what has a length rather than room. */
const LENGTHS: Partial<Record<FitKind, Partial<Record<'short' | 'long' | 'right', string>>>> = {
  ring: { short: 'No, the ring is too small', long: 'No, the ring is too large', right: 'Yes, the ring fits' },
  hoop: {
    short: 'No, it does not reach round the hoop',
    long: 'No, it would hang loose on the hoop',
    right: 'Yes, it goes round the hoop',
  },
  cuff: {
    short: 'No, the cuff would fall off',
    long: 'No, too long: the gap closes up',
    right: 'Yes, the cuff holds',
  },
  earrings: { right: 'Yes, as long as wanted' },
  pendant: { right: 'Yes, as long as wanted' },
}

/** How a fit is said in a heading. */
export function feelWords(feel: Feel, kind: FitKind): string {
  const place = PLACE[kind] ?? 'the body'
  switch (feel) {
    case 'will not close':
      return 'No, it will not close'
    case 'will not pass':
      return kind === 'necklace'
        ? 'No, it will not pass the head'
        : kind === 'anklet'
          ? 'No, it will not pass the heel'
          : 'No, it will not pass the hand'
    case 'tight':
      return 'Barely: it would be tight'
    case 'close':
      return kind === 'choker' ? 'Yes, high on the neck' : `Yes, close to ${place}`
    case 'easy':
      return kind === 'choker' ? 'Yes, low on the neck' : `Yes, easy on ${place}`
    case 'loose':
      return `Yes, loose on ${place}`
    case 'too loose':
      return 'It closes, but far too loose'
    case 'short':
      return LENGTHS[kind]?.short ?? 'Shorter than wanted'
    case 'long':
      return LENGTHS[kind]?.long ?? 'Longer than wanted'
    case 'right':
      return LENGTHS[kind]?.right ?? 'Yes, the length wanted'
  }
}

/** The same in a word or two, for lists. */
export const feelShort = (feel: Feel, kind: FitKind): string =>
  feelWords(feel, kind)
    .replace(/^(Yes|No|Barely)[,:] (it (would be|will) )?/, '')
    .replace(/^It closes, but /, '')

/** The question that the fit page answers. */
export const feelQuestion = (kind: FitKind): string =>
  ({
    bracelet: 'Will it close?',
    anklet: 'Will it close?',
    choker: 'Will it close?',
    cuff: 'Will it hold?',
    ring: 'Will it go on?',
    hoop: 'Will it go round?',
    necklace: 'Will it be long enough?',
    earrings: 'Will they hang right?',
    pendant: 'Will it hang right?',
  })[kind]
